import { describe, expect, it } from '@jest/globals'
import fc from 'fast-check'
import { columnKey } from '../../src/table'
import { compileRoutine, mergeMore, proposeRoutine, readAmount, readDeviceId, readGender } from '../../src/tidy'

describe('a gender', () => {
  it.each([
    ['f', 'female'],
    ['Frau', 'female'],
    [' Weiblich ', 'female'],
    ['M', 'male'],
    ['männlich', 'male'],
    ['uomo', 'male'],
    ['divers', 'other'],
    ['x', 'other'],
    ['', ''],
    ['n/a', ''],
    ['female-owned', ''],
  ])('%j is %j', (text, gender) => expect(readGender(text)).toBe(gender))
})

describe('an advertising id', () => {
  it.each([
    ['{38400000-8CF0-11BD-B23E-10B96E40000D}', '38400000-8cf0-11bd-b23e-10b96e40000d'],
    ['384000008cf011bdb23e10b96e40000d', '38400000-8cf0-11bd-b23e-10b96e40000d'],
    ['00000000-0000-0000-0000-000000000000', ''],
    ['not one', ''],
  ])('%j is %j', (text, id) => expect(readDeviceId(text)).toBe(id))

  it('is the same however its digits are written', () =>
    fc.assert(
      fc.property(fc.uuid(), (id) => {
        expect(readDeviceId(id.toUpperCase())).toBe(readDeviceId(id.replaceAll('-', '')))
      }),
    ))
})

describe('an amount', () => {
  it.each([
    ['€ 1.234,50', '1234.50'],
    ['1,234.50 USD', '1234.50'],
    ['1 234,5', '1234.5'],
    ['1.234', '1234'],
    ['12,5', '12.5'],
    ['-40', '-40'],
    ['0', '0'],
    ['', ''],
    ['much', ''],
    ['1.2.3', ''],
  ])('%j is %j', (text, amount) => expect(readAmount(text)).toBe(amount))

  it('is the number it was written from, in either manner of writing', () =>
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 99_999_999 }), (cents) => {
        const euros = cents / 100
        for (const manner of ['en', 'de'])
          expect(Number(readAmount(euros.toLocaleString(manner, { minimumFractionDigits: 2 })))).toBe(euros)
      }),
    ))
})

describe('columns of a file', () => {
  it.each([
    ['Number of seats', 'number-of-seats'],
    ['  Größe (m²) ', 'große-m²'],
    ['座席数', '座席数'],
    ['—', ''],
  ])('headed %j are filtered by as %j', (heading, key) => expect(columnKey(heading)).toBe(key))

  it('are kept with their cells, beside what has a place of its own', () => {
    const layout = {
      mapping: ['full-name', null, 'gender', 'value', 'industry'] as const,
      headings: ['Name', 'Seats', 'Sex', 'Worth', 'Trade'],
    }
    const { tidy } = compileRoutine(proposeRoutine(layout.mapping), layout, {})
    expect(tidy(['Maren Oldershaw', '40', 'f', '€ 1.200,00', 'Guest  houses']).more).toEqual({
      seats: '40',
      '@gender': 'female',
      '@value': '1200.00',
      '@industry': 'Guest houses',
    })
  })

  it('of several rows are told by the first that knows them', () =>
    expect(mergeMore([{ a: '1' }, { a: '2', b: '3' }])).toEqual({ a: '1', b: '3' }))
})

describe('columns that became no field', () => {
  it('are kept whatever they are called, and merged', () => {
    const heading = fc.constantFrom('Constructor', 'constructor', 'Stars', 'To String', 'Has own property', 'Value of')
    fc.assert(
      fc.property(fc.uniqueArray(heading, { minLength: 1, selector: columnKey }), (headings) => {
        const mapping = headings.map(() => null)
        const tidier = compileRoutine(proposeRoutine(mapping), { mapping, headings })
        const of = (word: string) => tidier.tidy(headings.map((_, i) => `${word} ${i}`)).more
        const expected = Object.fromEntries(headings.map((one, i) => [columnKey(one), `first ${i}`]))
        expect(Object.entries(of('first'))).toEqual(Object.entries(expected))
        expect(Object.entries(mergeMore([of('first'), of('second')]))).toEqual(Object.entries(expected))
      }),
    )
  })
})
