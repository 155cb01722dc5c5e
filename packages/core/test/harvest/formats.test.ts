import { describe, expect, it } from '@jest/globals'
import {
  exampleOf,
  formatOf,
  formatOfExample,
  harvest,
  isWrittenIn,
  type NumberFormat,
  readPage,
  tryFormat,
} from '@upper-field/core/harvest'
import fc from 'fast-check'

const TAKES = { name: 'with a slash', takes: true, country: 'AT' } as const
const slash = formatOfExample({ raw: '05246 555 / 44', before: 'täglich unter der Nummer ' }, TAKES)

const digits = (least: number, most: number) => fc.stringMatching(new RegExp(`^[1-9]\\d{${least - 1},${most - 1}}$`))
const separators = fc.constantFrom(' ', '/', ' / ', '-', '.')
const word = fc.stringMatching(/^[a-z]{4,9}$/)
const written = fc
  .record({
    groups: fc.array(digits(2, 5), { minLength: 2, maxLength: 4 }),
    between: fc.array(separators, { minLength: 4, maxLength: 4 }),
    words: fc.array(word, { minLength: 1, maxLength: 3 }),
  })
  .map(({ groups, between, words }) => ({
    raw: groups.map((group, at) => (at === groups.length - 1 ? group : group + between[at])).join(''),
    before: `${words.join(' ')} `,
    words,
  }))

describe('a format taught by an example', () => {
  it('is that of its example, however it is spaced', () => {
    fc.assert(
      fc.property(written, (one) => {
        const format = formatOfExample(one, TAKES)
        expect(isWrittenIn(one, 'AT', format)).toBe(true)
        expect(isWrittenIn({ ...one, raw: one.raw.replaceAll(' ', '\u00a0') }, 'AT', format)).toBe(true)
      }),
    )
  })

  it('is that of other digits, and not that of more or fewer groups, of another country or behind other words', () => {
    fc.assert(
      fc.property(written, fc.constantFrom('1', '7'), (one, digit) => {
        const format = formatOfExample(one, TAKES)
        expect(isWrittenIn({ ...one, raw: one.raw.replace(/\d/g, digit) }, 'AT', format)).toBe(true)
        expect(isWrittenIn({ ...one, raw: `${one.raw} 123` }, 'AT', format)).toBe(false)
        expect(isWrittenIn({ ...one, raw: `+${one.raw}` }, 'AT', format)).toBe(false)
        expect(isWrittenIn(one, 'DE', format)).toBe(false)
        expect(isWrittenIn({ ...one, before: 'zzzzzzzzzzzz ' }, 'AT', format)).toBe(false)
      }),
    )
  })

  it('is never that of what stands behind a word it is not after', () => {
    fc.assert(
      fc.property(written, (one) => {
        const format = { ...formatOfExample(one, TAKES), notAfter: one.words.slice(0, 1) }
        expect(isWrittenIn(one, 'AT', format)).toBe(false)
      }),
    )
  })

  it('keeps out before another takes', () => {
    const one = { raw: '05246 555 / 44', before: 'Nummer ' }
    const keepsOut: NumberFormat = { ...slash, takes: false }
    expect(formatOf(one, 'AT', [slash, keepsOut])).toBe(keepsOut)
    expect(formatOf({ ...one, raw: '1 2 3' }, 'AT', [slash])).toBeNull()
  })
})

const page = (...lines: string[]) => lines.map((line) => `<p>${line}</p>`).join('')
const AT = { url: 'https://larch.example/', country: 'AT' }
const valuesOf = (html: string, formats: readonly NumberFormat[]) =>
  harvest(html, { ...AT, formats }).findings.map(({ value, how }) => [value, how])

describe('a page read with taught formats', () => {
  const html = page('Artikel 05246 555 / 44', 'Zur Artikelnummer unter der Nummer 05246 555 / 45')

  it('gives what is written so, whatever word stands before it, and reads it from its country', () => {
    expect(valuesOf(html, [])).toEqual([])
    expect(valuesOf(html, [slash])).toEqual([['+43524655545', 'taught']])
  })

  it('keeps out what is no number', () => {
    const telephone = page('Telefon unter der Nummer 05246 555 / 44')
    expect(valuesOf(telephone, [])).not.toEqual([])
    expect(valuesOf(telephone, [{ ...slash, takes: false }])).toEqual([])
    expect(harvest(telephone, { ...AT, formats: [{ ...slash, takes: false }] }).leftOut).toEqual([
      { raw: '05246 555 / 44', why: 'taught' },
    ])
  })
})

describe('a format that is tried', () => {
  const fetched = [
    { url: 'https://a.example/', country: 'AT', page: readPage(page('Artikelnummer unter 05246 555 / 44')) },
    { url: 'https://b.example/', country: 'AT', page: readPage(page('Telefon unter 05246 555745')) },
    { url: 'https://c.example/', country: 'AT', page: readPage(page('nichts')) },
  ]

  it('tells what it would find, and what of that looks like another thing', () => {
    const { finds, loses, lookAlikes } = tryFormat(fetched, [], slash)
    expect(finds.map(({ url, value }) => [url, value])).toEqual([['https://a.example/', '+43524655544']])
    expect(loses).toEqual([])
    expect(lookAlikes).toMatchObject([{ url: 'https://a.example/', word: 'unter' }])
    expect(tryFormat(fetched, [], { ...slash, notAfter: ['artikelnummer'] }).finds).toEqual([])
  })

  it('tells what it would lose', () => {
    const example = { raw: '05246 555745', before: 'Telefon unter ' }
    const format = formatOfExample(example, { ...TAKES, takes: false })
    const { finds, loses } = tryFormat(fetched, [], format)
    expect(finds).toEqual([])
    expect(loses.map(({ value }) => value)).toEqual(['+435246555745'])
  })
})

describe('what was marked on a page', () => {
  it('is widened to the whole number, with what stands before it', () => {
    const block = 'Buchung unter der Nummer 05246 555 / 44 jederzeit'
    expect(exampleOf({ block, raw: '555 / 4' })).toEqual({
      raw: '05246 555 / 44',
      before: 'Buchung unter der Nummer ',
    })
    expect(exampleOf({ block, raw: 'jederzeit' })).toBeNull()
    expect(exampleOf({ block, raw: 'not there' })).toBeNull()
  })
})
