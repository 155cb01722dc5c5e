import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import type { ApiClient, Job } from '@upper-field/contract'
import { newStep, type Step } from '@upper-field/core/tidy'
import { untilEnded } from '../../../../scripts/bringIn'
import { transaction } from '../../src/db/database'
import { refreshContacts } from '../../src/projection/refresh'
import { bringText, newList, startTestServer, type TestServer } from './harness'

let server: TestServer
let api: ApiClient

beforeAll(async () => {
  server = await startTestServer()
  api = server.api
}, 60_000)
afterAll(() => server.stop())

const FILE = `name,company,phone,mail,country,stand
"OLDERSHAW, MAREN",Causeway Camping Ltd,1665555018,maren@causeway.example,United Kingdom,4
Priya Hallowell,Thornbury Nurseries,07911 204481,priya@birghtmail.example,UK,5
Tom Kestle,Seerose,079112044811,tom@seerose.example,GB,6
Sanne van der Veen,Fernhill BV,020 7946 0xxx,SANNE@fernhill.example,NL,7
`
const listWith = async (text = FILE, name = 'First') => {
  const listId = await newList(api)
  await bringText(api, listId, text, { name })
  return listId
}
const state = (listId: string) => api.call('readTidy', { params: { listId } })
const contacts = async (listId: string) => (await api.call('readContacts', { params: { listId }, query: {} })).contacts
const find = async (listId: string, part: string) => {
  const found = (await contacts(listId)).find(({ fullName }) => fullName.toLowerCase().includes(part))
  if (!found) throw new Error(`nobody is called ${part}`)
  return found
}
const ended = async (listId: string, job: Job) => {
  await untilEnded(api, listId, job.id)
  return (await api.call('readJobs', { params: { listId } })).find(({ id }) => id === job.id)
}
/** Everything a list shows, for comparing two states of it. */
const picture = async (listId: string) => ({
  contacts: (await contacts(listId)).map(({ id: _, ...rest }) => rest),
  counts: (await state(listId)).counts,
  terrace: (await api.call('readList', { params: { listId } })).terrace,
})
const apply = async (
  listId: string,
  change: (steps: readonly Step[]) => readonly Step[],
  name: string | null = null,
) => {
  const { routine } = await state(listId)
  const body = { routine: { version: 1, steps: change(routine.steps) }, name }
  return ended(listId, await api.call('applyRoutine', { params: { listId }, body }))
}

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

  it('stopped half-way leaves the list as it was', async () => {
    const rows = Array.from({ length: 9000 }, (_, i) => `Person ${i},Garden ${i} Ltd,p${i}@causeway.example`)
    const listId = await listWith(`name,company,mail\n${rows.join('\n')}\n`)
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
  }, 60_000)
})

describe('contacts of several lists that are projected together', () => {
  it('are each tidied by the routine of their own list, and share lines with their own list alone', async () => {
    const [one, other] = [await listWith(), await listWith()]
    await apply(other, (steps) => steps.filter(({ kind }) => kind !== 'company'))
    const before = [await picture(one), await picture(other)]
    const ids = [...(await contacts(one)), ...(await contacts(other))].map(({ id }) => id)
    // As when the register tells of a number that both lists hold.
    for (const order of [ids, ids.toReversed()])
      await transaction(server.services.pool, (tx, client) => refreshContacts(tx, client, order))
    expect([await picture(one), await picture(other)]).toEqual(before)
    expect((await find(other, 'maren')).company).toBe('Causeway Camping Ltd')
  })
})

describe('a person’s word', () => {
  const edit = (listId: string, contactId: number, column: string, value: string) =>
    api.call('makeEdits', { params: { listId }, body: { edits: [{ contactId, column, value }] } })

  it('stands before the routine’s, outlives its changes, and is taken back exactly', async () => {
    const listId = await listWith()
    const before = await picture(listId)
    const { id } = await find(listId, 'sanne')
    const act = await edit(listId, id, 'number', '+31 6 12345678')
    expect(await find(listId, 'sanne')).toMatchObject({ number: '+31612345678', lane: 'text' })
    await apply(listId, (steps) => steps.filter(({ kind }) => kind !== 'company'))
    expect((await find(listId, 'sanne')).number).toBe('+31612345678')
    const routine = (await state(listId)).acts.find(({ kind }) => kind === 'routine')
    await ended(listId, await api.call('takeActBack', { params: { actId: routine?.id ?? '' } }))
    await ended(listId, await api.call('takeActBack', { params: { actId: act.id } }))
    expect(await picture(listId)).toEqual(before)
    await expect(api.call('takeActBack', { params: { actId: act.id } })).rejects.toThrow(/already/)
  })

  it('is told in the story, from the cell as it stood to what it is now', async () => {
    const listId = await listWith()
    const { id } = await find(listId, 'maren')
    await edit(listId, id, 'company', 'Causeway')
    const { story, values } = await api.call('readStory', { params: { contactId: id } })
    expect(values.company).toBe('Causeway')
    const told = story.flatMap(({ what }) =>
      what.kind === 'tidied' ? [`${what.was} > ${what.is}`] : what.kind === 'edited' ? [`edited ${what.value}`] : [],
    )
    expect(told).toEqual([
      'OLDERSHAW, MAREN > MAREN OLDERSHAW',
      'MAREN OLDERSHAW > Maren Oldershaw',
      'Causeway Camping Ltd > Causeway Camping',
      'United Kingdom > GB',
      'edited Causeway',
    ])
  })

  it('can show that two rows are one person, who come apart again when it is taken back', async () => {
    const listId = await listWith()
    const before = await picture(listId)
    const tom = await find(listId, 'tom')
    const acts = [
      await edit(listId, tom.id, 'full-name', 'Priya Hallowell'),
      await edit(listId, tom.id, 'number', '07911 204481'),
    ]
    expect((await contacts(listId)).map(({ joined }) => joined).sort()).toEqual([0, 0, 1])
    for (const { id } of acts) await ended(listId, await api.call('takeActBack', { params: { actId: id } }))
    expect(await picture(listId)).toEqual(before)
  })

  it('makes a shared line of a number, and no longer when it is taken back', async () => {
    const listId = await listWith()
    const before = await picture(listId)
    const tom = await find(listId, 'tom')
    const act = await edit(listId, tom.id, 'number', '07911 204481')
    expect(await find(listId, 'priya')).toMatchObject({ isShared: true, lane: 'call' })
    await ended(listId, await api.call('takeActBack', { params: { actId: act.id } }))
    expect(await picture(listId)).toEqual(before)
  })

  it('leaves joins that have nothing to do with it as they are, with their time', async () => {
    const listId = await listWith(
      'name,phone,mail,country\nMaren Oldershaw,07911 204481,,GB\nM. Oldershaw,07911 204481,m@causeway.example,GB\nMaren Oldershaw,,m@causeway.example,GB\n',
    )
    const joins = () =>
      server.sql('select survivor_id, member_id, key, made_at from joins where list_id = $1 order by member_id', [
        listId,
      ])
    const before = await joins()
    expect(before).toHaveLength(2)
    const { id } = await find(listId, 'maren')
    const act = await edit(listId, id, 'number', '+44 7911 204481')
    expect(await joins()).toEqual(before)
    await edit(listId, id, 'number', '07911 204499')
    expect((await contacts(listId)).map(({ fullName, joined }) => [fullName, joined])).toEqual([
      ['Maren Oldershaw', 0],
      ['M. Oldershaw', 1],
    ])
    expect(act.kind).toBe('edit')
  })

  it('for all that a filter chooses is one act', async () => {
    const listId = await listWith()
    const body = { filter: 'country:GB', column: 'country', value: 'IE' }
    const job = await ended(listId, await api.call('makeBulkEdit', { params: { listId }, body }))
    expect(job?.result).toMatchObject({ contacts: 3 })
    expect((await contacts(listId)).map(({ country }) => country).sort()).toEqual(['IE', 'IE', 'IE', 'NL'])
    const [act] = (await state(listId)).acts
    expect(act).toMatchObject({ kind: 'bulk-edit', contacts: 3 })
    await ended(listId, await api.call('takeActBack', { params: { actId: act?.id ?? '' } }))
    expect((await contacts(listId)).filter(({ country }) => country === 'GB')).toHaveLength(3)
  })

  it('is refused where there is no such column or contact', async () => {
    const listId = await listWith()
    const { id } = await find(listId, 'tom')
    await expect(edit(listId, id, 'Shoe size', '44')).rejects.toThrow(/Shoe size/)
    await expect(edit(listId, 999_999, 'number', '1')).rejects.toThrow()
    await expect(edit(await newList(api), id, 'number', '1')).rejects.toThrow()
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
    await ended(listId, await wide({ batchId }))
    expect([await count(), (await find(listId, 'ida')).company]).toEqual([1, 'Krug'])
    await ended(listId, await wide({}))
    expect(await count()).toBe(0)
    for (const { actId } of (await state(listId)).leftOut)
      await ended(listId, await api.call('takeActBack', { params: { actId } }))
    expect(await count()).toBe(2)
    await ended(listId, await api.call('takeActBack', { params: { actId: one.id } }))
    expect(await count()).toBe(3)
  })
})

describe('the queue of cells that need a hand', () => {
  it('begins with the most promising, offers what they may have been, and empties', async () => {
    const listId = await listWith()
    const queue = () => api.call('readHand', { params: { listId }, query: {} })
    const { items, total } = await queue()
    expect([total, items.map(({ problem }) => problem)]).toEqual([3, ['slip-in-domain', 'too-long', 'masked']])
    expect(items[1]?.fixes.map(({ text }) => text)).toContain('07911204481')
    await api.call('makeEdits', {
      params: { listId },
      body: {
        edits: items.map(({ contactId, column, fixes }) => ({ contactId, column, value: fixes[0]?.text ?? '' })),
      },
    })
    expect(await queue()).toEqual({ items: [], next: null, total: 0 })
  })

  it('mends all cells with the same slip at once, and counts them before', async () => {
    const rows = ['a@birghtmail.example', 'b@brigthmail.example', 'c@krug.con', 'd@krug.example']
    const listId = await listWith(`name,mail\n${rows.map((mail, i) => `Person ${i},${mail}`).join('\n')}\n`)
    const alike = (apply: boolean) =>
      api.call('fixAlike', { params: { listId }, body: { kind: 'domain', problem: 'slip-in-domain', apply } })
    expect(await alike(false)).toEqual({ cells: 3 })
    expect((await state(listId)).counts.hand).toBe(3)
    await alike(true)
    expect((await contacts(listId)).map(({ email }) => email)).toEqual([
      'a@brightmail.example',
      'b@brightmail.example',
      'c@krug.com',
      'd@krug.example',
    ])
    expect((await state(listId)).acts[0]).toMatchObject({ kind: 'edit', contacts: 3 })
  })
})

describe('a job that ends its process again and again', () => {
  it('is given up after some tries, with what was done kept', async () => {
    const listId = await listWith()
    const { routine } = await state(listId)
    const job = await api.call('applyRoutine', { params: { listId }, body: { routine, name: null } })
    await ended(listId, job)
    // As five crashes in a row would have left it.
    await server.sql(`update jobs set state = 'running', cut_offs = 5, finished_at = null where id = $1`, [job.id])
    expect(await ended(listId, job)).toMatchObject({ state: 'failed', problem: 'cut-off-often' })
  })
})
