import { utils, write } from '@e965/xlsx'
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import type { ApiClient, Batch } from '@upper-field/contract'
import { layoutKey, type Mapping } from '@upper-field/core/table'
import { bringIn, leaveWaiting, untilEnded } from '../../../../scripts/bringIn'
import { bringText, newBatch, newList, startTestServer, type TestServer } from './harness'

let server: TestServer
let api: ApiClient
beforeAll(async () => {
  server = await startTestServer()
  api = server.api
})
afterAll(() => server.stop())

const utf8 = (text: string) => new TextEncoder().encode(text)
const listOf = (listId: string) => api.call('readList', { params: { listId } })
const batchOf = async (listId: string, id: string) =>
  (await api.call('readBatches', { params: { listId } })).find((batch) => batch.id === id) as Batch
const contactsOf = (listId: string, filter = '') =>
  api.call('readContacts', { params: { listId }, query: { filter } }).then(({ contacts }) => contacts)
const idle = async (listId: string) => {
  for (const job of await api.call('readJobs', { params: { listId } })) await untilEnded(api, listId, job.id)
}

function workbook(): Uint8Array {
  const sheet = utils.aoa_to_sheet([
    ['Fair 2026', null, null, null],
    [],
    ['Name', 'Phone', 'Mail', 'Stand'],
    ['Ann Hill', 447911204481, 'ann@rote.example', 'Hall 4'],
    ['Ben Cole', '07911 204482', 'ben@linde.example', 'Hall Zwölf'],
    ['Total', 2, null, null],
  ])
  sheet['!merges'] = [utils.decode_range('A1:D1')]
  const book = utils.book_new()
  utils.book_append_sheet(book, sheet, 'Scans')
  return new Uint8Array(write(book, { type: 'array', bookType: 'xlsx' }) as ArrayBuffer)
}

describe('files that are no plain text', () => {
  it('a workbook: rows keep the numbers they have in the sheet, sums are held', async () => {
    const listId = await newList(api)
    const batch = await bringIn(api, listId, { name: 'fair.xlsx', bytes: workbook() }, { defaultCountry: 'GB' })
    expect(batch).toMatchObject({ state: 'ready', format: 'xlsx', sheet: 'Scans', rows: 3, held: 1, headingsRow: 3 })
    const rows = await server.sql<{ row: number; text: string }>(
      'select row, text from rows where batch_id = $1 order by row',
      [batch.id],
    )
    expect(rows).toEqual([
      { row: 4, text: 'Ann Hill,447911204481,ann@rote.example,Hall 4' },
      { row: 5, text: 'Ben Cole,07911 204482,ben@linde.example,Hall Zwölf' },
    ])
    expect(await api.call('readHeld', { params: { batchId: batch.id } })).toMatchObject([
      { row: 6, reason: 'totals-row' },
    ])
    expect(await server.sql('select 1 from batch_pieces where batch_id = $1', [batch.id])).toEqual([])
  })

  it('UTF-16 text, and NDJSON whose later lines bring columns of their own', async () => {
    const listId = await newList(api)
    const text = '\ufeffName\tPhone\r\nZoë Ä\t07911 204483\r\n'
    const bytes = Uint8Array.from([...text].flatMap((char) => [char.charCodeAt(0) & 255, char.charCodeAt(0) >> 8]))
    const wide = await bringIn(api, listId, { name: 'wide.txt', bytes }, { defaultCountry: 'GB' })
    expect(wide).toMatchObject({ encoding: 'utf-16le', rows: 1, held: 0 })
    const lines = [
      ...Array.from({ length: 2100 }, (_, i) => ({ name: `P ${i}`, phone: `07911 3${String(i).padStart(5, '0')}` })),
      { name: 'Late', phone: '07911 204484', colour: 'beet' },
    ]
    const json = lines.map((line) => JSON.stringify(line)).join('\n')
    const batch = await bringIn(api, listId, { name: 'people.ndjson', bytes: utf8(json) }, { defaultCountry: 'GB' })
    expect(batch).toMatchObject({ rows: 2101, held: 0, headings: ['name', 'phone', 'colour'] })
    await idle(listId)
    expect((await contactsOf(listId, 'beet')).map(({ fullName }) => fullName)).toEqual(['Late'])
  })

  it('a workbook that turns out damaged fails with its reason, and nothing of it is shown', async () => {
    const listId = await newList(api)
    const bytes = workbook()
    // The middle of the archive is overwritten: its directory is whole, its sheet is not.
    bytes.fill(7, 200, 900)
    const made = await api.call('makeBatch', {
      params: { listId },
      body: newBatch({
        fileName: 'x.xlsx',
        bytes: bytes.length,
        format: 'xlsx',
        sheet: 'Scans',
        firstRow: 4,
        headingsRow: 3,
        headings: ['Name', 'Phone'],
        defaultCountry: null,
      }),
    })
    const response = await api.raw('sendContent', {
      params: { batchId: made.id },
      body: bytes as Uint8Array<ArrayBuffer>,
    })
    const { jobId } = (await response.json()) as { jobId: string }
    expect(await untilEnded(api, listId, jobId)).toMatchObject({ state: 'failed', problem: 'damaged-file' })
    expect(await batchOf(listId, made.id)).toMatchObject({ state: 'failed', problem: 'damaged-file', rows: 0 })
    await api.call('throwAway', { params: { batchId: made.id } })
    expect(await api.call('readBatches', { params: { listId } })).toEqual([])
  })
})

describe('extra columns', () => {
  it('are found by the search, before and after it is indexed, and stand in files for people', async () => {
    const listId = await newList(api)
    await bringText(
      api,
      listId,
      'Name,Phone,Colour,Formula\nAnn,07911 204481,moss green,=1+1\nBen,07911 204482,straw,x\n',
      { defaultCountry: 'GB' },
    )
    expect((await contactsOf(listId, 'moss')).map(({ fullName }) => fullName)).toEqual(['Ann'])
    await idle(listId)
    expect((await contactsOf(listId, 'moss')).map(({ fullName }) => fullName)).toEqual(['Ann'])
    expect((await contactsOf(listId, 'beet')).length).toBe(0)
    const edition = await api.call('makeEdition', {
      params: { listId },
      body: { destination: 'people', form: 'people', filter: '' },
    })
    await untilEnded(api, listId, edition.jobId)
    const file = await (await api.raw('downloadEdition', { params: { editionId: edition.id } })).text()
    const [headings, first] = file.split('\r\n')
    expect(headings).toMatch(/,Lane,Not for,Colour,Formula$/)
    expect(first).toMatch(/,moss green,'=1\+1$/)
  })
})

describe('held rows', () => {
  const text =
    'name,phone,mail\nAnn,07911 204481,a@b.example\nben@b.example,07911 204482\nCy,cy at home\nDi,07911,204484,x\n'
  it('are mended in place and let in; the row as it stood stays beside', async () => {
    const listId = await newList(api)
    const batch = await bringText(api, listId, text, { defaultCountry: 'GB' })
    expect(batch).toMatchObject({ rows: 4, held: 3 })
    const cells = ['Di', '07911 204484', 'd@b.example']
    expect(await api.call('mendHeld', { params: { batchId: batch.id, row: 5 }, body: { cells } })).toMatchObject({
      rows: 4,
      held: 2,
      withMobile: 2,
    })
    expect((await contactsOf(listId)).map(({ fullName, number }) => [fullName, number])).toEqual([
      ['Ann', '+447911204481'],
      ['Di', '+447911204484'],
    ])
    const [held] = await server.sql<{ bytes: Buffer; let_in_at: Date }>(
      'select bytes, let_in_at from held_rows where row = 5 and batch_id = $1',
      [batch.id],
    )
    expect(held?.bytes.toString()).toBe('Di,07911,204484,x')
    await expect(
      api.call('mendHeld', { params: { batchId: batch.id, row: 5 }, body: { cells } }),
    ).rejects.toMatchObject({ status: 404 })
    await expect(
      api.call('mendHeld', { params: { batchId: batch.id, row: 3 }, body: { cells: ['x'] } }),
    ).rejects.toMatchObject({ code: 'cells-off' })
    const { terrace } = await listOf(listId)
    expect(terrace[0]?.count).toBe(4)
    expect(terrace[1]?.changes[0]).toEqual({ riser: 'held', by: -2 })
  })

  it('are let in as they stand, those of one reason at once; duplicates among them are joined', async () => {
    const listId = await newList(api)
    const batch = await bringText(api, listId, `${text}ben@b.example,07911 204482\n`, { defaultCountry: 'GB' })
    expect(await api.call('letInHeld', { params: { batchId: batch.id }, body: { reason: 'too-few-cells' } })).toEqual({
      letIn: 3,
      stillHeld: 1,
    })
    expect((await listOf(listId)).contacts).toBe(3)
    await expect(
      api.call('letInHeld', { params: { batchId: batch.id }, body: { reason: 'too-many-cells' } }),
    ).rejects.toMatchObject({ code: 'must-be-mended' })
  })
})

describe('two people in one cell', () => {
  it('wait in the queue, and are parted: one is the contact, the other stays beside and is found', async () => {
    const listId = await newList(api)
    await bringText(api, listId, 'name,phone\nAnn and Ben Hill,07911 204481\nCy Dale,07911 204482\n', {
      defaultCountry: 'GB',
    })
    const { items } = await api.call('readHand', { params: { listId }, query: {} })
    expect(items).toMatchObject([{ problem: 'two-people', fixes: [{ text: 'Ann Hill' }, { text: 'Ben Hill' }] }])
    const contactId = items[0]?.contactId ?? 0
    await api.call('makeEdits', {
      params: { listId },
      body: {
        edits: [
          { contactId, column: 'full-name', value: 'Ann Hill' },
          { contactId, column: 'Second person', value: 'Ben Hill' },
        ],
      },
    })
    expect((await api.call('readHand', { params: { listId }, query: {} })).total).toBe(0)
    await idle(listId)
    expect((await contactsOf(listId, 'ben')).map(({ fullName }) => fullName)).toEqual(['Ann Hill'])
  })
})

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
    const before = await contactsOf(listId)
    await read(batch.id, listId, { defaultCountry: 'DE', mapping: ['full-name', 'number', 'number'] })
    expect(await numbersOf(listId)).toEqual(['+491712345678', '+493098765432', '+49891234567'])
    expect((await listOf(listId)).contacts).toBe(2)
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
    expect(await contactsOf(listId)).toEqual(before)
    expect(await numbersOf(listId)).toEqual([])
  })

  it('keeps what people edited, and refuses a mapping of another width', async () => {
    const listId = await newList(api)
    const batch = await bringText(api, listId, text, { defaultCountry: null, mapping: ['full-name', 'number', null] })
    const [ann] = await contactsOf(listId)
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
    contacts: (await contactsOf(listId)).map(({ id, joinedInto, ...rest }) => ({ id, joinedInto, ...rest })),
    numbers: await server.sql(
      'select contact_id, position, e164, origin from contact_numbers where list_id = $1 order by 1, 2',
      [listId],
    ),
    terrace: (await listOf(listId)).terrace,
  })
  const turn = async (listId: string, name: 'takeBatchBack' | 'bringBatchBack', batchId: string) => {
    await api.call(name, { params: { batchId } })
    await idle(listId)
  }

  it.each(['the first', 'the second'])(
    '%s goes with its contacts and joins, and comes back with them',
    async (which) => {
      const listId = await newList(api)
      const batches = [
        await bringText(api, listId, first, { defaultCountry: 'GB' }),
        await bringText(api, listId, second, { defaultCountry: 'GB' }),
      ]
      await idle(listId)
      const batch = batches[which === 'the first' ? 0 : 1] as Batch
      const before = await snapshot(listId)
      expect(before.contacts).toHaveLength(4)
      await turn(listId, 'takeBatchBack', batch.id)
      const without = await contactsOf(listId)
      expect(without.map(({ fullName }) => fullName)).toEqual(
        which === 'the first' ? ['Ann Hill', 'Di Eden', 'Ann Hill'] : ['Ann Hill', 'Ben Cole', 'Cy Dale'],
      )
      expect(without.some(({ isShared }) => isShared)).toBe(false)
      const terrace = (await listOf(listId)).terrace
      expect(terrace[0]?.count).toBe(3)
      await turn(listId, 'bringBatchBack', batch.id)
      expect(await snapshot(listId)).toEqual(before)
      await expect(api.call('bringBatchBack', { params: { batchId: batch.id } })).rejects.toMatchObject({
        code: 'batch-not-there',
      })
    },
  )
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
    expect((await batchOf(listId, again.id)).sameFile).toMatchObject([{ batchId: batch.id }])
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
    expect(await batchOf(listId, waiting?.id ?? '')).toMatchObject({ state: 'queued', rows: 0 })
    const jobId = waiting?.jobId ?? ''
    await api.call('resumeJob', { params: { jobId } })
    expect(await untilEnded(api, listId, jobId)).toMatchObject({ state: 'done', result: { rows: 1 } })
    await expect(api.call('pauseJob', { params: { jobId } })).rejects.toMatchObject({ code: 'not-under-way' })
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
  })
})
