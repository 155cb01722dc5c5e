import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import type { StandIns } from '@upper-field/standins'
import { createWorld } from '@upper-field/standins/world'
import { untilEnded } from '../../../../scripts/bringIn'
import { bringText, connectStandIns, newList, startTestServer, type TestServer } from './harness'

const WORLD = { seed: 'spend', people: 60, consumers: 20 }
const world = createWorld(WORLD.seed, WORLD)
let server: TestServer
let standIns: StandIns
let listId = ''
beforeAll(async () => {
  server = await startTestServer()
  standIns = await connectStandIns(server, WORLD)
  listId = await newList(server.api)
  const rows = world.people.map((person) =>
    [
      `${person.given} ${person.family}`,
      person.company.name,
      person.workEmail,
      person.company.place.country,
      person.desk.e164,
    ].join(','),
  )
  await bringText(server.api, listId, `name,company,mail,country,phone\n${rows.join('\n')}\n`)
})
afterAll(async () => {
  await server.stop()
  await standIns.stop()
})

const limitTo = (limit: number | null) => server.api.call('changeSpendLimit', { body: { limit } })
const month = () => server.api.call('readSpendMonth')
const fill = (budget: number, filter = '') =>
  server.api.call('startFill', {
    params: { listId },
    body: { order: ['tansy'], checksLines: true, budget, filter },
  })
const check = async () => {
  const { most } = await server.api.call('estimateCheck', { params: { listId } })
  return server.api.call('startCheck', { params: { listId }, body: { filter: '', agreed: most } })
}

describe('the limit of a month', () => {
  it('is none until somebody sets it', async () => {
    expect(await month()).toEqual({ limit: null, spent: 0, promised: 0, providers: [] })
    await expect(limitTo(-5)).rejects.toMatchObject({ status: 422 })
    expect(await limitTo(250_000)).toMatchObject({ limit: 250_000, spent: 0, promised: 0 })
  })

  it('stops what could pass it, and says what is left', async () => {
    await expect(check()).rejects.toMatchObject({ code: 'month-is-spent' })
    await expect(fill(20_000_000)).rejects.toThrow(
      /could cost up to €\d.*of the €0\.25 of this month €0\.00 are spent/i,
    )
    expect(await server.sql('select 1 from charges')).toEqual([])
  })

  it('counts what work under way may still spend, and what it has spent once it is done', async () => {
    await limitTo(2_000_000)
    const running = await fill(1_900_000)
    await expect(check()).rejects.toMatchObject({ code: 'month-is-spent' })
    await untilEnded(server.api, listId, running.id)
    const { spent, promised } = await month()
    expect(promised).toBe(0)
    expect(spent).toBeGreaterThan(0)
    expect(spent).toBeLessThanOrEqual(1_900_000)
    const told = await server.api.call('readSpend')
    expect(told.reduce((sum, { amount }) => sum + amount, 0)).toBe(spent)
    expect(new Set(told.map(({ day }) => day))).toEqual(new Set([new Date().toISOString().slice(0, 10)]))
  })

  it('lets one of two pass that together would pass it', async () => {
    const { spent } = await month()
    const { most } = await server.api.call('estimateCheck', { params: { listId } })
    await limitTo(spent + most)
    const another = { order: ['quillwort'], checksLines: true, budget: most }
    const filling = server.api.call('startFill', { params: { listId }, body: another })
    const both = await Promise.allSettled([check(), filling])
    expect(both.filter(({ status }) => status === 'fulfilled')).toHaveLength(1)
  })
})

describe('the limit of one service', () => {
  const limitOf = (provider: string, limit: number | null) =>
    server.api.call('changeProviderLimit', { params: { provider }, body: { limit } })
  const ofTansy = async () => (await month()).providers.find(({ provider }) => provider === 'tansy')

  it('is never passed by a run, which goes on with the others', async () => {
    await limitTo(null)
    const before = (await ofTansy())?.spent ?? 0
    await limitOf('tansy', before + 200_000)
    const another = await newList(server.api)
    const rows = world.people.slice(0, 40).map(({ given, family, company }) => `${given} ${family},${company.name}`)
    await bringText(server.api, another, `name,company\n${rows.join('\n')}\n`)
    const job = await server.api.call('startFill', {
      params: { listId: another },
      body: { order: ['tansy', 'quillwort'], checksLines: false, budget: 50_000_000 },
    })
    await untilEnded(server.api, another, job.id)
    const after = await ofTansy()
    expect(after?.spent).toBeGreaterThan(before)
    expect(after?.spent).toBeLessThanOrEqual(before + 200_000)
    expect(after?.waiting).toBe(0)
    const asked = await server.sql<{ n: string }>(
      `select count(*) as n from attempts where job_id = $1 and provider = 'quillwort'`,
      [job.id],
    )
    expect(Number(asked[0]?.n)).toBeGreaterThan(30)
    await limitOf('tansy', null)
  })

  const ofRegister = async () => (await month()).providers.find(({ provider }) => provider === 'pellow')
  const priceOfCheck = async () =>
    (await server.api.call('readConnections')).find(({ provider }) => provider === 'pellow')?.price ?? 0

  it('is not passed by two checks that each would keep it', async () => {
    const price = await priceOfCheck()
    const spent = (await ofRegister())?.spent ?? 0
    await limitOf('pellow', spent + 15 * price)
    const starts = await Promise.allSettled(
      [0, 10].map(async (from) => {
        const another = await newList(server.api)
        // Lines that the register knows and charges for: whichever check is first, it leaves too little for the other.
        const rows = world.consumers.slice(from, from + 10).map(({ given, mobile }) => `${given},${mobile.e164}`)
        await bringText(server.api, another, `name,phone\n${rows.join('\n')}\n`)
        const job = await server.api.call('startCheck', {
          params: { listId: another },
          body: { filter: '', agreed: 10 * price },
        })
        return untilEnded(server.api, another, job.id)
      }),
    )
    expect(starts.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected'])
    const after = await ofRegister()
    expect(after).toMatchObject({ waiting: 0 })
    expect(after?.spent).toBeGreaterThan(spent + 5 * price)
    await limitOf('pellow', null)
  })

  it('is kept by a fill for whoever checks what is found, too', async () => {
    const price = await priceOfCheck()
    const before = (await ofRegister())?.spent ?? 0
    const most = before + 8 * price
    await limitOf('pellow', most)
    const another = await newList(server.api)
    const rows = world.people.slice(0, 40).map(({ given, family, company }) => `${given} ${family},${company.name}`)
    await bringText(server.api, another, `name,company\n${rows.join('\n')}\n`)
    const job = await server.api.call('startFill', {
      params: { listId: another },
      body: { order: ['quillwort'], checksLines: true, budget: 50_000_000, notAgainDays: 0 },
    })
    expect(await untilEnded(server.api, another, job.id)).toMatchObject({ state: 'done' })
    const after = await ofRegister()
    expect(after?.spent).toBeLessThanOrEqual(most)
    expect(after?.waiting).toBe(0)
    await limitOf('pellow', null)
  })

  it('keeps a check from starting that could pass it', async () => {
    await limitOf('pellow', 1)
    const another = await newList(server.api)
    await bringText(server.api, another, 'name,phone\nMaren Oldershaw,+447911204481\n')
    const starting = server.api.call('startCheck', { params: { listId: another }, body: { filter: '', agreed: 1e9 } })
    await expect(starting).rejects.toThrow(/this service may charge €0\.00 more this month/)
    await limitOf('pellow', null)
  })
})

describe('a fill of some', () => {
  it('asks only whom the filter means, and nobody who may not be written to', async () => {
    await limitTo(null)
    const another = await newList(server.api)
    const rows = ['Maren Oldershaw,Causeway,GB', 'Ilse Krug,Heron,DE', 'Tom Kestle,Alder,GB']
    await bringText(server.api, another, `name,company,country\n${rows.join('\n')}\n`)
    const estimate = (filter: string) =>
      server.api.call('estimateFill', { params: { listId: another }, query: { filter, order: 'tansy' } })
    expect((await estimate('')).wanting).toBe(3)
    expect((await estimate('country:GB')).wanting).toBe(2)
    const body = { order: ['tansy'], checksLines: true, budget: 9_000_000, filter: 'country:GB tom' }
    const job = await server.api.call('startFill', { params: { listId: another }, body })
    await untilEnded(server.api, another, job.id)
    const asked = await server.sql(
      'select c.full_name from fill_searches s join contacts c on c.id = s.contact_id where s.job_id = $1',
      [job.id],
    )
    expect(asked).toEqual([{ full_name: 'Tom Kestle' }])
    await server.sql(
      `update contacts set lane_reason = 'suppressed', suppressed_for = 'all' where list_id = $1 and country = 'DE'`,
      [another],
    )
    expect((await estimate('')).wanting).toBe(2)
    const nobody = { ...body, filter: 'country:DE' }
    await expect(server.api.call('startFill', { params: { listId: another }, body: nobody })).rejects.toMatchObject({
      code: 'nobody-wanting',
    })
  })
})

describe('the statements of services', () => {
  const statementOf = async (provider: string) =>
    (await server.api.call('readStatements', {})).find((one) => one.provider === provider)

  it('stand beside ours, and agree', async () => {
    const told = standIns.charged()
    for (const { provider, problem, days } of await server.api.call('readStatements', {})) {
      expect([provider, problem]).toEqual([provider, null])
      const sum = (whose: 'ours' | 'theirs') => days.reduce((all, day) => all + day[whose].amount, 0)
      expect([provider, sum('theirs')]).toEqual([provider, told[provider as keyof typeof told].total])
      expect([provider, sum('ours')]).toEqual([provider, sum('theirs')])
    }
  })

  it('show what we have not booked, and what they have not', async () => {
    await server.sql(
      `update charges set amount = amount + 1000 where id = (select id from charges where provider = 'tansy' limit 1)`,
    )
    const [day] = (await statementOf('tansy'))?.days ?? []
    expect((day?.ours.amount ?? 0) - (day?.theirs.amount ?? 0)).toBe(1000)
    await server.sql(
      `update charges set amount = amount - 1000 where id = (select id from charges where provider = 'tansy' limit 1)`,
    )
  })

  it('say whose could not be had, and why', async () => {
    const document = await server.api.call('readConnector', { params: { provider: 'tansy' } })
    const statement = document.statement && { ...document.statement, items: '$.nothing' }
    await server.api.call('keepConnector', { params: { provider: 'tansy' }, body: { ...document, statement } })
    expect(await statementOf('tansy')).toMatchObject({ problem: 'odd-answer', days: [] })
    await server.api.call('keepConnector', { params: { provider: 'tansy' }, body: { ...document, statement: null } })
    expect(await statementOf('tansy')).toBeUndefined()
    await server.api.call('keepConnector', { params: { provider: 'tansy' }, body: document })
  })
})

describe('the ledger', () => {
  it('tells of every charge, of old ones by their month', async () => {
    const before = await server.api.call('readSpend')
    const sum = (lines: readonly { readonly amount: number }[]) => lines.reduce((all, { amount }) => all + amount, 0)
    await server.sql(`
      insert into charges (provider, subject, question, amount, reason, at)
      select 'tansy', 'x', 'old ' || i, 1000, 'a fill', '2024-03-01'::timestamptz + make_interval(days => i % 60)
      from generate_series(0, 6999) i`)
    const after = await server.api.call('readSpend')
    expect(sum(after) - sum(before)).toBe(7_000_000)
    expect(after.slice(before.length).map(({ day, charges }) => [day, charges])).toEqual([
      ['2024-04', 3373],
      ['2024-03', 3627],
    ])
  })
})
