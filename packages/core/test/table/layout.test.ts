import { describe, expect, it } from '@jest/globals'
import {
  assignField,
  canBeReached,
  columnName,
  type Field,
  layoutKey,
  type Mapping,
  rowTaker,
  splitCells,
  writeRecord,
} from '../../src/table'

describe('a layout', () => {
  it('is known by its headings, however they are written', () => {
    expect(layoutKey(['First Name', 'E-Mail'])).toBe(layoutKey(['first_name', 'e-mail ']))
    expect(layoutKey(['First Name', 'E-Mail'])).not.toBe(layoutKey(['E-Mail', 'First Name']))
    expect(layoutKey(['First Name', 'E-Mail'])).not.toBe(layoutKey(['First Name', 'E-Mail', '']))
  })

  it('without headings is not known at all', () => {
    expect(layoutKey(['Column 1', 'Column 2', 'Column 3'])).toBeNull()
    expect(layoutKey(['Name', '', ''])).toBeNull()
  })
})

describe('a field', () => {
  const mapping: Mapping = ['company', 'number', null]
  it('that a list has once is taken from the column that had it', () =>
    expect(assignField(mapping, 2, 'company')).toEqual([null, 'number', 'company']))
  it('that may stand in several columns is left there too', () =>
    expect(assignField(mapping, 2, 'number')).toEqual(['company', 'number', 'number']))
  it('can be taken off', () => expect(assignField(mapping, 0, null)).toEqual([null, 'number', null]))

  it.each<[Field[], boolean]>([
    [['number'], true],
    [['email'], true],
    [['profile'], true],
    [['full-name', 'company'], true],
    [['full-name'], false],
    [['company', 'city'], false],
  ])('%j: contacts can be reached or looked for: %s', (fields, can) => expect(canBeReached(fields)).toBe(can))
})

describe('columns of a spreadsheet', () => {
  it.each([
    [0, 'A'],
    [25, 'Z'],
    [26, 'AA'],
    [701, 'ZZ'],
    [702, 'AAA'],
  ])('%i is %s', (index, name) => expect(columnName(index)).toBe(name))
})

describe('records', () => {
  it.each([',', ';', '\t', '|'])('written with %j are read back the same', (delimiter) => {
    const cells = ['plain', `a${delimiter}b`, 'say "x"', 'two\nlines', '', ' spaced ']
    expect(splitCells(writeRecord(cells, delimiter), delimiter)).toEqual(cells)
  })
})

describe('rows of a sheet', () => {
  const row = (number: number, cells: string[], isHidden = false) => ({ row: number, cells, isHidden })
  const area = { top: 2, left: 0, bottom: 4, right: 1 }

  it('get the value of a merged area in every cell it covers, below and beside', () => {
    const take = rowTaker([area], { merged: 'every', takesHidden: false })
    expect(take(row(1, ['x']))?.cells).toEqual(['x'])
    expect(take(row(2, ['Linde', '', 'a']))?.cells).toEqual(['Linde', 'Linde', 'a'])
    expect(take(row(3, ['', '', 'b']))?.cells).toEqual(['Linde', 'Linde', 'b'])
    // A row that is missing in between does not end the area, its last row does.
    expect(take(row(5, ['', '', 'c']))?.cells).toEqual(['', '', 'c'])
  })

  it('keep their own value inside the area, and the first alone where that is wanted', () => {
    const take = rowTaker([area], { merged: 'every', takesHidden: false })
    take(row(2, ['Linde']))
    expect(take(row(3, ['Rote', '', 'b']))?.cells).toEqual(['Rote', 'Linde', 'b'])
    expect(rowTaker([area], { merged: 'first', takesHidden: false })(row(3, ['', '', 'b']))?.cells).toEqual([
      '',
      '',
      'b',
    ])
  })

  it('that are hidden or blank are not taken, unless hidden ones are asked for', () => {
    const hidden = row(2, ['a'], true)
    expect(rowTaker([], { merged: 'every', takesHidden: false })(hidden)).toBeNull()
    expect(rowTaker([], { merged: 'every', takesHidden: true })(hidden)).toEqual({ row: 2, cells: ['a'] })
    expect(rowTaker([], { merged: 'every', takesHidden: true })(row(3, [' ', '']))).toBeNull()
  })
})
