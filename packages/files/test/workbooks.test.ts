import { describe, expect, it } from '@jest/globals'
import { book, bytes, rawWorkbook } from './makers'
import { take } from './takeFile'

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
