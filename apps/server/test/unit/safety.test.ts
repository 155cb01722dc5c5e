import { describe, expect, it } from '@jest/globals'
import { readConfig } from '../../src/config'
import { checkAddress } from '../../src/connections/outgoing'
import { seal, unseal } from '../../src/connections/seal'
import { isSetupCode, setupCode } from '../../src/people/setupCode'

const SECRET = 's'.repeat(40)

describe('sealed keys', () => {
  it('come back with the same secret only', () => {
    const sealed = seal('key-123', SECRET)
    expect(sealed).not.toContain('key-123')
    expect(unseal(sealed, SECRET)).toBe('key-123')
    expect(() => unseal(sealed, 't'.repeat(40))).toThrow()
  })
  it('are noticed when changed, and never the same twice', () => {
    const sealed = Buffer.from(seal('key-123', SECRET), 'base64')
    sealed[sealed.length - 1] = (sealed.at(-1) ?? 0) ^ 1
    expect(() => unseal(sealed.toString('base64'), SECRET)).toThrow()
    expect(seal('x', SECRET)).not.toBe(seal('x', SECRET))
  })
})

describe('outgoing addresses', () => {
  it.each([
    'http://127.0.0.1:1',
    'http://10.0.0.1',
    'http://169.254.169.254',
    'http://192.168.1.1',
    'http://[::1]',
    'http://localhost',
    'file:///etc/passwd',
  ])('refuses %s', async (url) => {
    await expect(checkAddress(url, { allowsPrivateAddresses: false, allowsPlainHttp: true })).rejects.toThrow()
  })
  it('takes a public one, and a private one where settings allow it', async () => {
    await expect(
      checkAddress('https://93.184.216.34', { allowsPrivateAddresses: false, allowsPlainHttp: true }),
    ).resolves.toBeUndefined()
    await expect(
      checkAddress('http://127.0.0.1:1', { allowsPrivateAddresses: true, allowsPlainHttp: true }),
    ).resolves.toBeUndefined()
  })
})

describe('settings', () => {
  it('name what is missing', () => expect(() => readConfig({})).toThrow(/DATABASE_URL/))
  it('refuse a short secret', () =>
    expect(() => readConfig({ DATABASE_URL: 'x', SESSION_SECRET: 'short', SEALING_SECRET: SECRET })).toThrow(
      /SESSION_SECRET/,
    ))
  it('listen on loopback and are no demo unless told so', () => {
    expect(readConfig({ DATABASE_URL: 'x', SESSION_SECRET: SECRET, SEALING_SECRET: 't'.repeat(40) })).toMatchObject({
      host: '127.0.0.1',
      isDemo: false,
      allowsPrivateAddresses: false,
      limits: { maxUploadBytes: 1_073_741_824 },
    })
  })
})

describe('the code of the first owner', () => {
  it('is this installation’s own', () => {
    expect(isSetupCode(SECRET, setupCode(SECRET))).toBe(true)
    expect(isSetupCode(SECRET, ` ${setupCode(SECRET)} `)).toBe(true)
    expect(isSetupCode(SECRET, setupCode('t'.repeat(40)))).toBe(false)
    expect(isSetupCode(SECRET, '')).toBe(false)
  })
})
