import { describe, expect, it } from '@jest/globals'
import { fold } from '@upper-field/core/table'
import { searchTerms } from '../../src/projection/searchText'

describe('typed words', () => {
  it.each([
    ['Océane VAUBERT', ['oceane', 'vaubert']],
    ['07911 204481', ['7911204481']],
    ['+44 (0)7911 204 481', ['447911204481']],
    ['kestle 01665 555 018 york', ['kestle', '1665555018', 'york']],
    ['0', ['0']],
    ['  ', []],
    ['50% a_b', ['50%', 'a_b']],
  ])('%j look for %j', (words, terms) => expect(searchTerms(words)).toEqual(terms))

  it('and stored text are folded alike', () => {
    expect(fold('Étienne Müller-Weißbach')).toBe('etienne muller-weißbach')
    expect(fold(fold('Éire'))).toBe(fold('Éire'))
  })
})
