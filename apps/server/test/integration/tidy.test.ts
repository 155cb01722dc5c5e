import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import type { ApiClient } from '@upper-field/contract'
import { newStep, type Step } from '@upper-field/core/tidy'
import { transaction } from '../../src/db/database'
import { reproject } from '../../src/projection/reproject'
import { bringText, startTestServer, type TestServer } from './harness'
import { tidiedLists } from './tidiedLists'
import { until } from './until'

type Lists = ReturnType<typeof tidiedLists>
let server: TestServer
let api: ApiClient
let listWith: Lists['listWith']
let state: Lists['state']
let contacts: Lists['contacts']
let find: Lists['find']
let ended: Lists['ended']
let picture: Lists['picture']
let apply: Lists['apply']

beforeAll(async () => {
  server = await startTestServer()
  api = server.api
  ;({ listWith, state, contacts, find, ended, picture, apply } = tidiedLists(api))
})
afterAll(() => server.stop())

const MANY_ROWS = `name,company,mail\n${Array.from({ length: 9000 }, (_, i) => `Person ${i},Garden ${i} Ltd,p${i}@causeway.example`).join('\n')}\n`

describe('the routine of a list', () => {
  it('is proposed, tidies every batch, and says what it did', async () => {
    const listId = await listWith()
    const { isProposed, routine, counts, contacts: n } = await state(listId)
    expect([isProposed, n]).toEqual([true, 4])
    expect(routine.steps.map(({ kind }) => kind)).toContain('company')
    expect(counts).toMatchObject({
      'lost-zero': 1,
      'name-case': 1,
      'company-legal-form': 2,
      'country-code': 2,
      hand: 3,
    })
    expect(await find(listId, 'maren')).toMatchObject({
      company: 'Causeway Camping',
      number: '+441665555018',
      country: 'GB',
    })
  })

  it('shows each value it changed, was beside is', async () => {
    const listId = await listWith()
    const read = async (code: 'lost-zero' | 'name-order' | 'trunk-zero') =>
      (await api.call('readChanges', { params: { listId }, query: { code } })).values.map(({ was, is }) => [was, is])
    expect(await read('lost-zero')).toEqual([['1665555018', '+441665555018']])
    expect(await read('name-order')).toEqual([['OLDERSHAW, MAREN', 'MAREN OLDERSHAW']])
    expect(await read('trunk-zero')).toEqual([])
  })

  it('gives back exactly what was there when a step is switched off, and on again', async () => {
    const listId = await listWith()
    const before = await picture(listId)
    const without = (kind: string) => (steps: readonly Step[]) =>
      steps.map((step) => (step.kind === kind ? ({ ...step, isOn: !step.isOn } as Step) : step))
    await apply(listId, without('company'))
    expect((await find(listId, 'maren')).company).toBe('Causeway Camping Ltd')
    await apply(listId, without('company'))
    expect(await picture(listId)).toEqual(before)
    await apply(listId, without('numbers'))
    expect((await find(listId, 'maren')).number).toBeNull()
    const { acts } = await state(listId)
    await ended(listId, await api.call('takeActBack', { params: { actId: acts[0]?.id ?? '' } }))
    expect(await picture(listId)).toEqual(before)
  })

  it('takes back in order only: a later routine stands over an earlier one', async () => {
    const listId = await listWith()
    await apply(listId, (steps) => steps.slice(1))
    await apply(listId, (steps) => steps.slice(1))
    const { acts } = await state(listId)
    await expect(api.call('takeActBack', { params: { actId: acts[1]?.id ?? '' } })).rejects.toThrow(
      /Take that back first/,
    )
    expect((await state(listId)).acts[1]?.undoneAt).toBeNull()
  })

  it('is used on the next batch, and on other lists by its name', async () => {
    const listId = await listWith()
    const derive = {
      ...newStep('derive', 'greeting'),
      options: { column: 'Greeting', template: 'Hello {{ full_name }}' },
    }
    await apply(listId, (steps) => [...steps, derive as Step], 'Autumn')
    await api.call('saveRoutine', { body: { name: 'Autumn', routine: (await state(listId)).routine } })
    await bringText(api, listId, 'name,phone,country\nEllie Marsh,07911 204490,GB\n', { name: 'Second' })
    expect(await state(listId)).toMatchObject({ name: 'Autumn', isProposed: false, counts: { derived: 5 } })
    const [saved] = await api.call('readRoutines')
    const other = await listWith('name,phone\nIda Krug,07911 204491\n')
    const job = await api.call('applyRoutine', {
      params: { listId: other },
      body: { routine: saved?.routine ?? { version: 1, steps: [] }, name: 'Autumn' },
    })
    await ended(other, job)
    expect((await state(other)).counts).toMatchObject({ derived: 1 })
  })

  it('of a later version, or one that cannot be, is refused with a reason', async () => {
    const listId = await listWith()
    const send = (routine: unknown) =>
      api.call('applyRoutine', { params: { listId }, body: { routine, name: null } as never })
    await expect(send({ version: 2, steps: [] })).rejects.toThrow(/later version/)
    await expect(send({ version: 1, steps: [{ kind: 'sort', id: 'a', isOn: true, options: {} }] })).rejects.toThrow()
    const twice = newStep('numbers', 'a')
    await expect(send({ version: 1, steps: [twice, twice] })).rejects.toThrow(/same id/)
  })

  it('tells of a step whose column is gone, and of one that cannot work', async () => {
    const listId = await listWith()
    const dates = { ...newStep('dates', 'd'), options: { columns: ['Born'], order: 'day-first' } } as Step
    const loop = {
      ...newStep('derive', 'l'),
      options: { column: 'x', template: '{% for i in (1..9) %}{% endfor %}' },
    } as Step
    await apply(listId, (steps) => [...steps, dates, loop])
    expect((await state(listId)).problems).toMatchObject([
      { step: 'd', code: 'column-gone', detail: 'Born' },
      { step: 'l', code: 'refused' },
    ])
  })

  it('that changes a large list whole leaves it to be searched as before, by what it holds now', async () => {
    const listId = await listWith(MANY_ROWS)
    const found = async (words: string) =>
      (await api.call('readContacts', { params: { listId }, query: { filter: words } })).total
    expect([await found('garden 8888'), await found('orchard 8888')]).toEqual([1, 0])
    const options = { columns: ['company'], find: 'Garden', with: 'Orchard', isPattern: false, minds: 'case' }
    await apply(listId, (steps) => [...steps, { ...newStep('replace', 'r'), options } as Step])
    expect([await found('garden 8888'), await found('orchard 8888')]).toEqual([0, 1])
    const indexed = async () => (await server.sql<{ n: string }>(`select count(*) as n from words."${listId}"`))[0]?.n
    await until(async () => Number(await indexed()) >= 9000)
    expect([Number(await indexed()), await found('garden 8888'), await found('orchard 8888')]).toEqual([9000, 0, 1])
  })

  it('stopped half-way leaves the list as it was', async () => {
    const listId = await listWith(MANY_ROWS)
    const { routine } = await state(listId)
    const steps = routine.steps.filter(({ kind }) => kind !== 'company')
    const job = await api.call('applyRoutine', {
      params: { listId },
      body: { routine: { version: 1, steps }, name: null },
    })
    await api.call('stopJob', { params: { jobId: job.id } })
    expect(await ended(listId, job)).toMatchObject({ state: 'stopped' })
    const shown = await server.sql<{ n: string }>(
      `select count(*) as n from contacts where list_id = $1 and company like '% Ltd'`,
      [listId],
    )
    expect([Number(shown[0]?.n), (await state(listId)).counts['company-legal-form']]).toEqual([0, 9000])
    expect((await state(listId)).isProposed).toBe(true)
  })
})

describe('a routine and who is one person', () => {
  const joinsOf = (listId: string) =>
    server.sql('select id, survivor_id, member_id from joins where list_id = $1 and undone_at is null', [listId])

  it('joins businesses without a name once their companies are written alike, and takes them apart again', async () => {
    const listId = await listWith('name,company,phone\n,Heron Camping,+441665555018\n,Larkrise,+441665555018\n')
    expect(await joinsOf(listId)).toEqual([])
    const options = { columns: ['company'], find: 'Larkrise', with: 'Heron', isPattern: false, minds: 'case' }
    await apply(listId, (steps) => [...steps, { ...newStep('replace', 'r'), options } as Step])
    expect(await joinsOf(listId)).toHaveLength(1)
    await apply(listId, (steps) => steps.filter(({ id }) => id !== 'r'))
    expect(await joinsOf(listId)).toEqual([])
    expect((await contacts(listId)).map(({ company }) => company).sort()).toEqual(['Heron Camping', 'Larkrise'])
  })

  it('leaves joins as they were made where names are written otherwise only, and shows the names as they are now', async () => {
    const listId = await listWith(
      'name,phone\nMAREN OLDERSHAW,+447911204481\n"Oldershaw, Maren",+447911204481\nTom Kestle,+447911204482\n',
    )
    const before = await joinsOf(listId)
    expect([before.length, (await find(listId, 'maren')).fullName]).toEqual([1, 'Maren Oldershaw'])
    const isOn = (on: boolean) => (steps: readonly Step[]) =>
      steps.map((step) => (step.kind.startsWith('name') ? ({ ...step, isOn: on } as Step) : step))
    await apply(listId, isOn(false))
    expect((await find(listId, 'maren')).fullName).not.toBe('Maren Oldershaw')
    expect(await joinsOf(listId)).toEqual(before)
    await apply(listId, isOn(true))
    expect((await find(listId, 'maren')).fullName).toBe('Maren Oldershaw')
    expect(await joinsOf(listId)).toEqual(before)
  })
})

describe('a routine and who shares a line', () => {
  it('counts those who come to hold a number of others, and those others too, and none of them once it is gone', async () => {
    const listId = await listWith(
      'name,phone,country\nTom Kestle,1665555018,GB\nPriya Garside,+441665555018,GB\nJo Newcomer,+441665555019,GB\nIda Krug,1665555019,GB\nIda Krug,+441665555019,GB\n',
    )
    const sharing = async () =>
      (await api.call('readContacts', { params: { listId }, query: { filter: 'is:shared' } })).contacts.map(
        ({ fullName }) => fullName,
      )
    const mends = (on: boolean) =>
      apply(listId, (steps) => steps.map((step) => (step.kind === 'numbers' ? ({ ...step, isOn: on } as Step) : step)))
    const all = ['Tom Kestle', 'Priya Garside', 'Jo Newcomer', 'Ida Krug']
    expect(await sharing()).toEqual(all)
    await mends(false)
    expect(await sharing()).toEqual(['Jo Newcomer', 'Ida Krug'])
    await mends(true)
    expect(await sharing()).toEqual(all)
  })
})

describe('contacts of several lists that are projected together', () => {
  it('are each tidied by the routine of their own list, and share lines with their own list alone', async () => {
    const [one, other] = [await listWith(), await listWith()]
    await apply(other, (steps) => steps.filter(({ kind }) => kind !== 'company'))
    const before = [await picture(one), await picture(other)]
    const ids = [...(await contacts(one)), ...(await contacts(other))].map(({ id }) => id)
    // As when the register tells of a number that both lists hold.
    for (const order of [ids, ids.toReversed()])
      await transaction(server.services.pool, (tx, client) =>
        reproject(tx, client, { contacts: order, because: 'changed' }),
      )
    expect([await picture(one), await picture(other)]).toEqual(before)
    // Whatever stood there before.
    await server.sql('delete from contact_numbers where contact_id = any($1::bigint[]) and contact_id % 2 = 0', [ids])
    await server.sql(
      `update contacts set is_shared = not is_shared, lane = 'parked', number = null where id = any($1)`,
      [ids],
    )
    expect([await picture(one), await picture(other)]).not.toEqual(before)
    await transaction(server.services.pool, (tx, client) =>
      reproject(tx, client, { contacts: ids, because: 'changed' }),
    )
    expect([await picture(one), await picture(other)]).toEqual(before)
    expect((await find(other, 'maren')).company).toBe('Causeway Camping Ltd')
  })
})

describe('a repair left out', () => {
  it('for one contact, one batch or everywhere, and made again', async () => {
    const listId = await listWith()
    await bringText(api, listId, 'name,company,mail\nIda Krug,Krug GmbH,ida@krug.example\n', { name: 'Second' })
    const count = async () => (await state(listId)).counts['company-legal-form'] ?? 0
    expect(await count()).toBe(3)
    const { id, batchId } = await find(listId, 'maren')
    const one = await api.call('leaveOut', { params: { listId }, body: { code: 'company-legal-form', contactId: id } })
    expect([await count(), (await find(listId, 'maren')).company]).toEqual([2, 'Causeway Camping Ltd'])
    const wide = (body: { batchId?: string }) =>
      api.call('leaveOutWidely', { params: { listId }, body: { code: 'company-legal-form', ...body } })
    const ofBatch = await wide({ batchId })
    await ended(listId, ofBatch)
    expect([await count(), (await find(listId, 'ida')).company]).toEqual([1, 'Krug'])
    const ofAll = await wide({})
    await ended(listId, ofAll)
    // Nobody else is looked at.
    expect([ofBatch.total, ofAll.total]).toEqual([1, 1])
    expect(await count()).toBe(0)
    for (const { actId } of (await state(listId)).leftOut)
      await ended(listId, await api.call('takeActBack', { params: { actId } }))
    expect(await count()).toBe(2)
    await ended(listId, await api.call('takeActBack', { params: { actId: one.id } }))
    expect(await count()).toBe(3)
  })
})
