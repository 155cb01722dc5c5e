import { describe, expect, it } from '@jest/globals'
import { ANSWER_AGES, type AnswerAges } from '@upper-field/contract'
import fc from 'fast-check'
import { allAges, freshOf } from '../src/check/ages'

const n = fc.nat(1000)
const ages = fc
  .record({
    country: fc.constantFrom('GB', 'DE', ''),
    week: n,
    month: n,
    quarter: n,
    older: n,
    never: n,
    part: fc.double({ min: 0, max: 1, noNaN: true }),
  })
  .map(({ country, part, ...byAge }): AnswerAges => {
    const answered = byAge.week + byAge.month + byAge.quarter + byAge.older
    const stale = Math.floor(answered * part)
    return { country, byAge, subjects: answered + byAge.never, stale, listed: Math.floor(stale / 2) }
  })

describe('how old answers are', () => {
  it('adds up over all countries', () =>
    fc.assert(
      fc.property(fc.array(ages), (all) => {
        const sum = allAges(all)
        expect(ANSWER_AGES.reduce((total, age) => total + (sum.byAge[age] ?? 0), 0)).toBe(sum.subjects)
        expect(freshOf(sum)).toBe(all.reduce((total, one) => total + freshOf(one), 0))
        expect(freshOf(sum)).toBeGreaterThanOrEqual(0)
      }),
    ))
})
