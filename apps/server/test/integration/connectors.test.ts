import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import { ConnectorDocument } from '@upper-field/contract'
import type { StandIns } from '@upper-field/standins'
import { createWorld, deliverabilityOf, type WorldPerson } from '@upper-field/standins/world'
import { untilEnded } from '../../../../scripts/bringIn'
import { openConnection } from '../../src/connections/client'
import { shippedConnectors } from '../../src/connections/connectors'
import { bringText, connectStandIns, KEYS, newList, startTestServer, type TestServer } from './harness'
import { type OddServices, startOddServices } from './oddServices'

const WORLD = { seed: 'connectors', people: 240 }
const world = createWorld(WORLD.seed, WORLD)
let server: TestServer
let standIns: StandIns
beforeAll(async () => {
  server = await startTestServer()
  standIns = await connectStandIns(server, { ...WORLD, speed: 300 })
  // The outside world runs three hundred times as quick here: so does its limit.
  for (const connector of shippedConnectors())
    await server.api.call('keepConnector', {
      params: { provider: connector.id },
      body: ConnectorDocument.parse({
        ...connector,
        limit: { ...connector.limit, perSecond: null },
        address: standIns.url,
      }),
    })
})
afterAll(async () => {
  await server.stop()
  await standIns.stop()
})

const FINDERS = shippedConnectors().filter(({ gives }) => gives.includes('mobile'))

const listOf = async (people: readonly WorldPerson[]): Promise<string> => {
  const listId = await newList(server.api)
  const rows = people.map((person) =>
    [
      `${person.given} ${person.family}`,
      person.company.name,
      person.workEmail,
      person.company.place.country,
      `https://${person.profile}`,
    ].join(','),
  )
  await bringText(server.api, listId, `name,company,mail,country,profile\n${rows.join('\n')}\n`)
  return listId
}
const fill = (listId: string, order: readonly string[], budget: number) =>
  server.api.call('startFill', { params: { listId }, body: { order: [...order], checksLines: true, budget } })
const booked = async (provider: string): Promise<number> =>
  Number(
    (
      await server.sql<{ sum: string }>('select coalesce(sum(amount), 0) as sum from charges where provider = $1', [
        provider,
      ])
    )[0]?.sum,
  )

describe('the services that ship', () => {
  it('know the mobiles of a quarter to two thirds each, and of about nine tenths together', async () => {
    const people = world.people.slice(0, 100)
    const found = new Map<string, Set<number>>()
    for (const { id } of FINDERS) {
      const listId = await listOf(people)
      await untilEnded(server.api, listId, (await fill(listId, [id], 900_000_000)).id)
      const rows = await server.sql<{ row: number; e164: string }>(
        `select c.row, d.e164 from candidates d join attempts a on a.id = d.attempt_id join contacts c on c.id = a.contact_id
         where a.list_id = $1 and a.provider = $2`,
        [listId, id],
      )
      found.set(id, new Set(rows.flatMap(({ row, e164 }) => (people[row - 2]?.mobile.e164 === e164 ? [row] : []))))
    }
    const shares = [...found.values()].map(({ size }) => size / people.length)
    console.log(`mobiles known: ${[...found].map(([id, rows]) => `${id} ${rows.size}`).join(', ')} of ${people.length}`)
    expect(Math.min(...shares)).toBeGreaterThanOrEqual(0.2)
    expect(Math.max(...shares)).toBeLessThanOrEqual(0.7)
    const together = new Set([...found.values()].flatMap((rows) => [...rows])).size / people.length
    expect(together).toBeGreaterThanOrEqual(0.85)
    expect(together).toBeLessThanOrEqual(0.97)
  })

  it('have charged what our ledger says, to the cent, when all of them were asked in turn', async () => {
    const listId = await listOf(world.people.slice(160))
    const order = ['saltmarsh', 'corvane', 'brindle', 'tansy', 'quillwort', 'ferrier']
    const job = await fill(listId, order, 900_000_000)
    expect(await untilEnded(server.api, listId, job.id)).toMatchObject({ state: 'done' })
    const theirs = standIns.charged()
    for (const [service, { total }] of Object.entries(theirs))
      expect([service, await booked(service)]).toEqual([service, total])
    const fills = await server.sql<{ row: number; e164: string }>(
      'select c.row, f.e164 from fills f join contacts c on c.id = f.contact_id where f.list_id = $1 and f.found_as = $2',
      [listId, 'mobile'],
    )
    expect(fills.length).toBeGreaterThan(50)
    // Nobody else's number, and nothing the register calls dead or fixed: a desk only where it does not know.
    const others = fills.filter(({ row, e164 }) => world.people[160 + row - 2]?.mobile.e164 !== e164)
    for (const { row, e164 } of others) {
      expect(e164).toBe(world.people[160 + row - 2]?.desk.e164)
      expect(await server.sql('select line_type from line_checks where e164 = $1', [e164])).toEqual([
        { line_type: 'unknown' },
      ])
    }
  })

  it('are all asked about a sample, which teaches the cheapest order', async () => {
    const people = world.people.slice(100, 160)
    const listId = await listOf(people)
    expect(await server.api.call('readFillSample', { params: { listId } })).toBeNull()
    const order = ['brindle', 'corvane', 'quillwort', 'saltmarsh', 'tansy']
    const body = { order, checksLines: true, budget: 900_000_000, asking: 'everybody' as const, sample: 40 }
    const job = await server.api.call('startFill', { params: { listId }, body })
    expect(await untilEnded(server.api, listId, job.id)).toMatchObject({ state: 'done', total: 40, done: 40 })
    const asked = await server.sql<{ contact_id: string; n: string }>(
      'select contact_id, count(*) as n from attempts where job_id = $1 group by 1',
      [job.id],
    )
    expect(asked).toHaveLength(40)
    expect(new Set(asked.map(({ n }) => Number(n)))).toEqual(new Set([5]))
    const query = { order: order.join(','), budget: 5_000_000 }
    const sample = await server.api.call('readFillSample', { params: { listId }, query })
    expect(sample).toMatchObject({ contacts: 40, wanting: 60 })
    // Another that nobody has answered yet does not stand in its place.
    const begun = crypto.randomUUID()
    for (const [table, id] of [
      ['jobs', 'id'],
      ['fill_runs', 'job_id'],
    ])
      await server.sql(
        `insert into ${table} select (jsonb_populate_record(t, jsonb_build_object('${id}', $2::text, 'started_at', now()))).*
         from ${table} t where t.${id} = $1`,
        [job.id, begun],
      )
    expect(await server.api.call('readFillSample', { params: { listId }, query })).toEqual(sample)
    if (!sample) return
    const { today, cheapest, withinBudget, curve, providers, choices } = sample
    expect(today?.order).toEqual(order)
    expect(cheapest.usable.value).toBe(today?.usable.value)
    expect(cheapest.cost.value).toBeLessThanOrEqual(today?.cost.value ?? 0)
    expect(withinBudget?.cost.value).toBeLessThanOrEqual(5_000_000)
    expect(choices).toHaveLength(31)
    expect(curve.map(({ usable }) => usable.value)).toEqual(
      curve.map(({ usable }) => usable.value).toSorted((a, b) => a - b),
    )
    const found = (
      await server.sql<{ n: string }>(
        `select count(distinct contact_id) as n from fills where list_id = $1 and found_as = 'mobile'`,
        [listId],
      )
    )[0]
    expect(cheapest.usable.value).toBe(Math.round((Number(found?.n) * 60) / 40))
    for (const { usable, onlyHere, asked } of providers) {
      expect(onlyHere).toBeLessThanOrEqual(usable)
      expect(usable).toBeLessThanOrEqual(asked)
    }
    // Whoever answered is not asked about the same contact again, unless somebody wants that.
    const estimate = (notAgainDays: number) =>
      server.api.call('estimateFill', { params: { listId }, query: { order: 'quillwort', notAgainDays } })
    const [quillwort] = (await estimate(30)).providers
    const [everyTime] = (await estimate(0)).providers
    expect(everyTime?.askedLately).toBe(0)
    expect(quillwort?.askedLately).toBeGreaterThan(5)
    expect((quillwort?.askable ?? 0) + (quillwort?.askedLately ?? 0)).toBe(everyTime?.askable)
    const next = await fill(listId, ['quillwort'], 900_000_000)
    await untilEnded(server.api, listId, next.id)
    const twice = await server.sql(
      `select 1 from attempts a join attempts b on b.contact_id = a.contact_id and b.provider = a.provider and b.job_id <> a.job_id
       where a.job_id = $1 and b.state in ('nothing', 'set-aside')`,
      [next.id],
    )
    expect(twice).toEqual([])
    // Everybody's answers add up to what the run has spent.
    const spent = await server.sql<{ sum: string }>('select sum(amount) as sum from charges where job_id = $1', [
      job.id,
    ])
    expect(sample.spent).toBe(Number(spent[0]?.sum))
  })

  it('are set aside where they keep failing, and the run goes on', async () => {
    const listId = await listOf(world.people.slice(200, 230))
    standIns.toggle('quillwort', 'nonsense')
    standIns.toggle('brindle', 'doubled')
    const job = await fill(listId, ['quillwort', 'brindle'], 900_000_000)
    const done = await untilEnded(server.api, listId, job.id)
    standIns.toggle('quillwort', 'nonsense')
    standIns.toggle('brindle', 'doubled')
    expect(done).toMatchObject({ state: 'done', done: 30 })
    const [run] = await server.api.call('readFills', { params: { listId } })
    const [quillwort, brindle] = run?.providers ?? []
    expect(quillwort).toMatchObject({ provider: 'quillwort', accepted: 0, cost: 0, isSetAside: true })
    // Those under way at the same time are asked still, the others not.
    expect(quillwort?.failed).toBeGreaterThanOrEqual(5)
    expect(brindle).toMatchObject({ asked: 30, isSetAside: false })
    const twice = `select 1 from charges where provider = 'brindle' group by contact_id, list_id having count(*) > 1`
    expect(await server.sql(twice)).toEqual([])
  })

  it('are tried too where they answer later', async () => {
    const tried = (provider: string) =>
      server.api.call('tryConnector', {
        params: { provider },
        body: { values: { name: 'Nobody Known', company: 'Nowhere', domain: 'nowhere.example' } },
      })
    for (const provider of ['brindle', 'corvane'])
      expect(await tried(provider)).toMatchObject({ status: 202, isLater: true, problem: null, charged: 0 })
  })

  it('tell of addresses, the verifier late on some hosts', async () => {
    const client = await openConnection(server.services, 'marram')
    const emails = world.people.slice(0, 40).map(({ workEmail }) => workEmail)
    const asked = await client.askMany({ emails }, 'forty at once')
    let answer = asked
    while (answer.status === 'later' && client.connector.many && answer.receipt)
      answer = await client.look(client.connector.many, answer.receipt)
    const told = answer.status === 'answered' ? answer.items : []
    expect(told.map(({ email }) => email)).toEqual(emails)
    for (const { email, deliverability } of told)
      if (deliverability !== 'unknown') expect(deliverability).toBe(deliverabilityOf(world, String(email)))
  })
})

describe('a service that no code knows', () => {
  const DOCUMENT = ConnectorDocument.parse({
    format: 1,
    id: 'lantern',
    name: 'Lantern',
    gives: ['mobile'],
    accepts: ['email'],
    address: 'http://127.0.0.1:1',
    key: { in: 'query', name: 'token', value: '{{ key }}' },
    one: {
      call: { method: 'GET', path: '/who?mail={{ email }}' },
      answers: { how: 'at-once' },
      items: '$.people[*]',
    },
    fields: { number: '$.tel', name: '$.called' },
    charge: { per: 'candidate', euros: 0.5 },
    mostCandidates: 2,
    statuses: { notFound: [404], tryLater: [429], ourFault: [400] },
  })
  const params = { provider: 'lantern' }
  let service: OddServices

  beforeAll(async () => {
    service = await startOddServices(server, ({ path }, response) => {
      response.setHeader('content-type', 'application/json')
      if (!path.includes('maren')) return void response.writeHead(404).end('{}')
      response.end(JSON.stringify({ people: [{ tel: '+447911204481', called: 'Maren Oldershaw' }] }))
    })
    await server.api.call('keepConnector', { params, body: { ...DOCUMENT, address: service.url } })
    await server.api.call('changeConnection', { params, body: { baseUrl: service.url, key: 'token of lantern' } })
  })
  afterAll(async () => {
    await service.stop()
    for (const [provider, key] of Object.entries(KEYS))
      await server.api.call('changeConnection', { params: { provider }, body: { baseUrl: standIns.url, key } })
  })

  it('is tried on one contact: the request without its key, the raw answer, what was made of it', async () => {
    const tried = await server.api.call('tryConnector', {
      params,
      body: { values: { email: 'maren@causeway.example' } },
    })
    expect(tried).toMatchObject({
      request: { method: 'GET', url: `${service.url}/who?mail=maren%40causeway.example`, body: null },
      status: 200,
      items: [{ number: '+447911204481', name: 'Maren Oldershaw' }],
      problem: null,
      charged: 500_000,
    })
    expect(JSON.stringify(tried)).not.toContain('token of lantern')
    expect(service.met.at(-1)?.path).toContain('token=token+of+lantern')
    expect(await booked('lantern')).toBe(500_000)
  })

  it('is not asked, even to be tried, where that could pass its limit', async () => {
    const limitTo = (limit: number | null) => server.api.call('changeProviderLimit', { params, body: { limit } })
    await limitTo(500_001)
    const asked = service.met.length
    const body = { values: { email: 'maren@causeway.example' } }
    await expect(server.api.call('tryConnector', { params, body })).rejects.toMatchObject({ code: 'month-is-spent' })
    expect(service.met).toHaveLength(asked)
    await limitTo(null)
  })

  it('fills, and is charged as it says', async () => {
    const listId = await newList(server.api)
    await bringText(
      server.api,
      listId,
      'name,mail,country\nMaren Oldershaw,maren@causeway.example,GB\nTom Kestle,tom@causeway.example,GB\n',
    )
    const body = { order: ['lantern'], checksLines: false, budget: 90_000_000 }
    const job = await server.api.call('startFill', { params: { listId }, body })
    expect(await untilEnded(server.api, listId, job.id)).toMatchObject({
      state: 'done',
      result: { found: 1, spent: 500_000 },
    })
    expect(await server.api.call('readConnections')).toContainEqual(
      expect.objectContaining({ provider: 'lantern', name: 'Lantern', spentThisMonth: 1_000_000, failures: 0 }),
    )
  })

  it('is not believed where it names somebody else', async () => {
    const listId = await newList(server.api)
    await bringText(server.api, listId, 'name,mail,country\nTom Kestle,maren@causeway.example,GB\n')
    const body = { order: ['lantern'], checksLines: false, budget: 90_000_000 }
    const job = await server.api.call('startFill', { params: { listId }, body })
    await untilEnded(server.api, listId, job.id)
    const outcomes = 'select outcome from candidates d join attempts a on a.id = d.attempt_id where a.list_id = $1'
    expect(await server.sql(outcomes, [listId])).toEqual([{ outcome: 'somebody-else' }])
  })

  it('is refused where it leads into the house, is of another id or of a newer version', async () => {
    const keep = (changes: object, id = 'lantern') =>
      server.api
        .call('keepConnector', { params: { provider: id }, body: { ...DOCUMENT, ...changes } })
        .catch((error: Error) => error.message)
    expect(await keep({}, 'candle')).toMatch(/of the id "lantern"/)
    expect(await keep({ format: 2 })).toMatch(/newer version/)
    const strict = await startTestServer({ ALLOW_PRIVATE_ADDRESSES: '0', ALLOW_PLAIN_HTTP: '0' })
    const address = 'https://10.0.0.7'
    await expect(strict.api.call('keepConnector', { params, body: { ...DOCUMENT, address } })).rejects.toMatchObject({
      code: 'address-refused',
    })
    await strict.stop()
  })

  it('is asked where its document says, until a key is given for an address', async () => {
    const candle = { params: { provider: 'candle' } }
    const keepAt = async (host: string) => {
      const body = { ...DOCUMENT, id: 'candle', address: `https://${host}.example` }
      return (await server.api.call('keepConnector', { ...candle, body })).baseUrl
    }
    expect(await keepAt('one')).toBe('https://one.example')
    expect(await keepAt('two')).toBe('https://two.example')
    await server.api.call('changeConnection', { ...candle, body: { baseUrl: 'https://two.example', key: 'a key' } })
    expect(await keepAt('three')).toBe('https://two.example')
    await server.api.call('removeConnection', candle)
  })

  it('can be forgotten with its key', async () => {
    await server.api.call('removeConnection', { params })
    expect((await server.api.call('readConnections')).map(({ provider }) => provider)).not.toContain('lantern')
    await expect(server.api.call('readConnector', { params })).rejects.toMatchObject({ status: 404 })
  })
})
