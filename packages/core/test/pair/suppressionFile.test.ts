import { describe, expect, it } from '@jest/globals'
import { suppressionRow, useOfColumn } from '../../src/pair'

describe('a column of a suppression file', () => {
  it.each([
    ['numbers', 'number', ['07911 204481']],
    ['emails', 'email', ['maren@causeway.example']],
    ['hashes', null, ['', 'AB'.repeat(32)]],
    [null, 'web', ['causeway.example']],
    [null, null, ['', ' ']],
    [null, null, ['ab'.repeat(32), 'soon']],
  ] as const)('is used for %s where it was taken for %s and holds %j', (use, field, cells) =>
    expect(useOfColumn(field, cells)).toBe(use),
  )
})

describe('a row of a suppression file', () => {
  it('holds the filled cells of the columns that are used', () =>
    expect(
      suppressionRow(
        ['Maren', '07911 204481', ' ', 'causeway.example', '01665 555018'],
        [null, 'numbers', 'emails', 'domains', 'numbers'],
      ),
    ).toEqual({ numbers: ['07911 204481', '01665 555018'], emails: [], domains: ['causeway.example'], hashes: [] }))
})
