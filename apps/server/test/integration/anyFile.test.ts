import { utils, write } from '@e965/xlsx'
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import type { ApiClient } from '@upper-field/contract'
import { bringIn, untilEnded } from '../../../../scripts/bringIn'
import { bringText, newBatch, newList, startTestServer, type TestServer } from './harness'
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
    await lists.idle(listId)
    expect((await lists.contactsOf(listId, 'beet')).map(({ fullName }) => fullName)).toEqual(['Late'])
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
    expect(await lists.batchOf(listId, made.id)).toMatchObject({ state: 'failed', problem: 'damaged-file', rows: 0 })
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
    expect((await lists.contactsOf(listId, 'moss')).map(({ fullName }) => fullName)).toEqual(['Ann'])
    await lists.idle(listId)
    expect((await lists.contactsOf(listId, 'moss')).map(({ fullName }) => fullName)).toEqual(['Ann'])
    expect((await lists.contactsOf(listId, 'beet')).length).toBe(0)
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
    expect((await lists.contactsOf(listId)).map(({ fullName, number }) => [fullName, number])).toEqual([
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
    const { terrace } = await lists.listOf(listId)
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
    expect((await lists.listOf(listId)).contacts).toBe(3)
    await expect(
      api.call('letInHeld', { params: { batchId: batch.id }, body: { reason: 'too-many-cells' } }),
    ).rejects.toMatchObject({ code: 'must-be-mended' })
  })

  it('are all let in, however many of them are held', async () => {
    const listId = await newList(api)
    const short = Array.from({ length: 2600 }, (_, i) => `p${i}@larch.example\n`).join('')
    const batch = await bringText(api, listId, `mail,name,phone\n${short}ann@larch.example,Ann,07911 204481\n`)
    expect(batch).toMatchObject({ rows: 2601, held: 2600 })
    expect(await api.call('readHeld', { params: { batchId: batch.id } })).toHaveLength(500)
    const letIn = await api.call('letInHeld', { params: { batchId: batch.id }, body: { reason: 'too-few-cells' } })
    expect(letIn).toEqual({ letIn: 2600, stillHeld: 0 })
    expect((await lists.listOf(listId)).contacts).toBe(2601)
  })

  it('are let in whole, however long they are', async () => {
    const listId = await newList(api)
    const note = `${'word '.repeat(700)}end`
    const file = `name,note,phone,mail,city,title\nAnn Hill,short,07911 204481,ann@b.example,Kelso,Head\nDi Dale,${note}\n`
    const batch = await bringText(api, listId, file, { defaultCountry: 'GB' })
    const [shown] = await api.call('readHeld', { params: { batchId: batch.id } })
    expect(shown).toMatchObject({ reason: 'too-few-cells', isCut: true })
    await api.call('letInHeld', { params: { batchId: batch.id }, body: { reason: 'too-few-cells' } })
    const di = (await lists.contactsOf(listId)).find(({ fullName }) => fullName === 'Di Dale')
    const { row } = await api.call('readStory', { params: { contactId: di?.id ?? 0 } })
    expect(row.find(({ heading }) => heading === 'note')?.cell).toBe(note)
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
    await lists.idle(listId)
    expect((await lists.contactsOf(listId, 'ben')).map(({ fullName }) => fullName)).toEqual(['Ann Hill'])
  })
})
