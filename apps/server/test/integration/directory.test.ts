import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import type { ResponseOf } from '@upper-field/contract'
import { type StandIns, startStandIns } from '@upper-field/standins'
import { bringText, KEYS, newList, startTestServer, type TestServer } from './harness'
import { startOddServices } from './oddServices'
import { until } from './until'

const WORLD = { seed: 'directories', people: 2600 }
const PROVIDER = 'thornwick'
const TRADE = { code: 'guest-houses', name: 'Guest houses and inns' }
const PLACE = { code: 'GB', name: 'United Kingdom' }
const QUESTION = { provider: PROVIDER, trade: TRADE, place: PLACE }

let server: TestServer
let outside: StandIns
beforeAll(async () => {
  outside = await startStandIns({ port: 0, ...WORLD, keys: { thornwick: KEYS.thornwick }, speed: 100 })
  server = await startTestServer()
  await server.api.call('changeConnection', {
    params: { provider: PROVIDER },
    body: { baseUrl: outside.url, key: KEYS.thornwick },
  })
})
afterAll(async () => {
  await server.stop()
  await outside.stop()
})

type Search = ResponseOf<'readDirectorySearch'>
const planFor = (listId: string) => server.api.call('planDirectorySearch', { params: { listId }, body: QUESTION })
const start = (listId: string, budget: number) =>
  server.api.call('startDirectorySearch', { params: { listId }, body: { ...QUESTION, name: 'Guest houses', budget } })

async function finished(searchId: string): Promise<Search> {
  await until(async () => {
    const [job] = await server.sql<{ state: string }>(
      'select j.state from jobs j join directory_searches s on s.job_id = j.id where s.id = $1',
      [searchId],
    )
    return ['done', 'failed', 'stopped'].includes(job?.state ?? '')
  })
  return server.api.call('readDirectorySearch', { params: { searchId } })
}

async function fetched(listId: string): Promise<Search> {
  const { most } = await planFor(listId)
  return finished((await start(listId, most)).id)
}

const told = ({ became }: Search) => Object.values(became).reduce((sum, n) => sum + n, 0)
const charged = () => outside.charged().thornwick
const recordsOf = (searchId: string) =>
  server.api.call('readDirectoryRecords', { params: { searchId }, query: { after: 0 } })
const e164sOf = async (listId: string) =>
  (await server.sql<{ e164: string }>('select distinct e164 from contact_numbers where list_id = $1', [listId])).map(
    ({ e164 }) => e164,
  )

describe('a directory of businesses', () => {
  let listId = ''
  let whole: Search
  beforeAll(async () => {
    listId = await newList(server.api)
    whole = await fetched(listId)
  })

  it('has trades and places that are looked up', async () => {
    const lookUp = (what: 'trades' | 'places', search: string) =>
      server.api.call('lookUpInDirectory', { params: { provider: PROVIDER, what }, query: { search } })
    expect(await lookUp('trades', 'guest')).toEqual([TRADE])
    expect(await lookUp('places', 'united king')).toContainEqual(PLACE)
    expect(await lookUp('places', 'Nowhere at all')).toEqual([])
  })

  it('tells before anything is paid how many there are and at most what they cost', async () => {
    const before = charged()
    const plan = await planFor(await newList(server.api))
    expect(plan).toMatchObject({ leftOut: 0, named: 0, pricePer: 'candidate', price: 60_000 })
    expect(plan.most).toBe(plan.total * plan.price)
    expect(plan.calls).toBe(Math.ceil(plan.total / 50))
    expect(charged()).toEqual(before)
  })

  it('comes whole, in pages, and is paid for record by record', async () => {
    expect(whole).toMatchObject({ isWhole: true, spent: charged().total })
    expect(whole.pages).toBeGreaterThan(1)
    expect(told(whole) + whole.leftOut).toBe(whole.total)
    expect(whole.spent).toBe(told(whole) * 60_000)
    const lines = await server.api.call('readSpend', {})
    const ours = lines.filter(({ provider, reason }) => provider === PROVIDER && reason === 'directory')
    expect(ours.reduce((sum, { amount }) => sum + amount, 0)).toBe(charged().total)
    expect(ours.reduce((sum, { charges }) => sum + charges, 0)).toBe(charged().count)
  })

  it('becomes a batch like any other, without what is closed or told twice', async () => {
    const { became, batchId } = whole
    const [batch] = (await server.api.call('readBatches', { params: { listId } })).filter(({ id }) => id === batchId)
    expect(batch).toMatchObject({ sourceKind: 'bought', rows: became.taken, state: 'ready' })
    expect(became.closed).toBeGreaterThan(0)
    // A second entry of a business that the first page held already.
    expect((became['there-already'] ?? 0) + whole.leftOut).toBeGreaterThan(0)
    expect((await e164sOf(listId)).every((number) => number.startsWith('+44'))).toBe(true)
    const twice = await server.sql<{ offices: number }>(
      `select count(*) filter (where facts->>'headOffice' is null)::int as offices
      from directory_records where search_id = $1 and state = 'taken' group by reach[1] having count(*) > 1`,
      [whole.id],
    )
    // Only branches share a number, with each other and with their head office.
    expect(twice.length).toBeGreaterThan(0)
    expect(twice.every(({ offices }) => offices <= 1)).toBe(true)
  })

  it('is not paid twice for what a list holds', async () => {
    const plan = await planFor(listId)
    expect(plan.named).toBe((await e164sOf(listId)).length)
    expect(plan.total - plan.leftOut).toBe(0)
    await expect(start(listId, 10_000_000)).rejects.toMatchObject({ code: 'nothing-to-fetch' })
  })

  it('neither takes nor pays for whoever is suppressed, or came with a file', async () => {
    const other = await newList(server.api)
    const [first = '', second = ''] = await e164sOf(listId)
    await bringText(server.api, other, `Name,Phone\nSomebody,${second}\n`)
    const lists = await server.api.call('makeSuppressionList', { body: { name: 'Said no', kind: 'opt-outs' } })
    await server.api.call('addSuppressionEntries', {
      params: { suppressionListId: lists.id },
      body: { text: first, reason: 'asked' },
    })
    const before = charged()
    const search = await fetched(other)
    expect(search.leftOut).toBeGreaterThanOrEqual(2)
    const { records } = await recordsOf(search.id)
    const ends = [first, second].map((number) => number.slice(-9))
    expect(records.filter(({ number }) => ends.some((end) => number.endsWith(end)))).toEqual([])
    expect(charged().total - before.total).toBe(search.spent)
  })
})

describe('an amount', () => {
  it('is never passed: fewer are fetched, and the figures say so', async () => {
    const listId = await newList(server.api)
    const before = charged()
    const search = await finished((await start(listId, 7 * 60_000 + 1)).id)
    expect(search).toMatchObject({ spent: 7 * 60_000, isWhole: false, pages: 1 })
    expect(charged().total - before.total).toBe(7 * 60_000)
    expect(told(search)).toBe(7)
  })

  it('holds where the price rises while it runs', async () => {
    const listId = await newList(server.api)
    const { most } = await planFor(listId)
    outside.toggle('thornwick', 'another-price')
    try {
      const before = charged()
      const search = await finished((await start(listId, most)).id)
      expect(search.spent).toBeLessThanOrEqual(most)
      expect(search.spent).toBe(charged().total - before.total)
      expect(search.isWhole).toBe(false)
    } finally {
      outside.toggle('thornwick', 'another-price')
    }
  })

  it('of the month is kept to before anything is asked', async () => {
    const listId = await newList(server.api)
    await server.api.call('changeSpendLimit', { body: { limit: 1 } })
    try {
      await expect(start(listId, 1_000_000)).rejects.toMatchObject({ code: 'month-is-spent' })
    } finally {
      await server.api.call('changeSpendLimit', { body: { limit: null } })
    }
  })
})

describe('a directory that fails', () => {
  it('is told before it starts, and nothing is paid', async () => {
    const listId = await newList(server.api)
    outside.toggle('thornwick', 'nonsense')
    try {
      await expect(planFor(listId)).rejects.toMatchObject({ code: 'odd-answer' })
    } finally {
      outside.toggle('thornwick', 'nonsense')
    }
    await expect(
      server.api.call('planDirectorySearch', {
        params: { listId },
        body: { ...QUESTION, place: { code: 'XX/Nowhere', name: 'Nowhere' } },
      }),
    ).rejects.toMatchObject({ code: 'question-refused' })
    for (const [provider, code] of [
      ['pellow', 'no-connection'],
      ['nobody', 'no-connection'],
    ] as const)
      await expect(
        server.api.call('planDirectorySearch', { params: { listId }, body: { ...QUESTION, provider } }),
      ).rejects.toMatchObject({ code })
  })

  it('keeps what was told before, and goes on where it was', async () => {
    const listId = await newList(server.api)
    const { most } = await planFor(listId)
    const before = charged()
    const started = await start(listId, most)
    await until(
      async () => (await server.api.call('readDirectorySearch', { params: { searchId: started.id } })).pages > 0,
    )
    outside.toggle('thornwick', 'nonsense')
    const half = await finished(started.id)
    outside.toggle('thornwick', 'nonsense')
    if (!half.isWhole) await server.api.call('resumeJob', { params: { jobId: started.jobId ?? '' } })
    const search = await finishedWhole(started.id)
    expect(search.isWhole).toBe(true)
    expect(search.spent).toBe(charged().total - before.total)
    const [batch] = await server.api.call('readBatches', { params: { listId } })
    expect(batch).toMatchObject({ id: search.batchId, rows: search.became.taken })
  })
})

describe('a directory that no code knows', () => {
  const LOOK_UP = {
    call: { method: 'GET' as const, path: '/look?q={{ search }}' },
    items: '$.all[*]',
    code: '$.id',
    name: '$.id',
  }
  const document = (address: string) => ({
    format: 1 as const,
    id: 'wayside',
    name: 'Wayside',
    gives: ['businesses' as const],
    accepts: ['trade-and-place' as const],
    address,
    key: { in: 'query' as const, name: 'key', value: '{{ key }}' },
    one: {
      call: { method: 'GET' as const, path: '/list?from={{ cursor }}' },
      answers: { how: 'at-once' as const },
      items: '$.all[*]',
    },
    fields: { record: '$.id', name: '$.id', number: '$.tel' },
    charge: { per: 'call' as const, euros: 0.5 },
    directory: {
      trades: LOOK_UP,
      places: LOOK_UP,
      count: { call: { method: 'GET' as const, path: '/count' }, total: '$.n' },
      perPage: 2,
      next: '$.next',
    },
  })

  /** A directory that answers as told: how many there are, and what a page from a place holds. */
  const oddDirectory = async (n: number, pageFrom: (from: number) => unknown) => {
    const odd = await startOddServices(server, ({ path }, response) => {
      const from = Number(new URL(path, 'http://x').searchParams.get('from') ?? 0)
      const told = path.startsWith('/count') ? { n } : pageFrom(from)
      response.writeHead(200, { 'content-type': 'application/json' }).end(JSON.stringify(told))
    })
    const params = { provider: 'wayside' }
    await server.api.call('keepConnector', { params, body: document(odd.url) })
    await server.api.call('changeConnection', { params, body: { baseUrl: odd.url, key: 'key-wayside' } })
    return odd
  }
  const ASKED = { provider: 'wayside', trade: { code: 'a', name: 'A' }, place: { code: 'b', name: 'B' } }

  it('is paid by the page, and left where its pages tell the same for ever', async () => {
    const odd = await oddDirectory(90, (from) => {
      const page = Math.min(from, 1) * 2
      return { all: [0, 1].map((i) => ({ id: `w${page + i}`, tel: `+44166555501${page + i}` })), next: from + 1 }
    })
    try {
      const listId = await newList(server.api)
      const plan = await server.api.call('planDirectorySearch', { params: { listId }, body: ASKED })
      expect(plan).toMatchObject({ total: 90, calls: 45, pricePer: 'call', most: 22_500_000 })
      const started = await server.api.call('startDirectorySearch', {
        params: { listId },
        body: { ...ASKED, name: 'Wayside', budget: plan.most },
      })
      const search = await finished(started.id)
      // Two pages, and a third that told what the second had.
      expect(search).toMatchObject({ isWhole: true, pages: 3, spent: 1_500_000, became: { taken: 4 } })
    } finally {
      await odd.stop()
    }
  })

  it('loses none where it gives no ids: the same told twice is one business', async () => {
    const businesses = ['10', '11', '10', '12', '13'].map((end) => ({ tel: `+4416655551${end}` }))
    const odd = await oddDirectory(5, (from) => ({
      all: businesses.slice(from, from + 2),
      next: from + 2 < businesses.length ? from + 2 : null,
    }))
    try {
      const listId = await newList(server.api)
      const started = await server.api.call('startDirectorySearch', {
        params: { listId },
        body: { ...ASKED, name: 'Without ids', budget: 5_000_000 },
      })
      const search = await finished(started.id)
      expect(search).toMatchObject({ isWhole: true, pages: 3, became: { taken: 4 } })
      expect((await server.api.call('readContacts', { params: { listId } })).total).toBe(4)
    } finally {
      await odd.stop()
    }
  })
})

async function finishedWhole(searchId: string): Promise<Search> {
  await until(async () => (await finished(searchId)).isWhole)
  return finished(searchId)
}
