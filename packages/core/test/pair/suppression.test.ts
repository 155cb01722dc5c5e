import { describe, expect, it } from '@jest/globals'
import { type SuppressionRow, suppressibleKeys, suppressionKey, suppressionRowKeys } from '../../src/pair'

describe('a line of a suppression list', () => {
  it.each([
    ['a number as it is written at home', '07911 204481', { kind: 'number', key: '+447911204481' }],
    ['a number of another country', '+33 6 12 55 09 18', { kind: 'number', key: '+33612550918' }],
    ['an address', ' <Maren@Causeway.Example> ', { kind: 'email', key: 'maren@causeway.example' }],
    ['a domain', 'Rival.example', { kind: 'domain', key: 'rival.example' }],
    ['a web address', 'https://www.rival.example/about?x=1', { kind: 'domain', key: 'rival.example' }],
    ['a hash', 'AB'.repeat(32), { kind: 'hash', key: 'ab'.repeat(32) }],
  ])('%s', (_, text, key) => expect(suppressionKey(text, 'GB')).toEqual(key))

  it.each(['', 'soon', 'Maren Oldershaw', 'maren@', '@causeway.example', '12345', '0000000000', 'ab12'])(
    '%j holds no key',
    (text) => expect(suppressionKey(text, 'GB')).toBeNull(),
  )

  it('of two possible numbers takes neither', () => expect(suppressionKey('49431555230', 'DE')).toBeNull())
})

describe('a row of a suppression file', () => {
  const row: SuppressionRow = { numbers: [], emails: [], domains: [], hashes: [] }
  const keysOf = (more: Partial<SuppressionRow>) =>
    suppressionRowKeys({ ...row, ...more }, 'GB').map(({ kind, key }) => `${kind} ${key}`)

  it('may hold several numbers and addresses in a cell, each once', () =>
    expect(
      keysOf({
        numbers: ['Mob: 07911 204481 / 01665 555018', '+44 7911 204481'],
        emails: ['Maren@Causeway.example; <m.o@kinpost.example>'],
      }),
    ).toEqual([
      'number +447911204481',
      'number +441665555018',
      'email maren@causeway.example',
      'email m.o@kinpost.example',
    ]))

  it('takes of each column only what it is said to hold', () => {
    expect(keysOf({ emails: ['07911 204481', 'causeway.example'] })).toEqual([])
    expect(keysOf({ domains: ['https://www.rival.example/shop', 'tom@rival.example'] })).toEqual([
      'domain rival.example',
    ])
    expect(keysOf({ hashes: ['AB'.repeat(32), 'ab12'] })).toEqual([`hash ${'ab'.repeat(32)}`])
  })

  it('takes neither of two numbers that a cell may be', () => {
    const cell = { ...row, numbers: ['49431555230'] }
    expect(suppressionRowKeys(cell, 'DE')).toEqual([])
  })
})

describe('what a contact can be suppressed by', () => {
  it('is its numbers, its addresses, and its domains with those above them', () => {
    const keys = suppressibleKeys({
      e164s: ['+447911204481'],
      addresses: ['tom@mail.sales.rival.example'],
      domain: 'rival.example',
    })
    expect(keys).toEqual([
      '+447911204481',
      'tom@mail.sales.rival.example',
      'rival.example',
      'mail.sales.rival.example',
      'sales.rival.example',
    ])
  })
})
