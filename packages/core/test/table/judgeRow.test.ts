import { describe, expect, it } from '@jest/globals'
import type { Field } from '../../src/table'
import { cellsOfRow, judgeRow, mendNotes } from '../../src/table'

const SHAPE = { delimiter: ',', encoding: 'utf-8' as const }
const FIELDS: readonly (Field | null)[] = ['full-name', 'number', 'email', 'city', null]
const RULES = { headings: ['name', 'phone', 'mail', 'town', 'note'], hasHeadings: true, isSheet: false, fields: FIELDS }
const judged = (text: string, rules = RULES) => judgeRow(text, null, SHAPE, rules)

describe('a row with fewer cells than the table has columns', () => {
  it.each([
    'Maren,07911 204481',
    'Maren,07911 204481,maren@causeway.example',
    'Maren,,maren@causeway.example',
    ',07911 204481,maren@causeway.example,Bath',
    'Maren,07911 204481,,Bath',
  ])('is blank at its end where what stands there fits: %s', (text) =>
    expect(judged(text)).toMatchObject({ status: 'read', mends: ['short'] }),
  )
  it.each([
    // The number stands where the name belongs: the first cell is missing.
    '07911 204481,maren@causeway.example,Bath',
    // The address stands where the number belongs.
    'Maren,maren@causeway.example,Bath',
    'Maren,Bath',
    'too,few',
    'Maren',
    'Maren,07911 204481,Bath',
  ])('is held where it does not: %s', (text) =>
    expect(judged(text)).toMatchObject({ status: 'held', reason: 'too-few-cells' }),
  )
  it('is read where every cell fits a column that is known, though nothing reaches anybody', () =>
    expect(
      judgeRow('Maren,Oldershaw', null, SHAPE, {
        headings: ['First', 'Last', 'Phone', 'Mail'],
        fields: ['given-name', 'family-name', 'number', 'email'],
        hasHeadings: true,
        isSheet: false,
      }),
    ).toMatchObject({ status: 'read', cells: ['Maren', 'Oldershaw'], mends: ['short'] }))

  it('is held where nobody knows what the columns are', () =>
    expect(
      judgeRow('a,b', null, SHAPE, { headings: ['a', 'b', 'c'], hasHeadings: true, isSheet: false }),
    ).toMatchObject({
      reason: 'too-few-cells',
    }))
})

describe('a row that is cut otherwise', () => {
  it.each([
    ['Maren;07911 204481;m@x.example;Bath;', 'other-delimiter'],
    ['Maren\t07911 204481\tm@x.example\tBath\ta note', 'other-delimiter'],
    ['Maren|07911 204481|m@x.example|Bath|x', 'other-delimiter'],
    ['"Maren,07911 204481,m@x.example,Bath,a note"', 'quoted-whole'],
    ['"Maren,07911 204481,""m@x.example"",Bath,"', 'quoted-whole'],
  ])('is read so: %j', (text, mend) => {
    const row = judged(text)
    expect(row).toMatchObject({ status: 'read', text, mends: [mend] })
    expect(row.status === 'read' && row.cells.slice(0, 2)).toEqual(['Maren', '07911 204481'])
  })
  it('is cut the same way whenever it is read again', () => {
    for (const text of ['Maren;1;2;3;4', '"Maren,1,2,3,4"', 'Maren,1,2,3,4', 'Maren']) {
      const row = judged(text)
      const again = cellsOfRow(text, { delimiter: ',', columns: 5, isSheet: false }).cells
      if (row.status === 'read') expect(again).toEqual(row.cells)
    }
  })
  it.each(['Maren; 07911 204481', 'a;b;c;d;e;f;g', '"a, b"'])(
    'is not guessed at where it does not come out even: %s',
    (text) => expect(judged(text)).toMatchObject({ status: 'held', reason: 'too-few-cells' }),
  )
  it('is left alone in a sheet, where cells know their columns', () => {
    const row = judgeRow('"a,b,c,d,e",,,,', null, SHAPE, { ...RULES, isSheet: true })
    expect(row).toMatchObject({ status: 'read', mends: [] })
    expect(row.status === 'read' && row.cells[0]).toBe('a,b,c,d,e')
    expect(cellsOfRow('"a;b;c;d;e"', { delimiter: ',', columns: 5, isSheet: true }).cells).toEqual(['a;b;c;d;e'])
  })
})

describe('padding and cells without end', () => {
  it('are taken out, and told', () => {
    expect(judged('Ma\0ren\0\0,07911 204481,,,')).toMatchObject({
      status: 'read',
      text: 'Maren,07911 204481,,,',
      mends: ['padding'],
    })
    const row = judged(`Maren,07911 204481,,Bath,${'x'.repeat(70_000)}`)
    expect(row).toMatchObject({ status: 'read', mends: ['cut'] })
    expect(row.status === 'read' && row.cells.map(({ length }) => length)).toEqual([5, 12, 0, 4, 65_536])
    expect(row.status === 'read' && row.text.length).toBe(5 + 12 + 4 + 4 + 65_536)
    expect(judged('\0\0,\0,,,').status).toBe('blank')
  })
})

describe('a row of totals', () => {
  const SUMS = {
    ...RULES,
    headings: ['company', 'seats', 'price', 'phone'],
    fields: ['company', null, null, 'number'] as const,
  }
  it.each(['Total,420,"12,300",', 'Gesamtsumme,1.204,,', 'Sum,12,13,', 'Totale,4,5,'])('adds up: %s', (text) =>
    expect(judged(text, SUMS)).toMatchObject({ status: 'held', reason: 'totals-row' }),
  )
  it.each([
    'Total,12,13,4155552671',
    'Sum,1,2,2125557788',
    'Gesamt Reisen,4,,0301234567',
    'Total Solutions,4,5,(415) 555-2671',
  ])('is a firm that can be reached: %s', (text) => expect(judged(text, SUMS).status).toBe('read'))
})

describe('what is told of rows that were read all the same', () => {
  it('counts them by kind', () => {
    expect(mendNotes({})).toEqual([])
    const told = mendNotes({ short: 3, padding: 1, 'other-delimiter': 1, 'quoted-whole': 2, cut: 1 })
    expect(told.map(({ code }) => code)).toEqual(['short-rows', 'rows-cut-otherwise', 'padding', 'cut-cells'])
    expect(told[0]?.text).toBe('3 rows leave off cells at their end: those are blank.')
    expect(told[1]?.text).toMatch(/^3 rows are cut by another delimiter/)
  })
})
