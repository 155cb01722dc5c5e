import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import type { ApiClient, Batch } from '@upper-field/contract'
import { layoutKey, type Mapping } from '@upper-field/core/table'
import { bringIn, leaveWaiting, untilEnded } from '../../../../scripts/bringIn'
import { bringText, newList, startTestServer, type TestServer } from './harness'
import { listReaders } from './listReaders'

let server: TestServer
let api: ApiClient
let lists: ReturnType<typeof listReaders>
beforeAll(async () => {
  server = await startTestServer()
  api = server.api
  lists = listReaders(api)
})
afterAll(() => server.stop())

const utf8 = (text: string) => new TextEncoder().encode(text)

describe('a batch read otherwise', () => {
  const text = 'who,phone,spare\nAnn Hill,089 1234567,0171 2345678\nBen Cole,030 98765432,\n'
  const numbersOf = async (listId: string) => {
    const rows = await server.sql<{ e164: string }>(
      'select n.e164 from contact_numbers n join contacts c on c.id = n.contact_id where c.list_id = $1 order by 1',
      [listId],
    )
    return rows.map(({ e164 }) => e164)
  }
  const read = async (batchId: string, listId: string, body: { defaultCountry: string | null; mapping: Mapping }) => {
    const job = await api.call('readBatchAnew', { params: { batchId }, body: { ...body, mapping: [...body.mapping] } })
    expect((await untilEnded(api, listId, job.id)).state).toBe('done')
  }

  it('is made anew from its rows under another country and mapping, and as it was when that is taken back', async () => {
    const listId = await newList(api)
    const batch = await bringText(api, listId, text, {
      defaultCountry: null,
      mapping: ['full-name', 'number', null],
    })
    expect(await numbersOf(listId)).toEqual([])
    const before = await lists.contactsOf(listId)
    await read(batch.id, listId, { defaultCountry: 'DE', mapping: ['full-name', 'number', 'number'] })
    expect(await numbersOf(listId)).toEqual(['+491712345678', '+493098765432', '+49891234567'])
    expect((await lists.listOf(listId)).contacts).toBe(2)
    const { acts } = await api.call('readTidy', { params: { listId } })
    expect(acts[0]).toMatchObject({ kind: 'reading', undoneAt: null })
    await read(batch.id, listId, { defaultCountry: 'AT', mapping: ['full-name', 'number', 'number'] })
    // The one before can be taken back only behind the one over it.
    await expect(api.call('takeActBack', { params: { actId: acts[0]?.id ?? '' } })).rejects.toMatchObject({
      status: 409,
      code: 'later-reading',
    })
    for (let i = 0; i < 2; i++) {
      const [last] = (await api.call('readTidy', { params: { listId } })).acts.filter(
        ({ undoneAt }) => undoneAt === null,
      )
      const job = await api.call('takeActBack', { params: { actId: last?.id ?? '' } })
      expect((await untilEnded(api, listId, job.id)).state).toBe('done')
    }
    expect(await lists.contactsOf(listId)).toEqual(before)
    expect(await numbersOf(listId)).toEqual([])
  })

  it('keeps what people edited, and refuses a mapping of another width', async () => {
    const listId = await newList(api)
    const batch = await bringText(api, listId, text, { defaultCountry: null, mapping: ['full-name', 'number', null] })
    const [ann] = await lists.contactsOf(listId)
    await api.call('makeEdits', {
      params: { listId },
      body: { edits: [{ contactId: Number(ann?.id), column: 'company', value: 'Hill' }] },
    })
    await read(batch.id, listId, { defaultCountry: 'DE', mapping: ['full-name', 'number', null] })
    const { contacts } = await api.call('readContacts', { params: { listId }, query: { filter: 'Hill' } })
    expect(contacts).toMatchObject([{ fullName: 'Ann Hill', company: 'Hill', number: '+49891234567' }])
    await expect(
      api.call('readBatchAnew', { params: { batchId: batch.id }, body: { defaultCountry: 'DE', mapping: ['number'] } }),
    ).rejects.toMatchObject({ status: 422, code: 'mapping-off' })
  })
})

describe('a batch taken back', () => {
  const first =
    'name,phone,mail\nAnn Hill,07911 204481,ann@home.example\nBen Cole,07911 204482,\nCy Dale,01665 555018,\n'
  const second =
    'name,phone,mail\nAnn Hill,07911 204481,\nDi Eden,01665 555018,di@home.example\nAnn Hill,,ann@home.example\n'
  const snapshot = async (listId: string) => ({
    contacts: (await lists.contactsOf(listId)).map(({ id, joinedInto, ...rest }) => ({ id, joinedInto, ...rest })),
    numbers: await server.sql(
      'select contact_id, position, e164, origin from contact_numbers where list_id = $1 order by 1, 2',
      [listId],
    ),
    terrace: (await lists.listOf(listId)).terrace,
  })
  const turn = async (listId: string, name: 'takeBatchBack' | 'bringBatchBack', batchId: string) => {
    await api.call(name, { params: { batchId } })
    await lists.idle(listId)
  }

  it.each(['the first', 'the second'])(
    '%s goes with its contacts and joins, and comes back with them',
    async (which) => {
      const listId = await newList(api)
      const batches = [
        await bringText(api, listId, first, { defaultCountry: 'GB' }),
        await bringText(api, listId, second, { defaultCountry: 'GB' }),
      ]
      await lists.idle(listId)
      const batch = batches[which === 'the first' ? 0 : 1] as Batch
      const before = await snapshot(listId)
      expect(before.contacts).toHaveLength(4)
      await turn(listId, 'takeBatchBack', batch.id)
      const without = await lists.contactsOf(listId)
      expect(without.map(({ fullName }) => fullName)).toEqual(
        which === 'the first' ? ['Ann Hill', 'Di Eden', 'Ann Hill'] : ['Ann Hill', 'Ben Cole', 'Cy Dale'],
      )
      expect(without.some(({ isShared }) => isShared)).toBe(false)
      const terrace = (await lists.listOf(listId)).terrace
      expect(terrace[0]?.count).toBe(3)
      await turn(listId, 'bringBatchBack', batch.id)
      expect(await snapshot(listId)).toEqual(before)
      await expect(api.call('bringBatchBack', { params: { batchId: batch.id } })).rejects.toMatchObject({
        code: 'batch-not-there',
      })
    },
  )

  it('is joined with whom came meanwhile as it comes back, and nobody is texted on a line that is shared by then', async () => {
    const listId = await newList(api)
    const batch = await bringText(api, listId, first, { defaultCountry: 'GB' })
    await turn(listId, 'takeBatchBack', batch.id)
    const meanwhile = 'name,phone,mail\nAnn Hill,07911 204481,ann@other.example\nEve Ford,07911 204482,\n'
    await bringText(api, listId, meanwhile, { defaultCountry: 'GB' })
    await turn(listId, 'bringBatchBack', batch.id)
    const shown = (await lists.contactsOf(listId)).map(({ fullName, joined, isShared, lane }) => [
      fullName,
      joined,
      isShared,
      lane,
    ])
    expect(shown).toEqual([
      ['Ann Hill', 1, false, 'text'],
      ['Ben Cole', 0, true, 'call'],
      ['Cy Dale', 0, false, 'call'],
      ['Eve Ford', 0, true, 'call'],
    ])
  })

  it('takes its rows out of whom they came to by another row', async () => {
    const listId = await newList(api)
    await bringText(api, listId, 'name,phone,mail\nAnn Hill,+447911204481,\nAnn Hill,+447911204481,ann@home.example\n')
    const batch = await bringText(api, listId, 'name,phone,mail\nAnn Hill,+447911204483,ann@home.example\n')
    const numbersOf = async () =>
      server.sql(
        'select e164, joined from contacts c join contact_numbers n on n.contact_id = c.id where c.list_id = $1 and joined_into is null order by c.id, position',
        [listId],
      )
    const together = await numbersOf()
    expect(together).toHaveLength(2)
    await turn(listId, 'takeBatchBack', batch.id)
    expect((await lists.contactsOf(listId)).map(({ joined }) => joined)).toEqual([1])
    await turn(listId, 'bringBatchBack', batch.id)
    expect(await numbersOf()).toEqual(together)
  })

  it('leaves nobody joined by what it alone held', async () => {
    const listId = await newList(api)
    await bringText(api, listId, 'name,phone\nAnn Hill,+447911204481\nAnn Hill,+447911204483\n')
    const between = await bringText(api, listId, 'name,phone,mobile\nAnn Hill,+447911204481,+447911204483\n')
    const joined = async () => (await lists.contactsOf(listId)).map((one) => one.joined)
    expect(await joined()).toEqual([2])
    await turn(listId, 'takeBatchBack', between.id)
    expect(await joined()).toEqual([0, 0])
    await turn(listId, 'bringBatchBack', between.id)
    expect(await joined()).toEqual([2])
  })
})

describe('what is known from before', () => {
  it('a layout is mapped as last time, and the same file is noticed', async () => {
    const listId = await newList(api)
    const file = { name: 'a.csv', bytes: utf8('Kenner,Ruf,Post\nAnn,07911 204481,a@b.example\n') }
    const facts = {
      defaultCountry: 'GB',
      sourceKind: 'event' as const,
      mapping: ['full-name', 'number', 'email'] as Batch['mapping'],
    }
    const batch = await bringIn(api, listId, file, facts)
    const key = layoutKey(['Kenner', 'Ruf', 'Post']) ?? ''
    const { layout } = await api.call('readLayout', { params: { key } })
    expect(layout).toMatchObject({ ...facts, batchName: 'a.csv' })
    expect(await api.call('readLayout', { params: { key: '3:none' } })).toEqual({ layout: null })
    const [stored] = await server.sql<{ fingerprint: string }>('select fingerprint from batches where id = $1', [
      batch.id,
    ])
    expect(await api.call('readSameFiles', { params: { fingerprint: stored?.fingerprint ?? '' } })).toMatchObject([
      { batchId: batch.id },
    ])
    const again = await bringIn(api, listId, file, facts)
    expect((await lists.batchOf(listId, again.id)).sameFile).toMatchObject([{ batchId: batch.id }])
  })

  it('a batch may wait, and be paused; it goes on when told to', async () => {
    const listId = await newList(api)
    await leaveWaiting(
      api,
      listId,
      { name: 'w.csv', bytes: utf8('name,phone\nAnn,07911 204481\n') },
      { defaultCountry: 'GB' },
    )
    const [waiting] = await api.call('readBatches', { params: { listId } })
    // Another list's batch, sent after it, is read to its end meanwhile.
    await bringText(api, await newList(api), 'name,phone\nBen,01665 555018\n', { defaultCountry: 'GB' })
    expect(await lists.batchOf(listId, waiting?.id ?? '')).toMatchObject({ state: 'queued', rows: 0 })
    const jobId = waiting?.jobId ?? ''
    await api.call('resumeJob', { params: { jobId } })
    expect(await untilEnded(api, listId, jobId)).toMatchObject({ state: 'done', result: { rows: 1 } })
    await expect(api.call('pauseJob', { params: { jobId } })).rejects.toMatchObject({ code: 'not-under-way' })
  })

  it('rows read before somebody changed the routine are tidied by the new one before the batch is shown', async () => {
    const listId = await newList(api)
    const text = 'who,phone\nANN HILL,07911 204481\nBEN COLE,07911 204482\n'
    const batch = await bringText(api, listId, text, { headings: ['who', 'phone'], mapping: ['full-name', 'number'] })
    const names = async () =>
      (
        await server.sql<{ name: string }>('select full_name as name from contacts where batch_id = $1 order by 1', [
          batch.id,
        ])
      ).map(({ name }) => name)
    expect(await names()).toEqual(['Ann Hill', 'Ben Cole'])
    // As a job leaves it whose rows are all read, some of them by the routine of before.
    await server.sql("update contacts set full_name = 'as it was' where batch_id = $1", [batch.id])
    await server.sql("update batches set state = 'reading' where id = $1", [batch.id])
    const asLeft = async (tidiedBy: string) => {
      await server.sql(
        `update jobs set state = 'failed', phase = 'reading', cursor = cursor || jsonb_build_object('tidiedBy', $2::text) where id = $1`,
        [batch.jobId, tidiedBy],
      )
      await api.call('resumeJob', { params: { jobId: batch.jobId ?? '' } })
      expect(await untilEnded(api, listId, batch.jobId ?? '')).toMatchObject({ state: 'done', result: { rows: 2 } })
    }
    const [job] = await server.sql<{ by: string }>("select cursor->>'tidiedBy' as by from jobs where id = $1", [
      batch.jobId,
    ])
    await asLeft(job?.by ?? '')
    expect(await names()).toEqual(['as it was', 'as it was'])
    await server.sql("update batches set state = 'reading' where id = $1", [batch.id])
    await asLeft('several')
    expect(await names()).toEqual(['Ann Hill', 'Ben Cole'])
  })

  it('yields of batches add up to the list', async () => {
    const listId = await newList(api)
    await bringText(api, listId, 'name,phone\nAnn,07911 204481\nBen,01665 555018\n', { defaultCountry: 'GB' })
    await bringText(api, listId, 'name,phone\nAnn,07911 204481\nCy,07911 204485\n', { defaultCountry: 'GB' })
    const yields = await api.call('readYields', { params: { listId } })
    expect(yields).toMatchObject([
      { contacts: 2, joined: 0, text: 1, call: 1 },
      { contacts: 1, joined: 1, text: 1, call: 0 },
    ])
    // Of this one every row is held: it has brought nothing.
    const batch = await bringText(api, listId, 'name,phone\n"Dee,07911 204486\n', { defaultCountry: 'GB' })
    expect(batch).toMatchObject({ state: 'ready', rows: 1, held: 1 })
    const nothing = { batchId: batch.id, contacts: 0, joined: 0, text: 0, call: 0, parked: 0, spent: 0 }
    expect((await api.call('readYields', { params: { listId } })).at(-1)).toMatchObject(nothing)
  })
})
