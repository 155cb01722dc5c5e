import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import { seal, unsealWithAny } from '../../src/connections/seal'
import { sealAgain } from '../../src/connections/sealAgain'
import { SEALING_SECRET, startTestServer, type TestServer } from './harness'

let server: TestServer
beforeAll(async () => {
  server = await startTestServer()
})
afterAll(() => server.stop())

const change = (baseUrl: string, key?: string) =>
  server.api.call('changeConnection', { params: { provider: 'tansy' }, body: { baseUrl, ...(key ? { key } : {}) } })
const sealedKey = async () =>
  (await server.sql<{ sealed_key: string }>(`select sealed_key from connections where provider = 'tansy'`))[0]
    ?.sealed_key

describe('outside the demo', () => {
  it('nothing is connected at the start, and afterwards what somebody has connected', async () => {
    expect(await server.api.call('readConnections')).toEqual([])
    await change('http://127.0.0.1:4000', 'a key')
    expect((await server.api.call('readConnections')).map(({ provider, hasKey }) => [provider, hasKey])).toEqual([
      ['tansy', true],
    ])
    await server.sql('delete from connections')
  })
})

describe('the key of a provider', () => {
  it('leaves with its address: another address asks for the key again', async () => {
    await change('http://127.0.0.1:4001/v1', 'the key')
    const before = await sealedKey()
    await expect(change('http://127.0.0.1:4002')).rejects.toMatchObject({ status: 422, code: 'key-needed' })
    await expect(change('https://127.0.0.1:4001')).rejects.toMatchObject({ code: 'key-needed' })
    expect(await sealedKey()).toBe(before)
    expect((await change('http://127.0.0.1:4001/v2')).hasKey).toBe(true)
    expect((await change('http://127.0.0.1:4002', 'the key')).baseUrl).toBe('http://127.0.0.1:4002')
  })

  it('is sealed again with the present secret, so that the earlier one can go', async () => {
    const present = 'a new secret of more than forty characters!'
    await server.sql(`update connections set sealed_key = $1 where provider = 'tansy'`, [
      seal('old key', SEALING_SECRET),
    ])
    const config = { ...server.services.config, sealingSecrets: [present, SEALING_SECRET] as [string, string] }
    expect(await sealAgain({ ...server.services, config })).toBe(1)
    expect(await sealAgain({ ...server.services, config })).toBe(0)
    expect(unsealWithAny((await sealedKey()) ?? '', [present])).toEqual({ text: 'old key', secret: present })
    expect(unsealWithAny((await sealedKey()) ?? '', [SEALING_SECRET])).toBeNull()
  })
})

describe('addresses of providers', () => {
  it('are refused with what would have to be allowed', async () => {
    const strict = await startTestServer({ ALLOW_PRIVATE_ADDRESSES: '0', ALLOW_PLAIN_HTTP: '0' })
    const refused = (baseUrl: string) =>
      strict.api
        .call('changeConnection', { params: { provider: 'tansy' }, body: { baseUrl, key: 'some key' } })
        .catch((error: Error) => error.message)
    expect(await refused('http://93.184.216.34')).toMatch(/https only/)
    expect(await refused('https://10.1.2.3')).toMatch(/private network/)
    expect(await refused('https://[::1]:8443')).toMatch(/private network/)
    expect(await strict.sql('select 1 from connections')).toEqual([])
    await strict.stop()
  })
})
