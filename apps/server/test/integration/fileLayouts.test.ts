import { createHash } from 'node:crypto'
import { read, utils, type WorkSheet } from '@e965/xlsx'
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import type { FileLayout } from '@upper-field/contract'
import { FILE_KINDS, type FileKind, USUAL_LAYOUT } from '@upper-field/core/send'
import { bringIn, untilEnded } from '../../../../scripts/bringIn'
import { bringText, newList, startTestServer, type TestServer } from './harness'

let server: TestServer
let listId = ''
const ROWS = [
  'name,company,phone,phone 2,mail,city,country,seats',
  'Maren Oldershaw,"Causeway; Inn, Ltd",07911 204481,01665 555018,maren@causeway.example,Kelso,GB,40',
  '=HYPERLINK(1),+cmd,07911 204482,,jonah@tidewater.example,"a""b",GB,',
  'Müller 🌿,Heron,+49 171 5557701,,,Köln,DE,12',
  'Ilse Krug,Heron,,,ilse@heron.example,Köln,DE,',
]

beforeAll(async () => {
  server = await startTestServer()
  listId = await newList(server.api, 'Terraces')
  await bringText(server.api, listId, ROWS.join('\n'), {
    headings: ['name', 'company', 'phone', 'phone 2', 'mail', 'city', 'country', 'seats'],
    mapping: ['full-name', 'company', 'number', 'number', 'email', 'city', 'country', null],
  })
})
afterAll(() => server.stop())

const usual = (more: Partial<FileLayout> = {}): FileLayout => ({
  ...USUAL_LAYOUT,
  columns: USUAL_LAYOUT.columns.map((one) => ({ ...one })),
  ...more,
})
async function written(layout: FileLayout | null, of = listId) {
  const body = { destination: 'people', form: 'people' as const, filter: '', layout }
  const made = await server.api.call('makeEdition', { params: { listId: of }, body })
  expect(await untilEnded(server.api, of, made.jobId)).toMatchObject({ state: 'done' })
  const file = await server.api.raw('downloadEdition', { params: { editionId: made.id } })
  const bytes = new Uint8Array(await file.arrayBuffer())
  const text = new TextDecoder('utf-8', { ignoreBOM: true }).decode(bytes)
  return { made, type: file.headers.get('content-type') ?? '', text, bytes }
}

describe('a file for people', () => {
  it('is a table in the usual layout, with the columns that became no field', async () => {
    const { text, made } = await written(null)
    expect(made.fileName).toMatch(/^terraces-contacts-\d{4}-\d\d-\d\d\.csv$/)
    expect(text.split('\r\n')[0]).toMatch(/^Name,Company,.*,Not for,seats,/)
  })

  it('has every column that became no field, however many there are', async () => {
    const wide = await newList(server.api, 'Wide')
    const headings = ['mail', ...Array.from({ length: 700 }, (_, n) => `c${n}`)]
    const cells = ['ann@larch.example', ...Array.from({ length: 700 }, (_, n) => `v${n}`)]
    await bringText(server.api, wide, `${headings.join(',')}\n${cells.join(',')}\n`)
    for (const kind of ['csv', 'xlsx'] as const) {
      const { bytes } = await written(usual({ kind }), wide)
      const [sheet] = Object.values(read(bytes).Sheets)
      const [head, first] = utils.sheet_to_json<string[]>(sheet as WorkSheet, { header: 1 })
      expect(head?.slice(-700)).toEqual(headings.slice(1))
      expect(first?.slice(-700)).toEqual(cells.slice(1))
    }
  })

  it('is in a layout that is kept by a name', async () => {
    const layout = usual({
      delimiter: ';',
      hasBom: true,
      hasExtras: false,
      numberForm: 'international',
      columns: [
        { column: 'number-1', heading: 'Anruf' },
        { column: 'name', heading: 'Wer' },
      ],
    })
    await server.api.call('keepFileLayout', { body: { name: 'For the phones', layout } })
    const [kept] = await server.api.call('readFileLayouts', {})
    expect(kept).toEqual({ name: 'For the phones', layout })
    const { text } = await written(kept?.layout ?? null)
    expect(text.split('\r\n').slice(0, 2)).toEqual(['\uFEFFAnruf;Wer', '+44 7911 204481;Maren Oldershaw'])
  })

  it.each<[FileKind, string, RegExp]>([
    ['csv', '.csv', /^text\/csv/],
    ['xlsx', '.xlsx', /^application\/vnd\.openxmlformats/],
    ['ndjson', '.ndjson', /^application\/x-ndjson/],
    ['vcard', '.vcf', /^text\/vcard/],
  ])('of kind %s is called and served so', async (kind, ending, type) => {
    const { made, type: served } = await written(usual({ kind }))
    expect(made.fileName.endsWith(ending)).toBe(true)
    expect(served).toMatch(type)
  })

  it.each(FILE_KINDS)('of kind %s gives the same contacts when it is brought in again', async (kind) => {
    const { bytes, made } = await written(usual({ kind }))
    const again = await newList(server.api, `Again from ${kind}`)
    await bringIn(server.api, again, { name: made.fileName, bytes })
    const contactsOf = async (list: string) =>
      (await server.api.call('readContacts', { params: { listId: list } })).contacts.map(
        ({ fullName, company, number, email, country }) => [
          fullName.replace(/^'/, ''),
          company.replace(/^'/, ''),
          number,
          email,
          kind === 'vcard' ? '' : country,
        ],
      )
    expect(await contactsOf(again)).toEqual(await contactsOf(listId))
  })

  it('is refused in a layout without columns', async () => {
    await expect(written(usual({ columns: [] }))).rejects.toMatchObject({ status: 422 })
  })
})

describe('a workbook', () => {
  it('has a sheet for each lane, every cell of it text, and nothing that computes', async () => {
    const { bytes } = await written(usual({ kind: 'xlsx', sheets: 'by-lane' }))
    const book = read(bytes, { type: 'array', cellFormula: true })
    expect(book.SheetNames.length).toBeGreaterThan(1)
    for (const name of book.SheetNames) {
      const cells = Object.entries(book.Sheets[name] ?? {}).filter(([at]) => !at.startsWith('!'))
      expect(cells.length).toBeGreaterThan(5)
      expect(cells.filter(([, cell]) => cell.t !== 's' || cell.f !== undefined)).toEqual([])
    }
  })
})

describe('a workbook that was bound when its server ended', () => {
  it('is not read as lines again: the job ends with the same file', async () => {
    const { made, bytes } = await written(usual({ kind: 'xlsx' }))
    await server.sql("update jobs set state = 'failed' where id = $1", [made.jobId])
    await server.api.call('resumeJob', { params: { jobId: made.jobId } })
    expect(await untilEnded(server.api, listId, made.jobId)).toMatchObject({ state: 'done' })
    const file = await server.api.raw('downloadEdition', { params: { editionId: made.id } })
    expect(Buffer.from(await file.arrayBuffer()).equals(Buffer.from(bytes))).toBe(true)
  })
})

describe('the file as it came', () => {
  const beside = (more: Partial<FileLayout> = {}): FileLayout => ({
    ...usual(more),
    columns: [
      { column: 'verdict', heading: 'Verdict' },
      { column: 'number-1', heading: 'Number' },
      { column: 'same-as-row', heading: 'Same as row' },
    ],
  })
  const asItCame = async (list: string, batchId: string, layout: FileLayout) => {
    const body = { destination: 'people', form: 'people' as const, filter: '', layout, batchId }
    const made = await server.api.call('makeEdition', { params: { listId: list }, body })
    expect(await untilEnded(server.api, list, made.jobId)).toMatchObject({ state: 'done' })
    return (await server.api.raw('downloadEdition', { params: { editionId: made.id } })).text()
  }

  it('has every row in its order with its own cells untouched, and what is known beside them', async () => {
    const list = await newList(server.api, 'As it came')
    const rows = [
      'name,phone,note',
      'Maren Oldershaw,07911 204481,first',
      'Nobody,,',
      '"Old, Jonah",not a number,b',
      'Maren Oldershaw,+44 7911 204481,again',
    ]
    const batch = await bringText(server.api, list, rows.join('\n'), { defaultCountry: 'GB' })
    const lines = (await asItCame(list, batch.id, beside())).split('\r\n').filter(Boolean)
    expect(lines[0]).toBe('name,phone,note,Verdict,Number,Same as row')
    expect(lines.slice(1).map((line) => line.replace(/,[^,]*,[^,]*,[^,]*$/, ''))).toEqual(rows.slice(1))
    expect(lines[1]).toBe('Maren Oldershaw,07911 204481,first,clean,+447911204481,')
    expect(lines[2]).toBe('Nobody,,,empty,,')
    expect(lines[4]).toMatch(/,again,clean,\+447911204481,\d+$/)
  })

  it('takes no filter, no cards, and no batch of another list', async () => {
    const [batch] = await server.api.call('readBatches', { params: { listId } })
    const body = { destination: 'people', form: 'people' as const, filter: '', batchId: batch?.id ?? '' }
    const make = (more: object, list = listId) =>
      server.api.call('makeEdition', { params: { listId: list }, body: { ...body, ...more } })
    await expect(make({ filter: 'country:GB' })).rejects.toMatchObject({ code: 'filter-off' })
    await expect(make({ layout: beside({ kind: 'vcard' }) })).rejects.toMatchObject({ code: 'form-off' })
    await expect(make({}, await newList(server.api, 'Another'))).rejects.toMatchObject({ status: 404 })
  })
})

describe('beside a file', () => {
  it('stands what it holds, where that comes from, and its digest', async () => {
    const { made, bytes } = await written(usual())
    const answer = await server.api.raw('describeEdition', { params: { editionId: made.id } })
    const told = (await answer.json()) as {
      sources: { title: string }[]
      resources: { path: string; bytes: number; hash: string; schema: { fields: { name: string }[] } }[]
    }
    const [resource] = told.resources
    expect(resource).toMatchObject({
      path: made.fileName,
      bytes: bytes.length,
      hash: `sha256:${createHash('sha256').update(bytes).digest('hex')}`,
    })
    expect(resource?.schema.fields.map(({ name }) => name)).toEqual(
      new TextDecoder().decode(bytes).split('\r\n')[0]?.split(','),
    )
    expect(told.sources).toHaveLength(1)
  })
})
