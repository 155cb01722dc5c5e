import { describe, expect, it } from '@jest/globals'
import { suppressibleKeys, suppressionKey } from '../../src/pair'

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
