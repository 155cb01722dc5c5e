import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import type { FillOptions } from '@upper-field/contract'
import type { StandIns } from '@upper-field/standins'
import { createWorld, deliverabilityOf } from '@upper-field/standins/world'
import { untilEnded } from '../../../../scripts/bringIn'
import { groupBy } from '../../src/db/groupBy'
import { reopenForgotten } from '../../src/fill/moves'
import { bringText, connectStandIns, newList, startTestServer, type TestServer } from './harness'
import { until } from './until'

const WORLD = { seed: 'plans', people: 220 }
const world = createWorld(WORLD.seed, WORLD)
let server: TestServer
let standIns: StandIns

beforeAll(async () => {
  server = await startTestServer()
  standIns = await connectStandIns(server, WORLD)
})
afterAll(async () => {
  await server.stop()
  await standIns.stop()
})

const ALL = 900_000_000

/** A list of people of the world of whom we know name, company, its site, and a profile. */
async function listOf(people: typeof world.people): Promise<string> {
  const listId = await newList(server.api)
  const rows = people.map(
    ({ given, family, company, profile }) =>
      `${given} ${family},${company.name},${company.domain},${company.place.country},https://${profile}`,
  )
  await bringText(server.api, listId, `name,company,web,country,profile\n${rows.join('\n')}\n`)
  return listId
}

interface Planned {
  readonly order: readonly string[]
  readonly options?: Partial<FillOptions>
  readonly budget?: number
}

async function filled(listId: string, { order, options = {}, budget = ALL }: Planned) {
  const body = { order: [...order], checksLines: true, budget, options }
  const job = await server.api.call('startFill', { params: { listId }, body })
  const ended = await untilEnded(server.api, listId, job.id)
  expect(ended.state).toBe('done')
  return ended
}

const attemptsOf = (listId: string) =>
  server.sql<{ provider: string; state: string; found: string[]; row: number; country: string; contact_id: string }>(
    `select a.provider, a.state, a.found, c.row, c.country, a.contact_id from attempts a join contacts c on c.id = a.contact_id
     where a.list_id = $1 order by a.asked_at, a.id`,
    [listId],
  )

describe('several things wanted at once', () => {
  it('are looked for at whoever may give them, checked, and paid to the cent', async () => {
    const people = world.people.slice(0, 60)
    const listId = await listOf(people)
    const order = ['corvane', 'ferrier']
    const options = { wants: ['mobile', 'work-email'] as const }
    const estimate = await server.api.call('estimateFill', {
      params: { listId },
      query: { order: order.join(), options: JSON.stringify(options) },
    })
    expect(estimate).toMatchObject({ wanting: 60, lacking: { mobile: 60, 'work-email': 60 } })
    const job = await filled(listId, { order, options: { wants: [...options.wants] } })

    const found = await server.sql<{ row: number; e164: string | null; address: string | null; found_as: string }>(
      `select c.row, f.e164, f.address, f.found_as from fills f join contacts c on c.id = f.contact_id where f.list_id = $1`,
      [listId],
    )
    const addresses = found.filter((one) => one.found_as === 'work-email')
    expect(addresses.length).toBeGreaterThan(10)
    for (const { address } of addresses)
      expect([address, deliverabilityOf(world, address ?? '')]).toEqual([address, 'deliverable'])
    for (const { address } of found.filter((one) => one.found_as === 'risky'))
      expect(deliverabilityOf(world, address ?? '')).not.toBe('undeliverable')
    for (const { e164 } of found.filter((one) => one.found_as === 'mobile'))
      expect([e164, world.numberOf(e164 ?? '')?.status]).not.toEqual([e164, 'out-of-service'])

    // Whoever has all of it was not asked about any further; who gives mobiles alone, not for an address.
    const attempts = await attemptsOf(listId)
    const byContact = groupBy(attempts, ({ contact_id }) => contact_id)
    for (const made of byContact.values()) {
      const enough = made.findIndex((_, at) => {
        const so = made.slice(0, at + 1).flatMap((one) => one.found)
        return so.includes('mobile') && so.includes('work-email')
      })
      expect(enough === -1 || enough === made.length - 1).toBe(true)
    }
    const [outcomes] = await server.sql<{ found: string; partly: string }>(
      `select count(*) filter (where state = 'found') as found, count(*) filter (where state = 'partly') as partly
       from fill_searches where job_id = $1`,
      [job.id],
    )
    expect(Number(outcomes?.found)).toBeGreaterThan(0)
    expect(Number(outcomes?.partly)).toBeGreaterThan(0)
    const [run] = await server.api.call('readFills', { params: { listId } })
    expect(run).toMatchObject({ found: Number(outcomes?.found), partly: Number(outcomes?.partly) })

    for (const [service, { total }] of Object.entries(standIns.charged())) {
      const [booked] = await server.sql<{ total: string }>(
        'select coalesce(sum(amount), 0) as total from charges where provider = $1',
        [service],
      )
      expect([service, Number(booked?.total)]).toEqual([service, total])
    }
    // A contact shows what was found, and where it is from.
    const one = addresses[0]
    const contactId = Number(attempts.find(({ row }) => row === one?.row)?.contact_id)
    const story = await server.api.call('readStory', { params: { contactId } })
    expect(story.emails[0]).toMatchObject({ address: one?.address, state: 'deliverable' })
    expect(story.story.map(({ what }) => what)).toContainEqual(
      expect.objectContaining({ kind: 'filled', value: one?.address, foundAs: 'work-email' }),
    )
  })
})

type Person = (typeof world.people)[number]

/** A list of people with one column about their companies, and their profiles. */
async function listWith(people: readonly Person[], column: string, textOf: (one: Person) => string): Promise<string> {
  const listId = await newList(server.api)
  const rows = people.map((one) => `${one.given} ${one.family},${textOf(one)}`)
  await bringText(server.api, listId, `name,${column},profile\n${rows.join('\n')}\n`)
  return listId
}

describe('what is told of a company besides', () => {
  it('is kept with the contact, and its domain is what the next service is told', async () => {
    const people = world.people.slice(60, 90)
    const listId = await listWith(people, 'company', ({ company, profile }) => `${company.name},${profile}`)
    const estimate = (order: string) =>
      server.api.call('estimateFill', { params: { listId }, query: { order, options: '{"wants":["work-email"]}' } })
    expect((await estimate('ferrier')).known).toMatchObject({ 'name-and-domain': 0, 'name-and-company': 30 })
    await filled(listId, { order: ['corvane'] })
    const told = await server.sql<{ row: number; contact_id: string; domain: string; headcount: number }>(
      'select c.row, f.contact_id, f.domain, f.headcount from company_facts f join contacts c on c.id = f.contact_id where f.list_id = $1',
      [listId],
    )
    expect(told.length).toBeGreaterThan(10)
    for (const { row, domain } of told) expect(domain).toBe(people[row - 2]?.company.domain)
    const after = await estimate('ferrier')
    expect(after.known['name-and-domain']).toBe(told.length)
    expect(after.providers).toMatchObject([{ askable: told.length, lacksInput: 30 - told.length }])
    const ended = await filled(listId, { order: ['ferrier'], options: { wants: ['work-email'] } })
    expect(Number(ended.result.found)).toBeGreaterThan(0)

    const { story } = await server.api.call('readStory', { params: { contactId: Number(told[0]?.contact_id) } })
    const fact = story.find(({ what }) => what.kind === 'company-told')?.what
    expect(fact).toMatchObject({ provider: 'corvane', headcount: told[0]?.headcount })
  })

  it.each<[string, string, string, string, (one: Person) => string]>([
    ['facts of companies', 'corvane', 'ferrier', 'company', ({ company, profile }) => `${company.name},${profile}`],
    ['addresses', 'ferrier', 'quillwort', 'site', ({ company, profile }) => `${company.domain},${profile}`],
  ])(
    'is not passed on while everybody is asked, so that orders can be replayed: %s',
    async (_, teller, told, ...column) => {
      const listId = await listWith(world.people.slice(60, 90), ...column)
      const order = [teller, told]
      const options = { wants: ['mobile' as const, 'work-email' as const] }
      const body = { order, checksLines: true, budget: ALL, options, asking: 'everybody' as const }
      const sample = await server.api.call('startFill', { params: { listId }, body })
      expect(await untilEnded(server.api, listId, sample.id)).toMatchObject({ state: 'done' })
      const asked = async () => [...new Set((await attemptsOf(listId)).map(({ provider }) => provider))].toSorted()
      expect(await asked()).toEqual([teller])
      // A fill after it does use what was told.
      await filled(listId, { order: [told], options })
      expect(await asked()).toEqual(order.toSorted())
    },
  )
})

describe('the conditions of a plan', () => {
  it('ask nobody again who answered lately about any row of a person, and do not count that in what a fill costs', async () => {
    const listId = await newList(server.api)
    const rows = ['Far House,far', 'Near House,near'].map((of) => `Ada Oldershaw,${of}-house.example,+447911200001,GB`)
    await bringText(server.api, listId, `name,company,web,phone,country\n${rows.join('\n')}\n`)
    const estimate = () =>
      server.api.call('estimateFill', {
        params: { listId },
        query: { order: 'ferrier', options: '{"wants":["work-email"]}', notAgainDays: 30 },
      })
    expect(await estimate()).toMatchObject({ wanting: 1, providers: [{ askable: 1, askedLately: 0 }] })
    await server.sql(
      `insert into attempts (job_id, list_id, contact_id, provider, state, reserved, answered_at)
       select gen_random_uuid(), list_id, id, 'ferrier', 'nothing', 0, now()
       from contacts where list_id = $1 and joined_into is not null`,
      [listId],
    )
    expect(await estimate()).toMatchObject({ wanting: 1, most: 0, providers: [{ askable: 0, askedLately: 1 }] })
    await filled(listId, { order: ['ferrier'], options: { wants: ['work-email'] } })
    expect(await attemptsOf(listId)).toHaveLength(1)
  })

  it('ask in another order where a country has one', async () => {
    const listId = await listOf(world.people.slice(60, 110))
    const countries = [...new Set(world.people.slice(60, 110).map(({ company }) => company.place.country))]
    const [here = '', there = ''] = countries
    const branches = [{ countries: [here, there], order: ['corvane', 'tansy'] }]
    await filled(listId, { order: ['tansy', 'corvane'], options: { branches } })
    const first = new Map<string, string>()
    for (const { contact_id, provider } of await attemptsOf(listId))
      if (!first.has(contact_id)) first.set(contact_id, provider)
    const attempts = await attemptsOf(listId)
    for (const { contact_id, country } of attempts)
      expect([country, first.get(contact_id)]).toEqual([country, [here, there].includes(country) ? 'corvane' : 'tansy'])
  })

  it('keep within a cap, an input, and what one contact may cost', async () => {
    const listId = await listOf(world.people.slice(110, 150))
    const before = Object.values(standIns.charged()).reduce((sum, { total }) => sum + total, 0)
    await filled(listId, {
      order: ['saltmarsh', 'corvane', 'quillwort'],
      options: {
        conditions: {
          saltmarsh: { minScore: 0, mostAsked: 7, inputs: [], countries: [] },
          corvane: { minScore: 0, mostAsked: null, inputs: ['email'], countries: [] },
        },
        perContact: 150_000,
      },
    })
    const attempts = await attemptsOf(listId)
    expect(attempts.filter(({ provider }) => provider === 'saltmarsh')).toHaveLength(7)
    expect(attempts.filter(({ provider }) => provider === 'corvane')).toEqual([])
    const spent = await server.sql<{ spent: string }>(
      'select sum(amount) as spent from charges where list_id = $1 group by contact_id',
      [listId],
    )
    for (const one of spent) expect(Number(one.spent)).toBeLessThanOrEqual(150_000)
    const after = Object.values(standIns.charged()).reduce((sum, { total }) => sum + total, 0)
    const [booked] = await server.sql<{ total: string }>(
      'select sum(amount) as total from charges where list_id = $1',
      [listId],
    )
    expect(Number(booked?.total)).toBe(after - before)
  })

  it('rest when the money of a day is spent, and can be stopped then', async () => {
    const listId = await listOf(world.people.slice(150, 190))
    const perDay = 600_000
    const body = { order: ['tansy'], checksLines: true, budget: ALL, options: { perDay } }
    const job = await server.api.call('startFill', { params: { listId }, body })
    const now = async () => (await server.api.call('readJobs', { params: { listId } })).find(({ id }) => id === job.id)
    await until(async () => (await now())?.phase === 'waiting-for-tomorrow')
    const [run] = await server.sql<{ spent: string; reserved: string }>(
      'select spent, reserved from fill_runs where job_id = $1',
      [job.id],
    )
    expect(Number(run?.spent)).toBeLessThanOrEqual(perDay)
    expect(Number(run?.spent)).toBeGreaterThan(0)
    await server.api.call('stopJob', { params: { jobId: job.id } })
    expect(await untilEnded(server.api, listId, job.id)).toMatchObject({ state: 'stopped' })
  })
})

describe('countries that need a lawful basis', () => {
  it('are left out where none is recorded, and the run says how many', async () => {
    const people = world.people.slice(190, 220)
    const listId = await listOf(people)
    const country = people[0]?.company.place.country ?? ''
    const there = people.filter(({ company }) => company.place.country === country).length
    await server.api.call('changeLawfulRegions', { body: { countries: [country] } })
    const estimate = await server.api.call('estimateFill', { params: { listId }, query: { order: 'tansy' } })
    expect(estimate.leftOut['no-lawful-basis']).toBe(there)
    expect(estimate.wanting).toBe(people.length - there)
    await filled(listId, { order: ['tansy'] })
    expect((await attemptsOf(listId)).filter((one) => one.country === country)).toEqual([])
    const [run] = await server.api.call('readFills', { params: { listId } })
    expect(run?.leftOut['no-lawful-basis']).toBe(there)

    await server.sql(`update batches set lawful_basis = 'legitimate-interest' where list_id = $1`, [listId])
    const after = await server.api.call('estimateFill', { params: { listId }, query: { order: 'tansy' } })
    expect(after.leftOut['no-lawful-basis']).toBe(0)
    await server.api.call('changeLawfulRegions', { body: { countries: [] } })
  })
})

describe('a search that waits', () => {
  it('is opened again where nobody is to answer any more, and not before', async () => {
    const listId = await newList(server.api)
    const jobId = crypto.randomUUID()
    await server.sql(
      `insert into fill_searches (job_id, contact_id, state) values ($1, 1, 'waiting'), ($1, 2, 'waiting')`,
      [jobId],
    )
    await server.sql(
      `insert into attempts (job_id, list_id, contact_id, provider, state, reserved)
       values ($1, $2, 1, 'tansy', 'waiting', 0), ($1, $2, 2, 'tansy', 'nothing', 0)`,
      [jobId, listId],
    )
    await reopenForgotten(server.services.db, jobId)
    expect(
      await server.sql('select contact_id, state from fill_searches where job_id = $1 order by 1', [jobId]),
    ).toEqual([
      { contact_id: '1', state: 'waiting' },
      { contact_id: '2', state: 'open' },
    ])
  })
})
