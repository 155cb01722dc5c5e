import { afterAll, expect, it } from '@jest/globals'
import { startStandIns } from '@upper-field/standins'
import { createRandom, DEMO_WORLD } from '@upper-field/standins/world'
import { freePort } from '../../../../scripts/postgres.mjs'
import { freshDatabase, newList, OWNER, signedIn } from './harness'
import { killAll, makeOwner, startProcess } from './processes'
import { until } from './until'

afterAll(killAll)
const KILLS = 3

it('a server that is killed while it reads pages fetches none twice, and reads all but those it was at', async () => {
  const outside = await startStandIns({ port: 0, ...DEMO_WORLD, keys: {}, speed: 20 })
  const databaseUrl = await freshDatabase()
  const port = await freePort()
  const start = () =>
    startProcess(databaseUrl, port, { EXAMPLE_WEB: outside.url, PAGE_DELAY_SECONDS: '0.05', PAGES_AT_ONCE: '2' })
  let server = await start()
  const api = await makeOwner(`http://127.0.0.1:${port}`)
  const listId = await newList(api)
  const hosts = outside.web.hosts.filter((host) => (outside.web.truth.get(host) ?? []).length > 0).slice(0, 14)
  const { id: harvestId } = await api.call('startHarvest', {
    params: { listId },
    body: {
      name: 'Killed',
      source: { from: 'addresses', addresses: hosts },
      follow: 'contact',
      pagesPerSite: 3,
      country: null,
    },
  })
  const random = createRandom('moments')
  for (let killed = 0; killed < KILLS; killed++) {
    const before = outside.web.visits.length
    await until(async () => outside.web.visits.length > before + random.below(12))
    server.kill('SIGKILL')
    server = await start()
  }
  const again = await signedIn(`http://127.0.0.1:${port}`, OWNER)
  const isDone = async () => {
    const [job] = await again.call('readJobs', { params: { listId } })
    // So many kills in the same step end the job: a person goes on.
    if (job?.state === 'failed') await again.call('resumeJob', { params: { jobId: job.id } })
    return job?.state === 'done'
  }
  await until(isDone)
  const pages = outside.web.visits.filter(({ path }) => path !== '/robots.txt')
  const asked = pages.map(({ host, path }) => `${host}${path}`)
  expect(asked.filter((page, at) => asked.indexOf(page) < at)).toEqual([])
  const { ofSites } = await again.call('readHarvest', { params: { harvestId } })
  expect(ofSites.every(({ waiting }) => waiting === 0)).toBe(true)
  const interrupted = ofSites.reduce((sum, one) => sum + one.interrupted, 0)
  // At most one page of each site that was being read at the time.
  expect(interrupted).toBeLessThanOrEqual(KILLS * 2)
  // A person has them read again.
  for (const { site, interrupted: n } of ofSites)
    if (n > 0) await again.call('readPagesAgain', { params: { harvestId }, body: { site } })
  await until(isDone)
  const { ofSites: whole } = await again.call('readHarvest', { params: { harvestId } })
  expect(whole.filter(({ numbers }) => numbers === 0).map(({ site }) => site)).toEqual([])
  server.kill('SIGKILL')
  await outside.stop()
})
