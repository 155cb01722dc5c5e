import { describe, expect, it } from '@jest/globals'
import fc from 'fast-check'
import { orderFor, satisfies, serves, stillWanted, WANTS } from '../../src/fill'

describe('orderFor', () => {
  const plan = {
    order: ['a', 'b'],
    branches: [
      { countries: ['DE', 'AT'], order: ['b'] },
      { countries: ['US', 'AT'], order: ['c', 'a'] },
    ],
  }
  it('takes the first branch that names the country, else the order of all others', () => {
    expect(orderFor('DE', plan)).toEqual(['b'])
    expect(orderFor('AT', plan)).toEqual(['b'])
    expect(orderFor('US', plan)).toEqual(['c', 'a'])
    expect(orderFor('FR', plan)).toEqual(['a', 'b'])
    expect(orderFor('', plan)).toEqual(['a', 'b'])
  })
})

describe('what is wanted', () => {
  it('is any number once a mobile is found, but no mobile once any number is', () => {
    expect(stillWanted(['mobile', 'any-number'], ['mobile'])).toEqual([])
    expect(stillWanted(['mobile', 'any-number'], ['any-number'])).toEqual(['mobile'])
  })
  it('may be given by whoever gives what satisfies it', () => {
    fc.assert(
      fc.property(fc.constantFrom(...WANTS), fc.constantFrom(...WANTS), (given, want) => {
        expect(serves([given], want)).toBe(satisfies(given, want))
      }),
    )
  })
  it('never grows as more is found', () => {
    const some = fc.subarray([...WANTS])
    fc.assert(
      fc.property(some, some, some, (wants, found, more) => {
        const before = stillWanted(wants, found)
        expect(before).toEqual(expect.arrayContaining([...stillWanted(wants, [...found, ...more])]))
      }),
    )
  })
})
