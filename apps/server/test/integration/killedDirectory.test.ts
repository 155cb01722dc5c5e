import { afterAll, expect, it } from '@jest/globals'
import { startStandIns } from '@upper-field/standins'
import { freePort } from '../../../../scripts/postgres.mjs'
import { freshDatabase, KEYS, newList, OWNER, signedIn } from './harness'
import { ended, killAll, makeOwner, startProcess } from './processes'
import { until } from './until'

afterAll(killAll)
const KILLS = 2
const PROVIDER = 'thornwick'

it('a server that is killed while it fetches from a directory pays for nothing twice, and loses nothing', async () => {
  const keys = { thornwick: KEYS.thornwick }
  const outside = await startStandIns({ port: 0, seed: 'killed directories', people: 6000, keys, speed: 2 })
  const databaseUrl = await freshDatabase()
  const port = await freePort()
  let server = await startProcess(databaseUrl, port)
  const api = await makeOwner(`http://127.0.0.1:${port}`)
  await api.call('changeConnection', {
    params: { provider: PROVIDER },
    body: { baseUrl: outside.url, key: KEYS.thornwick },
  })
  const listId = await newList(api)
  const { id: searchId, jobId } = await api.call('startDirectorySearch', {
    params: { listId },
    body: {
      provider: PROVIDER,
      trade: { code: 'guest-houses', name: 'Guest houses and inns' },
      place: { code: 'GB', name: 'United Kingdom' },
      name: 'Killed',
      budget: 100_000_000,
    },
  })
  // Just when a page was charged, and hardly ever kept here: the moment at which it could be paid twice.
  for (let killed = 0; killed < KILLS; killed++) {
    const before = outside.charged().thornwick.count
    await until(async () => outside.charged().thornwick.count > before)
    server.kill('SIGKILL')
    server = await startProcess(databaseUrl, port)
  }
  const again = await signedIn(`http://127.0.0.1:${port}`, OWNER)
  expect((await ended(again, listId, jobId ?? ''))?.state).toBe('done')
  const search = await again.call('readDirectorySearch', { params: { searchId } })
  const told = Object.values(search.became).reduce((sum, n) => sum + n, 0)
  expect(search.isWhole).toBe(true)
  expect(told + search.leftOut).toBe(search.total)
  expect(search.pages).toBeGreaterThan(3)
  expect(search.spent).toBe(told * 60_000)
  expect(outside.charged().thornwick).toEqual({ total: search.spent, count: told })
  const batches = await again.call('readBatches', { params: { listId } })
  expect(batches.map(({ id, rows }) => [id, rows])).toEqual([[search.batchId, search.became.taken]])
  server.kill('SIGKILL')
  await outside.stop()
})
