import { createServer } from 'node:http'
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import { request } from 'undici'
import { checkAddress, isPublicAddress, outgoingAgent } from '../../src/connections/outgoing'

describe('addresses inside the house', () => {
  it.each([
    '0.0.0.0',
    '10.0.0.1',
    '100.64.0.1',
    '127.0.0.1',
    '127.255.255.254',
    '169.254.169.254',
    '172.16.0.1',
    '172.31.255.255',
    '192.0.0.8',
    '192.0.2.1',
    '192.168.1.1',
    '198.18.0.1',
    '198.19.255.255',
    '198.51.100.7',
    '203.0.113.9',
    '224.0.0.1',
    '255.255.255.255',
    '::',
    '::1',
    'fc00::1',
    'fd12:3456::1',
    'fe80::1',
    'ff02::1',
    '::ffff:127.0.0.1',
    '::ffff:10.0.0.1',
    '64:ff9b::7f00:1',
    '2001:db8::1',
    '2002:7f00:1::',
    'no address',
  ])('%s is none of the internet', (address) => expect(isPublicAddress(address)).toBe(false))

  it.each([
    '93.184.216.34',
    '8.8.8.8',
    '172.32.0.1',
    '192.0.1.1',
    '198.20.0.1',
    '2606:4700:4700::1111',
    '::ffff:8.8.8.8',
  ])('%s is one of the internet', (address) => expect(isPublicAddress(address)).toBe(true))
})

const STRICT = { allowsPrivateAddresses: false, allowsPlainHttp: false }
const refusal = (url: string, rules = STRICT) =>
  checkAddress(url, rules).then(
    () => null,
    (error: { reason?: string }) => error.reason ?? 'other',
  )

describe('an address that is to be called', () => {
  it.each([
    ['https://127.0.0.1:1', 'private-address'],
    ['https://[::1]', 'private-address'],
    ['https://[fd00::1]:8443/x', 'private-address'],
    ['https://[::ffff:169.254.169.254]', 'private-address'],
    ['https://198.18.0.1', 'private-address'],
    ['https://192.0.0.8', 'private-address'],
    ['https://2130706433', 'private-address'],
    ['https://0x7f.1', 'private-address'],
    ['https://localhost', 'private-address'],
    ['http://93.184.216.34', 'plain-http'],
    ['file:///etc/passwd', 'scheme'],
    ['gopher://93.184.216.34', 'scheme'],
  ])('%s is refused: %s', async (url, reason) => expect(await refusal(url)).toBe(reason))

  it.each(['https://93.184.216.34', 'https://[2606:4700:4700::1111]:8443'])('%s may be', async (url) =>
    expect(await refusal(url)).toBeNull(),
  )

  it('may be private, or without encryption, where the settings say so', async () => {
    expect(await refusal('https://127.0.0.1', { ...STRICT, allowsPrivateAddresses: true })).toBeNull()
    expect(await refusal('http://93.184.216.34', { ...STRICT, allowsPlainHttp: true })).toBeNull()
    expect(await refusal('http://127.0.0.1', { ...STRICT, allowsPrivateAddresses: true })).toBe('plain-http')
  })
})

describe('a name that leads elsewhere a moment later', () => {
  let calls = 0
  const inside = createServer((_, response) => {
    calls++
    response.end('secret of the house')
  })
  let port = 0
  beforeAll(async () => {
    await new Promise<void>((resolve) => inside.listen(0, '127.0.0.1', resolve))
    const address = inside.address()
    port = typeof address === 'object' && address ? address.port : 0
  })
  afterAll(() => void inside.close())

  /** A name server that says what it is told to, each time it is asked. */
  const leadingTo = (...addresses: string[]) => {
    let asked = 0
    const lookup = (_: string, __: unknown, callback: (error: null, found: unknown) => void) => {
      const address = addresses[Math.min(asked++, addresses.length - 1)] ?? ''
      callback(null, [{ address, family: 4 }])
    }
    return { lookup: lookup as never, asked: () => asked }
  }

  it('is looked up for each connection, and what was checked is what is connected to', async () => {
    const names = leadingTo('127.0.0.1')
    const dispatcher = outgoingAgent(STRICT, names.lookup)
    await expect(request(`http://provider.example:${port}`, { dispatcher })).rejects.toThrow('private-address')
    expect(calls).toBe(0)
    expect(names.asked()).toBe(1)
    await dispatcher.close()
  })

  it('is connected to where private addresses are allowed', async () => {
    const dispatcher = outgoingAgent({ ...STRICT, allowsPrivateAddresses: true }, leadingTo('127.0.0.1').lookup)
    const { body } = await request(`http://provider.example:${port}`, { dispatcher })
    expect(await body.text()).toBe('secret of the house')
    await dispatcher.close()
  })
})
