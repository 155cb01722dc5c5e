import { describe, expect, it } from '@jest/globals'
import { FILE_PROBLEM_TEXT } from '@upper-field/core/table'
import { type FileWishes, openFile, readFileRows, sourceOfBytes } from '../src'
import { book, bytes, latin1, lockedWorkbook, rawWorkbook, single, utf8, utf16, zip } from './makers'

type Made = Uint8Array | Promise<Uint8Array>

/** Everything a file says: how it was opened, its rows without the columns left out, and what was held. */
async function take(made: Made, name = 'list.csv', wishes: FileWishes = {}) {
  const source = sourceOfBytes(await made)
  const opened = await openFile(source, name, wishes)
  if (opened.status === 'refused') throw new Error(`refused: ${opened.problem}`)
  const kept = opened.table.headings.flatMap((heading, i) => (heading === '' ? [] : [i]))
  const rows: string[][] = []
  const held: string[] = []
  for await (const { row, judged } of readFileRows(source, opened, wishes)) {
    if (judged.status === 'read') rows.push(kept.map((i) => judged.cells[i] ?? ''))
    if (judged.status === 'held') held.push(`${row} ${judged.reason}`)
  }
  return {
    format: opened.format,
    encoding: opened.encoding?.encoding,
    delimiter: opened.dialect?.delimiter,
    headings: kept.map((i) => opened.table.headings[i]),
    fields: kept.map((i) => opened.table.suggestions[i]?.field ?? null),
    headingsRow: opened.table.shape.headings?.last ?? null,
    codes: opened.notes.map(({ code }) => code),
    sheets: opened.sheets,
    sheet: opened.sheet,
    rows,
    held,
  }
}

async function refusal(made: Made, name = 'list.csv'): Promise<string> {
  const opened = await openFile(sourceOfBytes(await made), name)
  if (opened.status === 'opened') return 'opened'
  expect(FILE_PROBLEM_TEXT[opened.problem]).toMatch(/^[A-Z].*\.$/)
  return opened.problem
}

const PEOPLE = 'Name;Phone\nJürgen Größer;0171 2345678\nChloé Müller;030 123456\n'
const ROWS = [
  ['Jürgen Größer', '0171 2345678'],
  ['Chloé Müller', '030 123456'],
]

describe('encodings, each told by its bytes', () => {
  it.each<[string, Uint8Array, string]>([
    ['UTF-8', utf8(PEOPLE), 'utf-8'],
    ['UTF-8 with a mark', utf8(`\ufeff${PEOPLE}`), 'utf-8'],
    ['UTF-16 LE with a mark', utf16(PEOPLE), 'utf-16le'],
    ['UTF-16 BE with a mark', utf16(PEOPLE, { bigEndian: true }), 'utf-16be'],
    ['UTF-16 LE without a mark', utf16(PEOPLE, { mark: false }), 'utf-16le'],
    ['UTF-16 BE without a mark', utf16(PEOPLE, { bigEndian: true, mark: false }), 'utf-16be'],
    ['Windows-1252', single('windows-1252', PEOPLE), 'windows-1252'],
    ['Macintosh', single('macintosh', PEOPLE), 'macintosh'],
  ])('%s', async (_, made, encoding) => {
    expect(await take(made)).toMatchObject({ encoding, rows: ROWS, headings: ['Name', 'Phone'] })
  })

  it.each<[string, string, string]>([
    ['windows-1250', 'Žofie Dvořáková', 'Łukasz Śliwiński'],
    ['windows-1251', 'Анна Кузнецова', 'Пётр Смирнов'],
    ['koi8-r', 'Анна Кузнецова', 'Пётр Смирнов'],
    ['windows-1253', 'Ελένη Παπαδοπούλου', 'Γιώργος Νικολαΐδης'],
    ['windows-1254', 'Ayşe Yıldız', 'Çağlar Şahin'],
  ])('%s', async (encoding, one, two) => {
    const made = single(encoding, `Name,Phone\n${one},+49 171 2345678\n${two},+49 171 2345679\n`)
    expect(await take(made)).toMatchObject({
      encoding,
      rows: [
        [one, '+49 171 2345678'],
        [two, '+49 171 2345679'],
      ],
    })
  })

  it('dashes, quotes and the euro sign of Windows-1252 are kept', async () => {
    const made = single('windows-1252', 'Name,Note,Phone\nAnn,“5 € – o’clock”,020 7946 1234\n')
    expect((await take(made)).rows).toEqual([['Ann', '“5 € – o’clock”', '020 7946 1234']])
  })

  it('another one can be set, and changes the rows at once', async () => {
    const made = single('windows-1252', PEOPLE)
    expect((await take(made, 'list.csv', { encoding: 'macintosh' })).rows[0]?.[0]).toBe('J¸rgen Grˆﬂer')
  })

  it('rows of another encoding inside a UTF-8 file are held', async () => {
    const lines = Array.from({ length: 20 }, (_, i) => `Zoë Ö${i},0171 23456${i}`).join('\n')
    const made = Uint8Array.from([...utf8(`Name,Phone\n${lines}\n`), ...latin1('J\u00fcrgen,0171 1\n')])
    expect(await take(made)).toMatchObject({ encoding: 'utf-8', held: ['22 wrong-encoding'] })
  })
})

describe('delimiters', () => {
  it.each([',', ';', '\t', '|', '~', '^', '#', ':'])('%j', async (delimiter) => {
    const text = [
      ['Name', 'City', 'Mail'],
      ['Ann', 'York', 'a@b.example'],
      ['Ben', 'Bath', 'b@b.example'],
    ]
    const made = utf8(text.map((cells) => cells.join(delimiter)).join('\n'))
    expect(await take(made)).toMatchObject({ delimiter, rows: text.slice(1) })
  })

  it('the one a first line states', async () => {
    expect(await take(utf8('sep=|\nName|Phone\nA, B|1\n'))).toMatchObject({ delimiter: '|', rows: [['A, B', '1']] })
  })

  it('none: one column of addresses', async () => {
    expect(await take(utf8('https://a.example/x\nhttps://b.example/y\nhttps://c.example/z\n'))).toMatchObject({
      fields: ['web'],
      headingsRow: null,
    })
  })

  it('quoted cells with delimiters, quotes and line breaks', async () => {
    const made = utf8('Name,Note,Phone\n"Ash, Ann","say ""hi""\nthere",1\n')
    expect((await take(made)).rows).toEqual([['Ash, Ann', 'say "hi"\nthere', '1']])
  })
})

describe('the table inside the sheet', () => {
  it('below a title, a date and blank rows', async () => {
    const made = utf8(
      'Autumn fair 2026,,\nExported 3 May 2026 10:15,,\n,,\nName,Phone,E-mail\nAnn,020 7946 1234,a@b.example\n',
    )
    expect(await take(made)).toMatchObject({ headingsRow: 4, headings: ['Name', 'Phone', 'E-mail'], held: [] })
  })

  it('under two lines of headings, and above its units', async () => {
    const made = book([
      {
        cells: [
          ['Contact', null, 'Reach', null],
          ['Name', 'Company', 'Phone', 'E-mail'],
          ['text', 'text', '(E.164)', 'text'],
          ['Ann Hill', 'Rote Ltd', '+44 20 7946 1234', 'a@rote.example'],
          ['Ben Cole', 'Linde Ltd', '+44 20 7946 1235', 'b@linde.example'],
        ],
        merged: ['A1:B1', 'C1:D1'],
      },
    ])
    const found = await take(made, 'x.xlsx')
    expect(found.headings).toEqual(['Contact Name', 'Contact Company', 'Reach Phone', 'Reach E-mail'])
    expect(found.fields).toEqual(['full-name', 'company', 'number', 'email'])
    expect(found.rows).toHaveLength(2)
    expect(found.codes).toEqual(expect.arrayContaining(['two-line-headings', 'units-row']))
  })

  it('without headings', async () => {
    const made = utf8('Ann Hill,a@b.example,+44 20 7946 1234\nBen Cole,b@b.example,+44 20 7946 1235\n')
    expect(await take(made)).toMatchObject({
      headingsRow: null,
      headings: ['Column 1', 'Column 2', 'Column 3'],
      fields: ['full-name', 'email', 'number'],
    })
  })

  it('with headings that stand twice over columns, and once more among the rows', async () => {
    const made = utf8('Name,Phone,Phone\nAnn,020 7946 1234,020 7946 1235\nName,Phone,Phone\nBen,020 7946 1236,\n')
    expect(await take(made)).toMatchObject({
      headings: ['Name', 'Phone', 'Phone 2'],
      held: ['3 heading-again'],
      rows: [
        ['Ann', '020 7946 1234', '020 7946 1235'],
        ['Ben', '020 7946 1236', ''],
      ],
    })
  })

  it('with a sum and a remark below', async () => {
    const made = utf8(
      'Name,Phone,Pitches\nAnn,020 7946 1234,40\nBen,020 7946 1235,2\nTotal,,42\n,,\nSource: own count,,\n',
    )
    expect(await take(made)).toMatchObject({ held: ['4 totals-row', '6 footer'] })
  })

  it('a person called Total, or with a remark for a name, is a contact all the same', async () => {
    const made = utf8('Name,Phone,Note\nTotal Energies,020 7946 1234,x\nPage Turner,020 7946 1235,y\n')
    expect((await take(made)).held).toEqual([])
  })

  it('between empty columns', async () => {
    const found = await take(
      book([
        {
          cells: [
            [null, 'Name', null, 'Phone'],
            [null, 'Ann', null, '020 7946 1234'],
          ],
        },
      ]),
      'x.xlsx',
    )
    expect(found).toMatchObject({ headings: ['Name', 'Phone'], rows: [['Ann', '020 7946 1234']] })
    expect(found.codes).toContain('empty-columns')
  })

  it('headings set by the operator, or said to be none', async () => {
    const made = utf8('Name,Phone\nNombre,Teléfono\nAnn,020 7946 1234\n')
    expect(await take(made, 'x.csv', { headings: 2 })).toMatchObject({
      headings: ['Nombre', 'Teléfono'],
      rows: [['Ann', '020 7946 1234']],
    })
    expect((await take(made, 'x.csv', { headings: 'none' })).rows).toHaveLength(3)
  })

  it('a row taken for units or more headings is a contact again where the operator says so', async () => {
    const made = utf8('Name,Phone\n(text),(E.164)\nAnn,020 7946 1234\nBen,020 7946 1235\n')
    expect((await take(made)).rows).toHaveLength(2)
    expect((await take(made, 'x.csv', { headings: 1 })).rows).toHaveLength(3)
  })

  it('a row longer and one shorter than the rest are held', async () => {
    const made = utf8('a name,phone,mail\nAnn,1,a@b.example\nBen,2\nCy,3,c@b.example,extra\nDi,4,d@b.example\n')
    expect(await take(made)).toMatchObject({ held: ['3 too-few-cells', '4 too-many-cells'] })
  })
})

describe('workbooks', () => {
  const cells = [
    ['Name', 'Phone', 'Postcode', 'Added'],
    ['Ann Hill', 447911204481, { t: 'n', v: 1234, z: '00000' }, { t: 'n', v: 46145, z: 'dd/mm/yyyy' }],
    ['Ben Cole', { t: 'n', v: 447911204482, z: '0.00E+00' }, '01067', { t: 'n', v: 46145, z: 'm/d/yy' }],
  ] as const
  const shown = [
    ['Ann Hill', '447911204481', '01234', '03/05/2026'],
    ['Ben Cole', '447911204482', '01067', '2026-05-03'],
  ]
  const rows = cells.map((row) => row.map((cell) => (typeof cell === 'object' ? { ...cell } : cell))) as Parameters<
    typeof book
  >[0][number]['cells']

  it.each(['xlsx', 'biff8'] as const)('%s: numbers and dates as shown, digits as stored', async (type) => {
    const found = await take(book([{ cells: rows }], type), type === 'xlsx' ? 'x.xlsx' : 'x.xls')
    expect(found.rows).toEqual(shown)
    expect(found.codes).toContain('stored-digits')
  })

  it('ods', async () => {
    const found = await take(
      book(
        [
          {
            cells: [
              ['Name', 'Phone'],
              ['Ann', '020 7946 1234'],
            ],
          },
        ],
        'ods',
      ),
      'x.ods',
    )
    expect(found).toMatchObject({ format: 'ods', rows: [['Ann', '020 7946 1234']] })
  })

  it('merged cells count for every cell they cover, or for the first alone', async () => {
    const made = book([
      {
        cells: [
          ['Company', 'Name', 'Phone'],
          ['Linde', 'Ann', '020 7946 1234'],
          [null, 'Ben', '020 7946 1235'],
        ],
        merged: ['A2:A3'],
      },
    ])
    expect((await take(made, 'x.xlsx')).rows[1]).toEqual(['Linde', 'Ben', '020 7946 1235'])
    expect((await take(made, 'x.xlsx', { merged: 'first' })).rows[1]).toEqual(['', 'Ben', '020 7946 1235'])
  })

  it('hidden rows are named, and taken only when asked', async () => {
    const made = book([
      {
        cells: [
          ['Name', 'Phone'],
          ['Ann', '020 7946 1234'],
          ['Ben', '020 7946 1235'],
        ],
        hiddenRows: [3],
      },
    ])
    const found = await take(made, 'x.xlsx')
    expect(found.rows).toHaveLength(1)
    expect(found.codes).toContain('hidden-rows')
    expect((await take(made, 'x.xlsx', { takesHidden: true })).rows).toHaveLength(2)
  })

  it('several sheets: the first table in sight, the others named, each can be taken', async () => {
    const made = book([
      { name: 'Cover', cells: [['Welcome']] },
      {
        name: 'Scans',
        cells: [
          ['Name', 'Phone'],
          ['Ann', '020 7946 1234'],
        ],
      },
      {
        name: 'Old',
        cells: [
          ['Name', 'Phone'],
          ['Ben', '020 7946 1235'],
        ],
        hidden: true,
      },
    ])
    const found = await take(made, 'x.xlsx')
    expect(found).toMatchObject({ sheet: 'Scans', rows: [['Ann', '020 7946 1234']] })
    expect(found.sheets).toEqual([
      { name: 'Cover', hidden: false },
      { name: 'Scans', hidden: false },
      { name: 'Old', hidden: true },
    ])
    expect(found.codes).toEqual(expect.arrayContaining(['other-sheets', 'hidden-sheets']))
    expect((await take(made, 'x.xlsx', { sheet: 'Old' })).rows).toEqual([['Ben', '020 7946 1235']])
  })

  it('formulas without a stored value are blank, and said so; nothing is computed', async () => {
    const made = rawWorkbook(
      '<row r="1"><c r="A1" t="inlineStr"><is><t>Name</t></is></c><c r="B1" t="inlineStr"><is><t>Phone</t></is></c></row>' +
        '<row r="2"><c r="A2" t="inlineStr"><is><t>Ann</t></is></c><c r="B2"><f>A1&amp;B1</f></c></row>' +
        '<row r="3"><c r="A3" t="inlineStr"><is><t>Ben</t></is></c><c r="B3"><f>1+1</f><v>2079461234</v></c></row>',
    )
    const found = await take(made, 'x.xlsx')
    expect(found.rows).toEqual([
      ['Ann', ''],
      ['Ben', '2079461234'],
    ])
    expect(found.codes).toContain('formulas-without-value')
  })

  it('gaps in rows and columns, rich text and escaped characters', async () => {
    const made = rawWorkbook(
      '<row r="2"><c r="B2" t="s"><v>0</v></c><c r="D2" t="s"><v>1</v></c></row>' +
        '<row r="7"><c r="B7" t="s"><v>2</v></c><c r="D7" t="s"><v>3</v></c></row>',
      {
        strings:
          '<si><t>Name</t></si><si><r><t>Pho</t></r><r><t>ne</t></r></si><si><t>Ann_x000D_Hill</t><rPh sb="0" eb="1"><t>no</t></rPh></si><si><t>020 7946 1234</t></si>',
      },
    )
    expect(await take(made, 'x.xlsx')).toMatchObject({
      headings: ['Name', 'Phone'],
      headingsRow: 2,
      rows: [['Ann\rHill', '020 7946 1234']],
    })
  })

  it('macros and links to other files are named, never run and never followed', async () => {
    const made = rawWorkbook(
      '<row r="1"><c r="A1" t="inlineStr"><is><t>Phone</t></is></c></row><row r="2"><c r="A2"><v>447911204481</v></c></row>',
      {
        parts: { 'xl/vbaProject.bin': bytes(1, 2, 3), 'xl/externalLinks/externalLink1.xml': '<externalLink/>' },
      },
    )
    expect((await take(made, 'x.xlsm')).codes).toEqual(expect.arrayContaining(['macros', 'external-links']))
  })
})

describe('cards and JSON', () => {
  it('vCards of both versions, with several telephones and e-mails; a broken one is held', async () => {
    const found = await take(
      utf8(
        'BEGIN:VCARD\r\nVERSION:3.0\r\nFN:Ann Hill\r\nN:Hill;Ann;;;\r\nORG:Linde\\, Ltd;Sales\r\nTEL;TYPE=CELL:+44 7911 204481\r\nitem1.TEL;TYPE=WORK:+44 20 7946\r\n  1234\r\nEMAIL:a@linde.example\r\nEMAIL:b@linde.example\r\nEND:VCARD\r\n' +
          'BEGIN:VCARD\r\nVERSION:4.0\r\nFN:Ben Cole\r\nTEL;VALUE=uri;TYPE="voice,home":tel:+34-911-23-45-67\r\nEND:VCARD\r\n' +
          'BEGIN:VCARD\r\nVERSION:2.1\r\nFN:Old\r\nEND:VCARD\r\nBEGIN:VCARD\r\nVERSION:3.0\r\nFN:Cut',
      ),
      'people.vcf',
    )
    expect(found.format).toBe('vcard')
    expect(
      found.rows.map((row) => Object.fromEntries(found.headings.map((heading, i) => [heading, row[i]]))),
    ).toMatchObject([
      {
        'Full name': 'Ann Hill',
        Company: 'Linde, Ltd',
        'Mobile phone': '+44 7911 204481',
        'Work phone': '+44 20 7946 1234',
        'E-mail 2': 'b@linde.example',
      },
      { 'Full name': 'Ben Cole', 'Home phone': '+34-911-23-45-67' },
    ])
    expect(found.held).toEqual(['3 broken-item', '4 broken-item'])
  })

  it('an array of objects, nested keys joined with dots', async () => {
    const found = await take(
      utf8(
        '[{"name":"Ann","phones":["+44 7911 204481","+44 7911 204482"],"at":{"city":"York"}},{"name":"Ben","x":true}]',
      ),
      'a.json',
    )
    expect(found).toMatchObject({ format: 'json', headings: ['name', 'phones.0', 'phones.1', 'at.city', 'x'] })
    expect(found.rows[1]).toEqual(['Ben', '', '', '', 'true'])
  })

  it('an object that holds the array', async () => {
    expect(
      (await take(utf8('{"page":1,"data":[{"name":"Ann","phone":"1"},{"name":"Ben","phone":"2"}]}'), 'a.json')).rows,
    ).toHaveLength(2)
  })

  it('one object a line; a line that is none is held', async () => {
    const found = await take(utf8('{"name":"Ann","phone":"1"}\n{broken\n{"name":"Ben"}\n'), 'a.ndjson')
    expect(found).toMatchObject({
      format: 'ndjson',
      rows: [
        ['Ann', '1'],
        ['Ben', ''],
      ],
      held: ['2 broken-item'],
    })
  })

  it('text pasted from a spreadsheet', async () => {
    expect(await take(utf8('Name\tPhone\nAnn\t020 7946 1234\n'), 'pasted.txt')).toMatchObject({
      format: 'tsv',
      delimiter: '\t',
    })
  })
})

describe('a file named wrongly is read by its content, and that is said', () => {
  it.each<[string, Made, string, string]>([
    [
      'a workbook called .csv',
      book([
        {
          cells: [
            ['Name', 'Phone'],
            ['Ann', '1'],
          ],
        },
      ]),
      'x.csv',
      'xlsx',
    ],
    ['a text called .xlsx', utf8('Name,Phone\nAnn,1\n'), 'x.xlsx', 'csv'],
    ['JSON called .csv', utf8('[{"name":"Ann","phone":"1"}]'), 'x.csv', 'json'],
    [
      'an old workbook called .xlsx',
      book(
        [
          {
            cells: [
              ['Name', 'Phone'],
              ['Ann', '1'],
            ],
          },
        ],
        'biff8',
      ),
      'x.xlsx',
      'xls',
    ],
  ])('%s', async (_, made, name, format) => {
    const found = await take(made, name)
    expect(found.format).toBe(format)
    expect(found.codes).toContain('named-otherwise')
  })
})

describe('refused, each with a sentence that says what to do', () => {
  const bomb = () =>
    rawWorkbook(`<row r="1"><c r="A1" t="inlineStr"><is><t>${' '.repeat(120 << 20)}</t></is></c></row>`)
  it.each<[string, () => Made, string]>([
    ['no bytes', () => bytes(), 'empty-file'],
    ['blank lines', () => utf8('\n \n\r\n'), 'empty-file'],
    ['a picture', () => bytes(0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10), 'binary-file'],
    ['random bytes', () => Uint8Array.from({ length: 500 }, (_, i) => (i * 37) % 256), 'binary-file'],
    ['a document', () => utf8('%PDF-1.7 x'), 'document'],
    ['a compressed file', () => bytes(0x1f, 0x8b, 8, 0, 0), 'compressed-file'],
    ['a web page', () => utf8('<html><table><tr><td>Name</td></tr></table></html>'), 'web-page'],
    ['an archive without a workbook', () => zip({ 'a.csv': 'Name,Phone\n' }), 'not-a-workbook'],
    ['a text document', () => zip({ 'word/document.xml': '<x/>' }), 'document'],
    ['an archive cut in half', async () => (await rawWorkbook('<row r="1"/>')).subarray(0, 300), 'damaged-file'],
    ['a locked workbook', lockedWorkbook, 'locked-workbook'],
    ['a locked archive', () => zip({ 'xl/workbook.xml': '<x/>' }, 'secret'), 'locked-workbook'],
    ['an archive that inflates without end', bomb, 'inflates-too-far'],
    ['a workbook whose XML is broken', () => rawWorkbook('<row r="1"><c r="A1"><v>1</c></row>'), 'damaged-file'],
    [
      'XML that declares entities',
      () => rawWorkbook('<row r="1"><c r="A1" t="inlineStr"><is><t>&lol;</t></is></c></row>'),
      'damaged-file',
    ],
    ['a workbook without cells', () => book([{ cells: [] }]), 'no-table'],
    ['16,000 columns', () => utf8(`${'a,'.repeat(15_999)}a\n${'1,'.repeat(15_999)}1\n`), 'too-many-columns'],
    ['JSON that breaks off', () => utf8('[{"name":"Ann"},{"na'), 'broken-json'],
    ['an empty array', () => utf8('[]'), 'no-table'],
  ])('%s', async (_, made, problem) => expect(await refusal(made())).toBe(problem))
})

describe('odd characters', () => {
  it('control and direction characters are told of and kept in the row', async () => {
    const found = await take(utf8('Name,Phone\nAnn\u0007,\u202a020 7946 1234\u202c\nBen,1\nCy,2\n'))
    expect(found.rows[0]).toEqual(['Ann\u0007', '\u202a020 7946 1234\u202c'])
    expect(found.codes).toEqual(expect.arrayContaining(['control-characters', 'direction-marks']))
  })

  it('a cell of a megabyte is held, and takes no time to tell', async () => {
    const made = utf8(`Name,Phone\nAnn,1\nBen,${'x'.repeat(1_000_000)}\n`)
    expect((await take(made)).held).toEqual(['3 cell-too-long'])
  })
})
