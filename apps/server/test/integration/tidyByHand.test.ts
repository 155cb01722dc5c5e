import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import type { ApiClient } from '@upper-field/contract'
import { newList, startTestServer, type TestServer } from './harness'
import { tidiedLists } from './tidiedLists'

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

  it('is taken back while whoever asks waits, and that is among the list’s jobs', async () => {
    const listId = await listWith()
    const before = await picture(listId)
    const { id } = await find(listId, 'sanne')
    const act = await edit(listId, id, 'city', 'Delft')
    const job = await api.call('takeActBack', { params: { actId: act.id } })
    expect(job).toMatchObject({ kind: 'tidy', state: 'done', done: 1, total: 1, result: { contacts: 1 } })
    expect(await picture(listId)).toEqual(before)
    const [latest] = await api.call('readJobs', { params: { listId } })
    expect(latest).toEqual(job)
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
      // Of its two rows, the fuller name.
      ['Maren Oldershaw', 1],
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

  it('for those that are picked of them leaves the others alone', async () => {
    const listId = await listWith()
    const picked = [(await find(listId, 'tom')).id, (await find(listId, 'sanne')).id]
    const body = { filter: 'country:GB', contactIds: picked, column: 'country', value: 'IE' }
    const job = await ended(listId, await api.call('makeBulkEdit', { params: { listId }, body }))
    expect(job?.result).toMatchObject({ contacts: 1 })
    expect(Object.fromEntries((await contacts(listId)).map(({ id, country }) => [id, country]))).toMatchObject({
      [picked[0] ?? 0]: 'IE',
      [picked[1] ?? 0]: 'NL',
    })
    expect((await contacts(listId)).filter(({ country }) => country === 'GB')).toHaveLength(2)
  })

  it('is refused where there is no such column or contact', async () => {
    const listId = await listWith()
    const { id } = await find(listId, 'tom')
    await expect(edit(listId, id, 'Shoe size', '44')).rejects.toThrow(/Shoe size/)
    await expect(edit(listId, 999_999, 'number', '1')).rejects.toThrow()
    await expect(edit(await newList(api), id, 'number', '1')).rejects.toThrow()
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
    const rows = ['a@gmial.com', 'b@gamil.com', 'c@krug.con', 'd@krug.example']
    const listId = await listWith(`name,mail\n${rows.map((mail, i) => `Person ${i},${mail}`).join('\n')}\n`)
    const alike = (apply: boolean) =>
      api.call('fixAlike', { params: { listId }, body: { kind: 'domain', problem: 'slip-in-domain', apply } })
    expect(await alike(false)).toEqual({ cells: 3 })
    expect((await state(listId)).counts.hand).toBe(3)
    await alike(true)
    expect((await contacts(listId)).map(({ email }) => email)).toEqual([
      'a@gmail.com',
      'b@gmail.com',
      'c@krug.com',
      'd@krug.example',
    ])
    expect((await state(listId)).acts[0]).toMatchObject({ kind: 'edit', contacts: 3, detail: '3 values' })
  })
})
