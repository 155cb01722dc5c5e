import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import type { ApiClient } from '@upper-field/contract'
import { untilEnded } from '../../../../scripts/bringIn'
import { bringText, newList, startTestServer, type TestServer } from './harness'

let server: TestServer
let api: ApiClient
let listId: string

const HEAD = 'First name,Last name,Company,Town,Country,Phone,E-mail\n'
/** A familiar form on one mobile, one person without a key in common, a namesake elsewhere, two colleagues on one line, and strangers around them. */
const ROWS = [
  'Katherine,Holt,Causeway,York,GB,07911 204481,kate.holt@causeway.example',
  'Kate,Holt,Causeway Ltd,York,GB,07911 204481,kate.holt@kinpost.example',
  'Maren,Oldershaw,Heron Lodge,Oxford,GB,07911 204482,',
  'Maren,Oldershaw,Heron Lodge,Oxford,GB,,maren@heron.example',
  'Maren,Oldershaw,Alder Camping,Whitby,GB,07911 204483,maren@alder.example',
  'Priya,Kestle,Fernhill,Bamburgh,GB,01665 555018,priya@fernhill.example',
  'Tom,Garside,Fernhill,Bamburgh,GB,01665 555018,tom@fernhill.example',
  ...Array.from(
    { length: 40 },
    (_, i) =>
      `Given${String.fromCharCode(97 + (i % 26))},Stranger${i},House ${i},Town ${i % 9},GB,07911 3${String(10_000 + i)},`,
  ),
]
const thresholds = { join: 13, decide: -6 }

const run = async () =>
  untilEnded(api, listId, (await api.call('runPairing', { params: { listId }, body: { thresholds } })).id)
const waiting = async () => (await api.call('readPairs', { params: { listId } })).pairs
const pairOfRows = async (...rows: number[]) =>
  (await waiting()).find(
    ({ sides }) =>
      sides
        .map(({ row }) => row)
        .sort()
        .join() === rows.join(),
  )
const standing = async () => (await api.call('readContacts', { params: { listId } })).total
const whole = () =>
  server.sql(
    `select id, joined_into, joined, full_name, company, number, email, lane, is_shared from contacts where list_id = $1 order by id`,
    [listId],
  )

beforeAll(async () => {
  server = await startTestServer()
  api = server.api
  listId = await newList(api)
  await bringText(api, listId, `${HEAD}${ROWS.join('\n')}\n`, { defaultCountry: 'GB' })
})
afterAll(() => server.stop())

describe('pairing a list', () => {
  it('finds nobody in a list of nobody', async () => {
    const empty = await newList(api)
    const job = await api.call('runPairing', { params: { listId: empty }, body: { thresholds } })
    expect(await untilEnded(api, empty, job.id)).toMatchObject({ state: 'done', result: { joined: 0, toDecide: 0 } })
  })

  it('joins by itself what is sure', async () => {
    expect(await api.call('readPairing', { params: { listId } })).toMatchObject({ ranAt: null, toDecide: 0 })
    expect(await run()).toMatchObject({ state: 'done', result: { joined: 1 } })
    expect(await standing()).toBe(ROWS.length - 1)
    const joins = await server.sql('select key_kind from joins where list_id = $1', [listId])
    expect(joins).toEqual([{ key_kind: 'likeness' }])
  })

  it('leaves to a person what is not sure, with the evidence adding up to the score', async () => {
    const state = await api.call('readPairing', { params: { listId } })
    expect(state.ranAt).not.toBeNull()
    expect(state.toDecide).toBe((await waiting()).length)
    const pair = await pairOfRows(4, 5)
    expect(pair?.evidence.find(({ field }) => field === 'name')).toMatchObject({ level: 'same' })
    const bits = pair?.evidence.reduce((sum, one) => sum + one.bits, 0) ?? 0
    expect(bits - (pair?.against ?? 0)).toBeCloseTo(pair?.score ?? 0, 0)
    expect(await pairOfRows(7, 8)).toBeUndefined()
  })

  it('joins what a person joins, and is as it was when that is taken back', async () => {
    const before = await whole()
    const pair = await pairOfRows(4, 5)
    const decided = await api.call('decidePair', { params: { pairId: pair?.id ?? 0 }, body: { decision: 'join' } })
    expect(await standing()).toBe(ROWS.length - 2)
    const [survivor] = await server.sql<{ joined: number }>(
      'select joined from contacts where list_id = $1 and row = 4',
      [listId],
    )
    expect(survivor?.joined).toBe(1)
    expect(await api.call('readDecided', { params: { listId } })).toEqual([decided])
    await api.call('takeDecisionBack', { params: { decisionId: decided.id } })
    expect(await whole()).toEqual(before)
    expect(await pairOfRows(4, 5)).toBeDefined()
  })

  it('takes the values a person chose, tells of it, and gives them back with the join', async () => {
    const before = await whole()
    const pair = await pairOfRows(5, 6)
    const [first, second] = pair?.sides ?? []
    const decided = await api.call('decidePair', {
      params: { pairId: pair?.id ?? 0 },
      body: { decision: 'join', chosen: { company: second?.contactId ?? 0, place: second?.contactId ?? 0 } },
    })
    const { values, story, emails } = await api.call('readStory', { params: { contactId: first?.contactId ?? 0 } })
    expect(values).toMatchObject({ 'full-name': 'Maren Oldershaw', company: 'Alder Camping', city: 'Whitby' })
    expect(emails.map(({ address }) => address)).toEqual(['maren@heron.example', 'maren@alder.example'])
    expect(story.map(({ what }) => what)).toContainEqual(
      expect.objectContaining({ kind: 'value-chosen', part: 'company', row: 6 }),
    )
    await api.call('takeDecisionBack', { params: { decisionId: decided.id } })
    expect(await whole()).toEqual(before)
  })

  it('joins more than two as one decision, of those that wait with them', async () => {
    const before = await whole()
    const pair = await pairOfRows(4, 5)
    const [other] = pair?.others ?? []
    expect(other).toMatchObject({ fullName: 'Maren Oldershaw', row: 6 })
    const decided = await api.call('decidePair', {
      params: { pairId: pair?.id ?? 0 },
      body: { decision: 'join', also: [other?.contactId ?? 0], chosen: { company: other?.contactId ?? 0 } },
    })
    // The first and the third do not wait for a decision by themselves.
    expect(decided.pairs).toBe(2)
    const group = await server.sql<{ row: number; joined: number; company: string }>(
      'select row, joined, company from contacts where list_id = $1 and row between 4 and 6 and joined_into is null',
      [listId],
    )
    expect(group).toEqual([{ row: 4, joined: 2, company: 'Alder Camping' }])
    await api.call('takeDecisionBack', { params: { decisionId: decided.id } })
    expect(await whole()).toEqual(before)
  })

  it('puts contacts together anew by other rules, and by the first again', async () => {
    const nameOf = async () =>
      (
        await server.sql<{ full_name: string }>(
          'select full_name from contacts where list_id = $1 and joined > 0 and row = 2',
          [listId],
        )
      )[0]?.full_name
    const { survivorship } = await api.call('readPairing', { params: { listId } })
    const change = async (rules: Partial<typeof survivorship>) =>
      untilEnded(
        api,
        listId,
        (await api.call('changeSurvivorship', { params: { listId }, body: { ...survivorship, ...rules } })).id,
      )
    expect(await nameOf()).toBe('Katherine Holt')
    expect(await change({ name: 'latest' })).toMatchObject({ state: 'done', result: { contacts: 1 } })
    expect(await nameOf()).toBe('Kate Holt')
    expect((await api.call('readPairing', { params: { listId } })).survivorship.name).toBe('latest')
    await change({})
    expect(await nameOf()).toBe('Katherine Holt')
  })

  it('refuses a value of a contact that is not in the pair', async () => {
    const before = await whole()
    const pair = await pairOfRows(5, 6)
    const body = { decision: 'join' as const, chosen: { company: pair?.sides[0].contactId === 1 ? 2 : 1 } }
    await expect(api.call('decidePair', { params: { pairId: pair?.id ?? 0 }, body })).rejects.toMatchObject({
      status: 404,
    })
    expect(await whole()).toEqual(before)
  })

  it('tells the second of two people that the pair is decided', async () => {
    const pair = await pairOfRows(5, 6)
    const answers = await Promise.allSettled(
      (['apart', 'join'] as const).map((decision) =>
        api.call('decidePair', { params: { pairId: pair?.id ?? 0 }, body: { decision } }),
      ),
    )
    expect(answers.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected'])
    const refused = answers.find(({ status }) => status === 'rejected')
    expect(refused).toMatchObject({ reason: { code: 'decided-already' } })
    const [last, ...others] = await api.call('readDecided', { params: { listId }, query: { limit: 1 } })
    expect(others).toEqual([])
    if (last) await api.call('takeDecisionBack', { params: { decisionId: last.id } })
  })

  it('keeps decisions in a new run and with a new batch', async () => {
    const apart = await pairOfRows(5, 6)
    await api.call('decidePair', { params: { pairId: apart?.id ?? 0 }, body: { decision: 'apart' } })
    const joined = await pairOfRows(4, 5)
    await api.call('decidePair', { params: { pairId: joined?.id ?? 0 }, body: { decision: 'join' } })
    await bringText(api, listId, `${HEAD}Uwe,Newcomer,Far House,Kiel,DE,0171 5550914,\n`, { defaultCountry: 'DE' })
    expect((await run()).state).toBe('done')
    expect(await pairOfRows(5, 6)).toBeUndefined()
    expect(await pairOfRows(4, 5)).toBeUndefined()
    const [member] = await server.sql<{ joined_into: string | null }>(
      'select joined_into from contacts where list_id = $1 and row = 5',
      [listId],
    )
    expect(member?.joined_into).not.toBeNull()
  })

  it('keeps a person’s join when the contact is tidied by hand', async () => {
    const [survivor] = await server.sql<{ id: string }>('select id from contacts where list_id = $1 and row = 4', [
      listId,
    ])
    const edits = [{ contactId: Number(survivor?.id), column: 'title', value: 'Owner' }]
    await api.call('makeEdits', { params: { listId }, body: { edits } })
    const [member] = await server.sql<{ joined_into: string | null }>(
      'select joined_into from contacts where list_id = $1 and row = 5',
      [listId],
    )
    expect(member?.joined_into).toBe(survivor?.id)
  })

  it('decides all that look alike at once', async () => {
    const before = await waiting()
    const most = before.toSorted((a, b) => b.alike - a.alike)[0]
    const { pairs } = await api.call('decidePair', {
      params: { pairId: most?.id ?? 0 },
      body: { decision: 'apart', alike: true },
    })
    expect(pairs).toBe(most?.alike)
    expect((await api.call('readPairing', { params: { listId } })).toDecide).toBe(before.length - pairs)
  })

  it('refuses thresholds that make no sense', async () => {
    const run = api.call('runPairing', { params: { listId }, body: { thresholds: { join: 1, decide: 5 } } })
    await expect(run).rejects.toMatchObject({ status: 422 })
  })
})

describe('people on one number', () => {
  it('are not joined where their birth dates differ, and are once a person corrects one', async () => {
    const id = await newList(api)
    const file = 'Name,Phone,Birth date\nHans Feldkamp,0431 5557701,1950-02-01\nHans Feldkamp,0431 5557701,1981-08-07\n'
    await bringText(api, id, file, { defaultCountry: 'DE' })
    const joined = () =>
      server.sql<{ id: string; joined_into: string | null }>(
        'select id, joined_into from contacts where list_id = $1 order by row',
        [id],
      )
    const [father, son] = await joined()
    expect(son?.joined_into).toBeNull()
    const edits = [{ contactId: Number(son?.id), column: 'birth-date', value: '1950-02-01' }]
    await api.call('makeEdits', { params: { listId: id }, body: { edits } })
    expect((await joined())[1]?.joined_into).toBe(father?.id)
  })
})

describe('people who are taken apart', () => {
  it('take with them whoever is joined by what they alone hold', async () => {
    const together = await newList(api)
    await bringText(
      api,
      together,
      'name,phone,mobile\nAnn Hill,+447911204481,\nAnn Hill,+447911204481,+447911204483\nAnn Hill,+447911204483,\n',
    )
    const groups = () =>
      server.sql<{ id: number; into: number | null }>(
        `select row - 1 as id, (select row - 1 from contacts s where s.id = c.joined_into) as into
         from contacts c where list_id = $1 order by id`,
        [together],
      )
    expect((await groups()).map(({ into }) => into)).toEqual([null, 1, 1])
    const [join] = await server.sql<{ id: string }>('select id from joins where list_id = $1 and key = $2', [
      together,
      '+447911204481',
    ])
    await api.call('takeApart', { params: { joinId: Number(join?.id) } })
    expect((await groups()).map(({ into }) => into)).toEqual([null, null, 2])
    const { contacts } = await api.call('readContacts', { params: { listId: together } })
    expect(contacts.map(({ joined, isShared }) => [joined, isShared])).toEqual([
      [0, true],
      [1, true],
    ])
  })
})
