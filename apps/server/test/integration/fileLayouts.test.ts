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
]

beforeAll(async () => {
  server = await startTestServer()
  listId = await newList(server.api, 'Terraces')
  await bringText(server.api, listId, ROWS.join('\n'), {
    headings: ['name', 'company', 'phone', 'phone 2', 'mail', 'city', 'country', 'seats'],
    mapping: ['full-name', 'company', 'number', 'number', 'email', 'city', 'country', null],
  })
}, 60_000)
afterAll(() => server.stop())

const usual = (more: Partial<FileLayout> = {}): FileLayout => ({
  ...USUAL_LAYOUT,
  columns: USUAL_LAYOUT.columns.map((one) => ({ ...one })),
  ...more,
})
async function written(layout: FileLayout | null) {
  const body = { destination: 'people', form: 'people' as const, filter: '', layout }
  const made = await server.api.call('makeEdition', { params: { listId }, body })
  expect(await untilEnded(server.api, listId, made.jobId)).toMatchObject({ state: 'done' })
  const file = await server.api.raw('downloadEdition', { params: { editionId: made.id } })
  const text = new TextDecoder('utf-8', { ignoreBOM: true }).decode(await file.arrayBuffer())
  return { made, type: file.headers.get('content-type') ?? '', text }
}

describe('a file for people', () => {
  it('is a table in the usual layout, with the columns that became no field', async () => {
    const { text, made } = await written(null)
    expect(made.fileName).toMatch(/^terraces-contacts-\d{4}-\d\d-\d\d\.csv$/)
    expect(text.split('\r\n')[0]).toMatch(/^Name,Company,.*,Not for,seats,/)
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
    ['ndjson', '.ndjson', /^application\/x-ndjson/],
    ['vcard', '.vcf', /^text\/vcard/],
  ])('of kind %s is called and served so', async (kind, ending, type) => {
    const { made, type: served } = await written(usual({ kind }))
    expect(made.fileName.endsWith(ending)).toBe(true)
    expect(served).toMatch(type)
  })

  it.each(FILE_KINDS)('of kind %s gives the same contacts when it is brought in again', async (kind) => {
    const { text, made } = await written(usual({ kind }))
    const again = await newList(server.api, `Again from ${kind}`)
    await bringIn(server.api, again, { name: made.fileName, bytes: new TextEncoder().encode(text) })
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
