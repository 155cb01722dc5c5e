import { describe, expect, it } from '@jest/globals'
import { parseFilter } from '@upper-field/core/split'
import fc from 'fast-check'
import { completionsOf } from '../src/shell/completions'
import { issueText, mended } from '../src/shell/filterWords'

const values = (field: string) => (field === 'country' ? ['GB', 'GR', 'DE'] : [])
const shown = (text: string, caret = text.length) => completionsOf(text, caret, values).map((one) => one.text)

describe('what is being typed', () => {
  it('can be ended by fields that begin so', () => {
    expect(shown('coun')).toEqual(['country:'])
    expect(shown('x (li')).toEqual(['line:'])
    expect(shown('country:GB ci')).toEqual(['city:'])
    expect(shown('')).toEqual([])
    expect(shown('zzz')).toEqual([])
  })
  it('can be ended by values of a field, the last of several', () => {
    expect(shown('country:g')).toEqual(['GB', 'GR'])
    expect(shown('country:DE,g')).toEqual(['GB', 'GR'])
    expect(completionsOf('country:DE,g rest', 12, values)[0]?.whole).toBe('country:DE,GB rest')
    expect(shown('function:purch')).toEqual(['purchasing'])
    expect(shown('missing:post')).toEqual(['postal'])
  })
  it('is never ended in the middle of a word, and never breaks, whatever is typed', () => {
    expect(shown('line:mobile', 2)).toEqual([])
    const word = fc.constantFrom(
      'constructor',
      '__proto__',
      'toString',
      'country',
      'coun',
      ':',
      ',',
      'g',
      ' ',
      '(',
      '"',
      '>',
    )
    fc.assert(
      fc.property(fc.array(word), fc.nat({ max: 40 }), (words, at) => {
        const text = words.join('')
        const caret = Math.min(at, text.length)
        for (const { whole } of completionsOf(text, caret, values)) expect(whole.endsWith(text.slice(caret))).toBe(true)
      }),
    )
  })
})

describe('a mistake in a filter', () => {
  it('is a sentence, and is put right where it stands', () => {
    const text = 'oldershaw compny:inn missing:emial'
    const { issues } = parseFilter(text)
    expect(issues.map(issueText)).toEqual([
      'There is no field “compny”; it is searched for as a word.',
      '“emial” cannot be asked for here; it is searched for as a word.',
    ])
    const [first, second] = issues
    expect(first && mended(text, first)).toBe('oldershaw company:inn missing:emial')
    expect(second && mended(text, second)).toBe('oldershaw compny:inn missing:email')
  })
  it('without anything near stays as it is', () => {
    const [issue] = parseFilter('cost>many').issues
    expect(issue && mended('cost>many', issue)).toBe('cost>many')
  })
})
