import { describe, expect, it } from '@jest/globals'
import { book, bytes, rawWorkbook, utf8 } from './makers'
import { type Made, take } from './takeFile'

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
    expect(found.texts.join(' ')).toContain('B2')
  })

  describe('two tables in one sheet', () => {
    const beside = book([
      {
        cells: [
          ['Name', 'Phone', null, 'Firm', 'Mail'],
          ['Ann', '020 7946 1234', null, 'Linde', 'a@linde.example'],
          ['Ben', '020 7946 1235', null, 'Hill', 'b@hill.example'],
          [null, null, null, 'Cole', 'c@cole.example'],
        ],
      },
    ])
    const below = book([
      {
        cells: [
          ['Visitors'],
          ['Name', 'Phone'],
          ['Ann', '020 7946 1234'],
          ['Ben', '020 7946 1235'],
          [],
          ['Company', 'E-mail', 'Town'],
          ['Linde', 'a@linde.example', 'York'],
        ],
      },
    ])

    it('beside each other are two', async () => {
      const first = await take(beside, 'x.xlsx')
      expect(first).toMatchObject({
        headings: ['Name', 'Phone'],
        rows: [
          ['Ann', '020 7946 1234'],
          ['Ben', '020 7946 1235'],
        ],
      })
      expect(first.sheets.map(({ name }) => name)).toEqual(['Sheet1', 'Sheet1 (table 2)'])
      expect(first.codes).toContain('other-sheets')
      expect(await take(beside, 'x.xlsx', { sheet: 'Sheet1 (table 2)' })).toMatchObject({
        headings: ['Firm', 'Mail'],
        rows: [
          ['Linde', 'a@linde.example'],
          ['Hill', 'b@hill.example'],
          ['Cole', 'c@cole.example'],
        ],
        held: [],
      })
    })

    it('below each other are two', async () => {
      expect(await take(below, 'x.xlsx')).toMatchObject({
        headings: ['Name', 'Phone'],
        rows: [
          ['Ann', '020 7946 1234'],
          ['Ben', '020 7946 1235'],
        ],
        held: [],
      })
      expect(await take(below, 'x.xlsx', { sheet: 'Sheet1 (table 2)' })).toMatchObject({
        headings: ['Company', 'E-mail', 'Town'],
        headingsRow: 6,
        rows: [['Linde', 'a@linde.example', 'York']],
      })
    })

    it.each([
      [
        'a column left blank within a table',
        [
          ['Name', 'Firm', null, 'Phone', 'Mail'],
          ['Ann', 'Linde', null, '020 7946 1234', 'a@linde.example'],
        ],
      ],
      [
        'the same headings again',
        [['Name', 'Phone'], ['Ann', '020 7946 1234'], [], ['Name', 'Phone'], ['Ben', '020 7946 1235']],
      ],
      ['a remark below', [['Name', 'Phone'], ['Ann', '020 7946 1234'], [], ['Name of the phone list: fair']]],
    ])('%s is one', async (_, cells) => {
      expect((await take(book([{ cells }]), 'x.xlsx')).sheets.map(({ name }) => name)).toEqual(['Sheet1'])
    })
  })

  it('hidden columns are left out unless somebody asks, as hidden rows are', async () => {
    const made = rawWorkbook(
      '<row r="1"><c r="A1" t="inlineStr"><is><t>Name</t></is></c><c r="B1" t="inlineStr"><is><t>Old phone</t></is></c><c r="C1" t="inlineStr"><is><t>Phone</t></is></c></row>' +
        '<row r="2"><c r="A2" t="inlineStr"><is><t>Ann</t></is></c><c r="B2"><v>2079460000</v></c><c r="C2"><v>2079461234</v></c></row>',
      { cols: '<cols><col min="2" max="2" hidden="1"/></cols>' },
    )
    const found = await take(made, 'x.xlsx')
    expect(found).toMatchObject({ headings: ['Name', 'Phone'], rows: [['Ann', '2079461234']] })
    expect(found.codes).toContain('hidden-columns')
    expect(await take(made, 'x.xlsx', { takesHidden: true })).toMatchObject({
      headings: ['Name', 'Old phone', 'Phone'],
      rows: [['Ann', '2079460000', '2079461234']],
    })
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
          'BEGIN:VCARD\r\nVERSION:2.1\r\nFN:Old Kettle\r\nEND:VCARD\r\nBEGIN:VCARD\r\nVERSION:3.0\r\nFN:Cut',
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
      { 'Full name': 'Old Kettle' },
    ])
    expect(found.held).toEqual(['4 broken-item'])
  })

  const cards = async (...lines: string[]) => {
    const found = await take(utf8(['BEGIN:VCARD', ...lines, 'END:VCARD', ''].join('\r\n')), 'people.vcf')
    expect(found.held).toEqual([])
    return Object.fromEntries(found.headings.map((heading, i) => [heading, found.rows[0]?.[i]]))
  }

  it.each<[string, string, Record<string, string>]>([
    [
      'quoted-printable in UTF-8',
      'FN;CHARSET=UTF-8;ENCODING=QUOTED-PRINTABLE:J=C3=BCrgen Bl=C3=A4ser',
      { 'Full name': 'Jürgen Bläser' },
    ],
    [
      'quoted-printable in an older character set',
      'FN;CHARSET=ISO-8859-1;QUOTED-PRINTABLE:J=FCrgen',
      { 'Full name': 'Jürgen' },
    ],
    ['a soft break within a quoted line', 'FN;ENCODING=QUOTED-PRINTABLE:Ann =\r\nHill', { 'Full name': 'Ann Hill' }],
    ['a bare type word', 'TEL;CELL:+44 7911 204481', { 'Mobile phone': '+44 7911 204481' }],
    ['several bare type words', 'TEL;WORK;VOICE:020 7946 1234', { 'Work phone': '020 7946 1234' }],
    ['commas that are no separators', 'ORG:Linde, Hill and Sons;Sales', { Company: 'Linde, Hill and Sons' }],
    ['an escaped semicolon', 'ORG:Linde\\; Hill;Sales', { Company: 'Linde; Hill' }],
  ])('a card of version 2.1: %s', async (_, line, expected) => {
    expect(await cards('VERSION:2.1', 'N:Hill;Ann', line)).toMatchObject(expected)
  })

  it.each<[string, string, string, Record<string, string>]>([
    ['3.0', 'escapes in a telephone', 'TEL;TYPE=CELL:+44\\,7911 204481', { 'Mobile phone': '+44,7911 204481' }],
    ['4.0', 'an escaped colon in an e-mail', 'EMAIL:ann\\:x@linde.example', { 'E-mail': 'ann:x@linde.example' }],
    [
      '4.0',
      'an extension in a telephone',
      'TEL;VALUE=uri;TYPE=work:tel:+44-20-7946-1234;ext=15',
      { 'Work phone': '+44-20-7946-1234;ext=15' },
    ],
  ])('a card of version %s: %s', async (version, _, line, expected) => {
    expect(await cards(`VERSION:${version}`, 'FN:Ann', line)).toMatchObject(expected)
  })

  it('the longest list at whatever depth; the others are lists to choose from', async () => {
    const made = utf8(
      JSON.stringify({
        made: { by: ['a', 'b'] },
        answer: {
          people: [
            { name: 'Ann', phone: '1', orders: [{ no: 1 }, { no: 2 }, { no: 3 }, { no: 4 }] },
            { name: 'Ben', phone: '2' },
            { name: 'Cy', phone: '3' },
          ],
          firms: [
            { title: 'Linde', site: 'linde.example' },
            { title: 'Hill', site: 'hill.example' },
          ],
        },
      }),
    )
    const found = await take(made, 'a.json')
    expect(found.rows.map(([name]) => name)).toEqual(['Ann', 'Ben', 'Cy'])
    expect(found.codes).toContain('other-sheets')
    const firms = await take(made, 'a.json', { sheet: 'answer.firms' })
    expect(firms).toMatchObject({
      headings: ['title', 'site'],
      rows: [
        ['Linde', 'linde.example'],
        ['Hill', 'hill.example'],
      ],
    })
  })

  it('people by their keys; what is no object among people is held', async () => {
    expect(
      (await take(utf8('{"people":{\n"a1":{"name":"Ann","phone":"1"},\n"b2":{"name":"Ben","phone":"2"}}}'), 'a.json'))
        .rows,
    ).toEqual([
      ['Ann', '1'],
      ['Ben', '2'],
    ])
    const found = await take(utf8('{"people":[{"name":"Ann","phone":"1"},17,{"name":"Ben"}]}'), 'a.json')
    expect(found.rows).toHaveLength(2)
    expect(found.held).toEqual(['2 broken-item'])
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
