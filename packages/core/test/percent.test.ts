import { describe, expect, it } from '@jest/globals'
import { readPhoneCell } from '../src/phone'
import { openTable } from '../src/table'
import { compileRoutine, proposeRoutine } from '../src/tidy'

const rowsOf = (text: string) =>
  text.split('\n').map((line, i) => ({ row: i + 1, cells: line.split(';'), isHidden: false }))
const fieldsOf = (text: string) => {
  const opened = openTable({ rows: rowsOf(text), isSheet: true })
  return opened.status === 'opened' ? opened.suggestions.map(({ field }) => field) : []
}

describe('cells written as in web addresses', () => {
  const text = 'c1;c2;c3\nAnn%20Hill;%2B447911204481;ann%40hill.example\nBen%20Cole;%2B442079461234;ben%40cole.example'
  it('tell what their columns hold', () => expect(fieldsOf(text).slice(1)).toEqual(['number', 'email']))

  it('are read, and it is told', () => {
    const layout = { mapping: ['full-name', 'number', 'email'] as const, headings: ['a', 'b', 'c'] }
    const contact = compileRoutine(proposeRoutine(layout.mapping), layout).tidy(rowsOf(text)[1]?.cells ?? [])
    expect(contact.values.fullName).toBe('Ann Hill')
    expect(contact.numbers.map(({ e164 }) => e164)).toEqual(['+447911204481'])
    expect(contact.emails.map(({ address }) => address)).toEqual(['ann@hill.example'])
    expect(contact.changes.map(({ code }) => code)).toEqual(
      expect.arrayContaining(['name-decoration', 'percent-encoding', 'email-mended']),
    )
  })

  it.each(['100%', '50% off', '%zz', '07911%', '%E4%'])('%s is none', (cell) =>
    expect(readPhoneCell(cell, { country: 'GB' }).repairs).not.toContain('percent-encoding'),
  )
})

it('digits in full width tell a column of numbers where the heading says nothing', () => {
  expect(
    fieldsOf(
      'x1;x2\n田中太郎;０９０－８４１２－６６３４\n鈴木花子;０３－５３２１－７７８８\n山田一郎;０６－６３４１－２２９０',
    )[1],
  ).toBe('number')
})
