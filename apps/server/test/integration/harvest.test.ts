import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import type { ResponseOf } from '@upper-field/contract'
import { type StandIns, startStandIns } from '@upper-field/standins'
import { DEMO_WORLD } from '@upper-field/standins/world'
import { newList, startTestServer, type TestServer } from './harness'
import { until } from './until'

let server: TestServer
let outside: StandIns
beforeAll(async () => {
  outside = await startStandIns({ port: 0, ...DEMO_WORLD, keys: {}, speed: 20 })
  server = await startTestServer({
    EXAMPLE_WEB: outside.url,
    PAGE_DELAY_SECONDS: '0.01',
    PAGE_SECONDS: '2',
    PAGES_AT_ONCE: '8',
    MAX_HARVEST_SITES: '20',
  })
})
afterAll(async () => {
  await server.stop()
  await outside.stop()
})

const PLANNED = { follow: 'contact', pagesPerSite: 6, country: null } as const
type HarvestDetail = ResponseOf<'readHarvest'>
const from = (addresses: readonly string[]) => ({ from: 'addresses' as const, addresses: [...addresses] })

async function read(listId: string, addresses: readonly string[], more: { follow?: 'none' | 'all' } = {}) {
  const started = await server.api.call('startHarvest', {
    params: { listId },
    body: { ...PLANNED, ...more, name: 'Terraces on the web', source: from(addresses) },
  })
  return finished(started.id)
}

async function finished(harvestId: string): Promise<HarvestDetail> {
  await until(async () => {
    const [job] = await server.sql<{ state: string }>(
      'select j.state from jobs j join harvests h on h.job_id = j.id where h.id = $1',
      [harvestId],
    )
    return job?.state === 'done'
  })
  return server.api.call('readHarvest', { params: { harvestId } })
}

const siteOf = (harvest: HarvestDetail, site: string) => harvest.ofSites.find((one) => one.site === site)
const ofSite = (harvest: HarvestDetail, site: string) =>
  server.api.call('readHarvestedSite', { params: { harvestId: harvest.id }, query: { site } })

describe('the whole small web', () => {
  let harvest: HarvestDetail
  let listId = ''
  beforeAll(async () => {
    listId = await newList(server.api)
    harvest = await read(listId, outside.web.hosts)
  })

  it('gives the numbers of its businesses, and hardly anything that is none', async () => {
    const found = await server.sql<{ site: string; value: string }>(
      `select distinct site, value from harvest_findings where harvest_id = $1 and kind = 'number' and confidence >= 0.5`,
      [harvest.id],
    )
    const truth = [...outside.web.truth].flatMap(([site, numbers]) => numbers.map((value) => `${site} ${value}`))
    const right = found.filter(({ site, value }) => truth.includes(`${site} ${value}`)).length
    console.log(`found ${right} of ${truth.length} numbers; of ${found.length} found, ${right} are right`)
    expect(right / truth.length).toBeGreaterThanOrEqual(0.97)
    expect(right / found.length).toBeGreaterThanOrEqual(0.98)
  })

  it('is asked for nothing it forbids, one page of a site at a time, each page once', () => {
    const { visits } = outside.web
    const forbidden = visits.filter(
      ({ host, path }) => path.startsWith('/private/') || (host === 'closed-gate.example' && path !== '/robots.txt'),
    )
    expect(forbidden).toEqual([])
    expect(Math.max(...visits.map(({ open }) => open))).toBe(1)
    const pages = visits.map(({ host, path }) => `${host}${path}`)
    const twice = pages.filter((page, at) => pages.indexOf(page) < at)
    // The one that asked to come again later.
    expect(twice.filter((page) => !page.startsWith('busy-counter.example'))).toEqual([])
    expect(visits.every(({ agent }) => /^UpperFieldPages\/1\.0 \(.*@.*\)$/.test(agent))).toBe(true)
  })

  it('tells of each site why it was not read', async () => {
    expect(siteOf(harvest, 'closed-gate.example')).toMatchObject({ state: 'forbidden', read: 0, numbers: 0 })
    expect(siteOf(harvest, 'slow-kettle.example')).toMatchObject({ state: 'open', delay: 2, read: 2, numbers: 1 })
    const problems = async (site: string) =>
      (await ofSite(harvest, site)).pages.map(({ state, problem }) => `${state} ${problem}`)
    expect(await problems('round-about.example')).toEqual(['failed redirects'])
    expect(await problems('heavy-trunk.example')).toEqual(['failed too-large'])
    expect(siteOf(harvest, 'heavy-trunk.example')).toMatchObject({ state: 'open', read: 0, problem: 'too-large' })
    expect(await problems('paper-only.example')).toEqual(['failed no-page'])
    expect(await problems('broken-step.example')).toEqual(['failed site-failed'])
    expect((await problems('long-road.example'))[1]).toMatch(/^failed too-(?:large|slow)$/)
    expect(await problems('busy-counter.example')).toEqual(['read null'])
    expect(siteOf(harvest, 'almanac.example')?.pages).toBeLessThan(8)
  })

  it('never leads inside the house, whatever a page redirects to', async () => {
    const { pages } = await ofSite(harvest, 'back-door.example')
    expect(pages.map(({ problem }) => problem).filter(Boolean)).toEqual(['elsewhere', 'elsewhere'])
    for (const site of ['127.0.0.1:1', '10.20.30.40'])
      expect(siteOf(harvest, site)).toMatchObject({ state: 'unreachable', problem: 'private-address', read: 0 })
  })

  it('reads letters of an encoding nobody names', async () => {
    const { pages, findings } = await ofSite(harvest, 'old-letters.example')
    expect(pages[0]?.blocks.join(' ')).toContain('Café')
    expect(findings).toHaveLength(1)
  })

  it('becomes a batch like any other: a row for each business, its page beside it', async () => {
    const batch = await server.api.call('takeHarvest', { params: { harvestId: harvest.id } })
    expect(batch).toMatchObject({ sourceKind: 'public-page', state: 'ready', rows: harvest.businesses })
    const { contacts, total } = await server.api.call('readContacts', { params: { listId }, query: { limit: 500 } })
    expect(total).toBeGreaterThan(50)
    expect(contacts.every(({ company }) => company !== '')).toBe(true)
    const columns = await server.api.call('readColumns', { params: { listId } })
    expect(columns.map(({ heading }) => heading)).toEqual(expect.arrayContaining(['Page', 'Quotation', 'Read on']))
    await expect(server.api.call('takeHarvest', { params: { harvestId: harvest.id } })).rejects.toMatchObject({
      code: 'taken-already',
    })
    // One that was cut off before its last rows goes on with them.
    await server.sql('update harvests set taken_at = null where id = $1', [harvest.id])
    await server.sql('delete from rows where batch_id = $1 and row > 40', [batch.id])
    await server.sql('delete from contacts where batch_id = $1 and row > 40', [batch.id])
    await server.sql('update batches set rows = 40 where id = $1', [batch.id])
    const again = await server.api.call('takeHarvest', { params: { harvestId: harvest.id } })
    expect(again).toMatchObject({ id: batch.id, rows: harvest.businesses })
    // Sites of contacts are a source too.
    const plan = await server.api.call('planHarvest', {
      params: { listId },
      body: { ...PLANNED, source: { from: 'contacts', filter: 'country:DE' } },
    })
    expect(plan.sites).toBeGreaterThan(3)
    expect(plan.beyond).toBe(0)
  })

  it('whose contacts have more sites than are read at once says how many are left', async () => {
    const [told] = await server.sql<{ sites: number }>(
      `select count(distinct domain)::int as sites from contacts c join batches b on b.id = c.batch_id
       where b.list_id = $1 and domain <> ''`,
      [listId],
    )
    const plan = await server.api.call('planHarvest', {
      params: { listId },
      body: { ...PLANNED, source: { from: 'contacts', filter: '' } },
    })
    expect(plan).toMatchObject({ sites: 20, beyond: (told?.sites ?? 0) - 20 })
    expect(plan.beyond).toBeGreaterThan(0)
  })

  it('has nothing more decided once it is a batch: it would reach nobody', async () => {
    const params = { harvestId: harvest.id }
    const [one] = harvest.ofSites.filter(({ numbers }) => numbers > 0)
    const { findings } = await ofSite(harvest, one?.site ?? '')
    const body = { site: one?.site ?? '', kind: 'number', decision: 'dropped', corrected: null } as const
    const decided = server.api.call('decideFinding', { params, body: { ...body, value: findings[0]?.value ?? '' } })
    await expect(decided).rejects.toMatchObject({ code: 'taken-already' })
    const again = server.api.call('readPagesAgain', { params, body: { site: 'closed-gate.example' } })
    await expect(again).rejects.toMatchObject({ code: 'taken-already' })
    expect((await ofSite(harvest, one?.site ?? '')).findings).toEqual(findings)
  })
})

describe('before anything is read', () => {
  it('it is told how much it is, what is forbidden, and which lines are no addresses', async () => {
    const listId = await newList(server.api)
    const before = outside.web.visits.length
    const plan = await server.api.call('planHarvest', {
      params: { listId },
      body: {
        ...PLANNED,
        source: from([
          'closed-gate.example',
          'http://slow-kettle.example/ slow-kettle.example',
          'ftp://old-letters.example',
          'http://192.168.1.1/',
          'nothing',
          'old-letters.example/#contact',
          'old-letters.example',
        ]),
      },
    })
    expect(plan).toMatchObject({
      addresses: 3,
      sites: 3,
      repeated: 2,
      unreadCount: 3,
      asked: 3,
      forbidden: ['closed-gate.example'],
      slow: [{ site: 'slow-kettle.example', seconds: 2 }],
      mostPages: 3 + 3 * 6,
      mostSeconds: 14,
    })
    expect(plan.unread.map(({ line, why }) => `${line} ${why}`)).toEqual(['3 scheme', '4 private', '5 no-address'])
    expect(outside.web.visits.slice(before).every(({ path }) => path === '/robots.txt')).toBe(true)
  })

  it('what is no address at all is refused', async () => {
    const listId = await newList(server.api)
    const call = server.api.call('planHarvest', { params: { listId }, body: { ...PLANNED, source: from(['??', '']) } })
    await expect(call).rejects.toMatchObject({ code: 'no-addresses' })
  })
})

describe('what was found', () => {
  let harvest: HarvestDetail
  const site = 'old-letters.example'
  beforeAll(async () => {
    harvest = await read(await newList(server.api), [site], { follow: 'none' })
  })
  const decide = (decision: 'taken' | 'dropped' | null, corrected: string | null = null) =>
    server.api.call('decideFinding', {
      params: { harvestId: harvest.id },
      body: { site, kind: 'number', value: outside.web.truth.get(site)?.[0] ?? '', decision, corrected },
    })
  const now = async () => (await ofSite(harvest, site)).findings.map(({ state, corrected }) => [state, corrected])

  it('is dropped, corrected, and let go again', async () => {
    await decide('dropped')
    expect(await now()).toEqual([['dropped', null]])
    await expect(server.api.call('takeHarvest', { params: { harvestId: harvest.id } })).rejects.toMatchObject({
      code: 'nothing-found',
    })
    await decide('taken', '+436645550914')
    expect(await now()).toEqual([['taken', '+436645550914']])
    await decide(null)
    expect(await now()).toEqual([['taken', null]])
    await expect(decide('taken', '12')).rejects.toMatchObject({ code: 'no-number' })
  })

  it('is shown with its page, however many pages its site has', async () => {
    await server.sql('update harvest_pages set depth = 3 where harvest_id = $1', [harvest.id])
    await server.sql(
      `insert into harvest_pages (harvest_id, site, url, state, depth, rank)
       select $1, $2, 'http://' || $2 || '/' || n, 'failed', 1, 1 from generate_series(1, 60) n`,
      [harvest.id, site],
    )
    const { pages, findings } = await ofSite(harvest, site)
    expect(pages).toHaveLength(50)
    expect(pages.at(-1)?.url).toBe(findings[0]?.pages[0])
    await server.sql(`delete from harvest_pages where harvest_id = $1 and state = 'failed'`, [harvest.id])
  })

  it('is found by a format that was taught on a page, on every page that was read', async () => {
    const { pages } = await ofSite(harvest, site)
    const block = pages[0]?.blocks[0] ?? ''
    const raw = outside.web.truth.get(site)?.[0] ?? ''
    const learnt = await server.api.call('learnFormat', {
      params: { harvestId: harvest.id },
      body: { block, raw, takes: false, country: null },
    })
    expect(learnt).toMatchObject({ pages: 1, finds: 0, loses: 1, format: { startsWithPlus: true, takes: false } })
    await server.api.call('keepFormat', { params: { harvestId: harvest.id }, body: { ...learnt.format, name: 'none' } })
    expect(await now()).toEqual([])
    const kept = await server.api.call('readFormats', {})
    expect(kept.map(({ format }) => format.name)).toEqual(['none'])
    await server.api.call('dropFormat', { params: { name: 'none' } })
    await expect(
      server.api.call('learnFormat', {
        params: { harvestId: harvest.id },
        body: { block, raw: 'Café', takes: true, country: null },
      }),
    ).rejects.toMatchObject({ code: 'no-example' })
  })
})
