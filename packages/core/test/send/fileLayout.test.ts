import { describe, expect, it } from '@jest/globals'
import fc from 'fast-check'
import {
  datedName,
  FILE_COLUMNS,
  FILE_KINDS,
  type FileColumn,
  type FileLayout,
  type FilePerson,
  fileHead,
  filePart,
  fileRow,
  HEADINGS_SHEET,
  headingsIn,
  sheetName,
  USUAL_LAYOUT,
} from '../../src/send'
import { splitCells } from '../../src/table'

const maren: FilePerson = {
  fullName: 'Maren Oldershaw',
  givenName: 'Maren',
  familyName: 'Oldershaw',
  company: 'Causeway; Inn, Ltd',
  title: 'Owner',
  numbers: ['+447911204481', '+441665555018'],
  emails: ['maren@causeway.example'],
  street: '1 Quay',
  postalCode: 'NE69 7BP',
  city: 'Seahouses',
  region: '',
  country: 'GB',
  site: 'causeway.example',
  profile: '',
  birthDate: '1980-03-07',
  gender: 'female',
  industry: 'Hospitality',
  companyPage: '',
  value: '120.50',
  deviceId: '',
  lane: 'text',
  notFor: ['calls'],
  lineType: 'mobile',
  lineStatus: 'in-service',
  asItStood: '07911 204481',
  verdict: 'clean',
  foundNumber: '+447911204481',
  foundEmail: '',
  emailState: 'deliverable',
  sameAsRow: '12',
}
const layout = (more: Partial<FileLayout> = {}): FileLayout => ({ ...USUAL_LAYOUT, ...more })
const NONE = new Map<string, string>()
const columns = (...names: FileColumn[]) => names.map((column) => ({ column, heading: FILE_COLUMNS[column] }))

describe('a file for people', () => {
  it('has the usual columns where nobody says otherwise, and those that became no field', () => {
    const extras = new Map([['Seats', '40']])
    expect(fileHead(USUAL_LAYOUT, headingsIn(USUAL_LAYOUT, ['Seats']))).toMatch(
      /^Name,Company,.*,Lane,Not for,Seats\r\n$/,
    )
    expect(filePart(USUAL_LAYOUT, maren, extras)).toBe(
      'Maren Oldershaw,"Causeway; Inn, Ltd",Owner,+447911204481,+441665555018,,maren@causeway.example,,,Seahouses,GB,text,calls,40\r\n',
    )
    expect(filePart(layout({ hasExtras: false }), maren, extras)).not.toContain('40')
  })

  it('has chosen columns in their order, under other headings, with another delimiter', () => {
    const own = layout({
      delimiter: ';',
      hasBom: true,
      columns: [
        { column: 'number-1', heading: 'Anruf' },
        { column: 'name', heading: 'Wer' },
      ],
    })
    expect(fileHead(own, headingsIn(own, []))).toBe('\uFEFFAnruf;Wer\r\n')
    expect(filePart(own, maren, NONE)).toBe('+447911204481;Maren Oldershaw\r\n')
  })

  it.each([
    ['e164', '+447911204481'],
    ['international', '+44 7911 204481'],
    ['national', '07911 204481'],
    ['digits', '447911204481'],
  ] as const)('writes numbers as %s', (numberForm, text) =>
    expect(filePart(layout({ numberForm, columns: columns('number-1', 'number-3') }), maren, NONE)).toBe(
      `${text},\r\n`,
    ),
  )

  it('is a JSON line for each, by heading', () => {
    const part = filePart(
      layout({ kind: 'ndjson', columns: columns('name', 'email-1') }),
      maren,
      new Map([['Seats', '40']]),
    )
    expect(part.endsWith('\n')).toBe(true)
    expect(JSON.parse(part)).toEqual({ Name: 'Maren Oldershaw', 'E-mail 1': 'maren@causeway.example', Seats: '40' })
    expect(fileHead(layout({ kind: 'ndjson' }), [])).toBe('')
  })

  it('is a line of its lane’s sheet on the way into a workbook', () => {
    const chosen = layout({ kind: 'xlsx', sheets: 'by-lane', columns: columns('name', 'postal-code', 'found-number') })
    expect(JSON.parse(fileHead(chosen, headingsIn(chosen, [])))).toEqual([
      HEADINGS_SHEET,
      'Name',
      'Postal code',
      'Found number',
    ])
    const own = { ...chosen, hasExtras: false }
    expect(JSON.parse(filePart(own, maren, NONE))).toEqual(['text', 'Maren Oldershaw', 'NE69 7BP', '+447911204481'])
    expect(JSON.parse(filePart({ ...own, sheets: 'one' }, maren, NONE))[0]).toBe('Contacts')
  })

  it('puts the cells of any row under its headings', () => {
    expect(fileRow(layout({ delimiter: ';' }), ['a', 'b'], ['1;2', '=3'])).toBe(`"1;2";'=3\r\n`)
    expect(JSON.parse(fileRow(layout({ kind: 'ndjson' }), ['a', 'b'], ['1']))).toEqual({ a: '1', b: '' })
  })

  it('is a vCard 4 for each, escaped', () =>
    expect(filePart(layout({ kind: 'vcard' }), maren, NONE).split('\r\n')).toEqual([
      'BEGIN:VCARD',
      'VERSION:4.0',
      'FN:Maren Oldershaw',
      'N:Oldershaw;Maren;;;',
      'ORG:Causeway\\; Inn\\, Ltd',
      'TITLE:Owner',
      'TEL;VALUE=uri:tel:+447911204481',
      'TEL;VALUE=uri:tel:+441665555018',
      'EMAIL:maren@causeway.example',
      'ADR:;;1 Quay;Seahouses;;NE69 7BP;GB',
      'URL:https://causeway.example',
      'BDAY:19800307',
      'END:VCARD',
      '',
    ]))

  const odd = fc.oneof(
    fc.constantFrom('=1+1', '+cmd|x', '-1', '@sum(a1)', '\t=1', 'a"b', 'a,b;c\td|e', 'line\r\nbreak', 'Müller 🌿', ''),
    fc.string({ unit: 'grapheme' }),
  )
  const person = fc
    .record({ fullName: odd, company: odd, title: odd, street: odd, city: odd, region: odd })
    .map((more): FilePerson => ({ ...maren, ...more }))
  const delimiter = fc.constantFrom(',', ';', '\t', '|' as const)

  it('of cells holds no formula, and reads back cell for cell', () =>
    fc.assert(
      fc.property(person, delimiter, (one, by) => {
        const chosen = columns('name', 'company', 'title', 'street', 'city', 'region')
        const text = filePart(layout({ delimiter: by, columns: chosen }), one, NONE).slice(0, -2)
        const cells = splitCells(text, by)
        expect(cells).toHaveLength(6)
        expect(cells.filter((cell) => /^[=+\-@\t\r]/.test(cell) && !/^\+\d+$/.test(cell))).toEqual([])
        const values = [one.fullName, one.company, one.title, one.street, one.city, one.region]
        for (const [at, cell] of cells.entries()) expect([values[at], `'${values[at]}`]).toContain(cell)
      }),
    ))

  it('of cards has lines of 75 octets at most, and none that a value could have begun', () =>
    fc.assert(
      fc.property(person, (one) => {
        const lines = filePart(layout({ kind: 'vcard' }), one, NONE).split('\r\n')
        for (const line of lines) expect(new TextEncoder().encode(line).length).toBeLessThanOrEqual(75)
        expect(lines.filter((line) => line === 'BEGIN:VCARD')).toHaveLength(1)
        expect(lines.filter((line) => line === 'END:VCARD')).toHaveLength(1)
      }),
    ))

  it.each(FILE_KINDS)('of kind %s has a part for whoever has nothing but a number', (kind) => {
    const bare = Object.fromEntries(Object.entries(maren).map(([key, value]) => [key, Array.isArray(value) ? [] : '']))
    const nobody = { ...(bare as unknown as FilePerson), numbers: ['+447911204481'] }
    expect(filePart(layout({ kind }), nobody, NONE)).toContain('447911204481')
  })
})

describe('the name of a sheet', () => {
  it.each([
    ['Text', 'Text'],
    ['a/b: [c]?', 'a b c'],
    ['', 'Contacts'],
    ["it's a name that is far too long for a sheet", 'it s a name that is far too lon'],
  ])('of %j is %j', (name, plain) => expect(sheetName(name)).toBe(plain))
})

describe('a dated name', () => {
  it('has the day, the month or the year where it asks for them', () => {
    const date = new Date('2026-11-28T23:30:00Z')
    expect(datedName('Terraces {month} ({date}, {year}) {week}', date)).toBe(
      'Terraces 2026-11 (2026-11-28, 2026) {week}',
    )
    expect(datedName('Terraces', date)).toBe('Terraces')
  })
})
