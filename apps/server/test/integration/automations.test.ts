import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import type { BodyOf } from '@upper-field/contract'
import {
  addDestinations,
  bringText,
  connectNetworks,
  connectStandIns,
  newList,
  startTestServer,
  type TestServer,
} from './harness'
import { holdList } from './holdList'
import { until } from './until'

let server: TestServer
let standIns: Awaited<ReturnType<typeof connectStandIns>>
beforeAll(async () => {
  server = await startTestServer()
  standIns = await connectStandIns(server)
})
afterAll(async () => {
  await server.stop()
  await standIns.stop()
})

const ROWS = [
  'name,company,phone,mail,country',
  'Maren Oldershaw,Causeway,+44 7911 204481,maren@causeway.example,GB',
].join('\n')
const make = (listId: string, body: BodyOf<'makeAutomation'>) =>
  server.api.call('makeAutomation', { params: { listId }, body })
const runsOf = (listId: string) => server.api.call('readAutomationRuns', { params: { listId } })
const outcomes = async (listId: string) =>
  (await runsOf(listId))[0]?.done.map(({ work, outcome }) => `${work} ${outcome}`) ?? []
const ended = (listId: string, runs = 1) =>
  until(async () => {
    const all = await runsOf(listId)
    return all.length === runs && all.every(({ state }) => state !== 'running')
  })

describe('an automation', () => {
  it('works through its steps when a batch is ready, each within its amount', async () => {
    const listId = await newList(server.api)
    await make(listId, {
      start: 'batch-ready',
      steps: [
        { work: 'tidy' },
        { work: 'pair' },
        { work: 'check', amount: 5_000_000 },
        { work: 'fill', amount: 1_000_000 },
        { work: 'split' },
      ],
    })
    const batch = await bringText(server.api, listId, ROWS)
    await ended(listId)
    expect(await outcomes(listId)).toEqual([
      'tidy nothing-to-do',
      'pair done',
      'check done',
      'fill nothing-to-do',
      'split done',
    ])
    const [run] = await runsOf(listId)
    expect(run).toMatchObject({ start: 'batch-ready', batchId: batch.id, state: 'done', working: null })
    const [spent] = await server.sql<{ n: string }>(
      'select coalesce(sum(amount), 0) as n from charges where list_id = $1',
      [listId],
    )
    expect(run?.done.reduce((sum, one) => sum + one.spent, 0)).toBe(Number(spent?.n))
  })

  it('spends nothing where the work would cost more than its amount', async () => {
    const listId = await newList(server.api)
    await make(listId, { start: 'batch-ready', steps: [{ work: 'check', amount: 1 }] })
    await bringText(server.api, listId, ROWS.replace('204481', '204485'))
    await ended(listId)
    expect(await outcomes(listId)).toEqual(['check over-amount'])
  })

  it('begins with a contact that a program adds, and with a day, once', async () => {
    const listId = await newList(server.api)
    await make(listId, { start: 'contact-added', steps: [{ work: 'split' }] })
    const daily = await make(listId, { start: 'day', hour: 0, steps: [{ work: 'split' }] })
    const { secret } = await server.api.call('makeMachineKey', { body: { name: 'x', scopes: ['add'] } })
    const response = await fetch(`${server.url}/api/v1/lists/${listId}/contacts`, {
      method: 'POST',
      headers: { authorization: `Bearer ${secret}`, 'content-type': 'application/json' },
      body: JSON.stringify({ contacts: [{ id: '1', fields: { number: '+447911204490' } }] }),
    })
    expect(response.status).toBe(200)
    await ended(listId)
    await server.sql("update automations set last_day = '2020-01-01' where id = $1", [daily.id])
    await ended(listId, 2)
    expect((await runsOf(listId)).map(({ start }) => start)).toEqual(['day', 'contact-added'])
    const [today] = await server.sql<{ day: string }>('select last_day as day from automations where id = $1', [
      daily.id,
    ])
    expect(today?.day).toBe(new Date().toISOString().slice(0, 10))
  })

  it('that cannot go on says so, and keeps no other from going on', async () => {
    const [broken, whole] = [await newList(server.api), await newList(server.api)]
    const begin = (listId: string, steps: readonly { readonly work: string }[]) =>
      server.sql(
        "insert into automation_runs (automation_id, list_id, start, steps, started_by) values ($1, $2, 'day', $3, 'x')",
        [crypto.randomUUID(), listId, JSON.stringify(steps)],
      )
    const states = (listId: string) =>
      server.sql<{ state: string; done: unknown }>('select state, done from automation_runs where list_id = $1', [
        listId,
      ])
    await begin(broken, [{ work: 'nobody knows what' }, { work: 'split' }])
    await begin(whole, [{ work: 'split' }])
    await until(async () =>
      [...(await states(broken)), ...(await states(whole))].every(({ state }) => state === 'done'),
    )
    expect(await states(broken)).toMatchObject([{ done: [{ outcome: 'failed' }, { work: 'split', outcome: 'done' }] }])
    expect(await states(whole)).toMatchObject([{ done: [{ work: 'split', outcome: 'done' }] }])
  })

  /** Begun on another list behind it, and ended there: every other was looked at meanwhile. */
  const lookedAtAll = async () => {
    const other = await newList(server.api)
    await make(other, { start: 'batch-ready', steps: [{ work: 'split' }] })
    await bringText(server.api, other, ROWS)
    await ended(other)
  }
  const isDue = (id: string) => server.sql("update automations set last_day = '2020-01-01' where id = $1", [id])

  /** A daily automation that has begun on a list that somebody else works on. */
  const begunWhileHeld = async () => {
    const listId = await newList(server.api)
    await bringText(server.api, listId, ROWS)
    const letGo = await holdList(server, listId)
    const { id } = await make(listId, { start: 'day', hour: 0, steps: [{ work: 'split' }] })
    await isDue(id)
    await until(async () => (await runsOf(listId)).length === 1)
    return { listId, id, letGo }
  }

  it('of an archived list rests, and what was begun there pays for nothing', async () => {
    const listId = await newList(server.api)
    await bringText(server.api, listId, ROWS.replace('204481', '204486'))
    const check = { work: 'check', amount: 5_000_000 } as const
    const { id } = await make(listId, { start: 'day', hour: 0, steps: [check] })
    const archive = (archived: boolean) => server.api.call('changeList', { params: { listId }, body: { archived } })
    await archive(true)
    await server.sql(
      "insert into automation_runs (automation_id, list_id, start, steps, started_by) values ($1, $2, 'day', $3, 'x')",
      [id, listId, JSON.stringify([check])],
    )
    await ended(listId)
    expect(await runsOf(listId)).toMatchObject([
      { done: [{ outcome: 'refused', reason: expect.stringContaining('archived'), spent: 0 }] },
    ])
    await isDue(id)
    await lookedAtAll()
    expect(await runsOf(listId)).toHaveLength(1)
    await archive(false)
    await ended(listId, 2)
    expect(await outcomes(listId)).toEqual(['check done'])
  })

  it('of every day begins no second time while its last run is not over', async () => {
    const { listId, id, letGo } = await begunWhileHeld()
    await isDue(id)
    await lookedAtAll()
    expect(await runsOf(listId)).toHaveLength(1)
    await letGo()
    await ended(listId, 2)
  })

  it('waits with its lanes until whoever has the list lets it go', async () => {
    const { listId, letGo } = await begunWhileHeld()
    await lookedAtAll()
    expect(await runsOf(listId)).toMatchObject([{ state: 'running', working: 'split', done: [] }])
    await letGo()
    await ended(listId)
    expect(await outcomes(listId)).toEqual(['split done'])
  })

  it('that is switched off begins nothing, and goes on with nothing', async () => {
    const listId = await newList(server.api)
    const { id } = await make(listId, { start: 'batch-ready', steps: [{ work: 'pair' }] })
    const params = { automationId: id }
    await server.api.call('switchAutomation', { params, body: { isOn: false } })
    await bringText(server.api, listId, ROWS)
    expect(await runsOf(listId)).toEqual([])
    await server.sql(
      'insert into automation_runs (automation_id, list_id, start, steps, started_by) values ($1, $2, \'day\', \'[{"work":"send","amount":0,"audienceId":null}]\', \'x\')',
      [id, listId],
    )
    await server.api.call('switchAutomation', { params, body: { isOn: false } })
    expect((await runsOf(listId)).every(({ state }) => state !== 'running')).toBe(true)
    await server.api.call('removeAutomation', { params })
    expect(await server.api.call('readAutomations', { params: { listId } })).toEqual([])
  })

  it.each<[string, BodyOf<'makeAutomation'>]>([
    ['nothing to do', { start: 'day', steps: [] }],
    ['no amount for what costs money', { start: 'day', steps: [{ work: 'fill' }] }],
    ['no audience to send', { start: 'day', steps: [{ work: 'send' }] }],
  ])('with %s is refused', async (_, body) => {
    await expect(make(await newList(server.api), body)).rejects.toMatchObject({ code: 'not-valid' })
  })
})

describe('an automation that sends', () => {
  it('prepares the next edition of an audience and delivers what it changes', async () => {
    const networks = await connectNetworks(server)
    await addDestinations(server.api)
    const listId = await newList(server.api)
    await bringText(server.api, listId, ROWS)
    const audience = await server.api.call('makeAudience', {
      params: { listId },
      body: {
        name: 'By itself',
        destination: 'brassbell',
        account: { id: 'bb-4410', name: 'Wrenfold UK' },
        isWholeList: true,
      },
    })
    await make(listId, { start: 'batch-ready', steps: [{ work: 'send', audienceId: audience.id }] })
    await bringText(
      server.api,
      listId,
      ROWS.replaceAll('204481', '204482').replaceAll('maren', 'tom').replace('Maren', 'Tom'),
    )
    await ended(listId)
    expect(await outcomes(listId)).toEqual(['send done'])
    const told = await server.api.call('readAudience', { params: { audienceId: audience.id } })
    expect(told.latest).toMatchObject({ state: 'done', added: 2 })
    await networks.stop()
  })
})
