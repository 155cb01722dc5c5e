import { describe, expect, it } from '@jest/globals'
import fc from 'fast-check'
import { type Callable, callAgainAt, compareCallable, OUTCOMES } from '../../src/split'

const HOUR = 3_600_000

describe('when a contact is called again', () => {
  it('is at once where nobody has called, and never where that is settled', () => {
    expect(callAgainAt(undefined)).toBe(0)
    for (const outcome of ['reached', 'wrong-number', 'asked-not-to'] as const)
      expect(callAgainAt({ outcome, at: 1000, againAt: null })).toBeNull()
  })
  it('is after some hours where nobody answered, and when it was said', () => {
    expect(callAgainAt({ outcome: 'no-answer', at: 1000, againAt: null })).toBe(1000 + 3 * HOUR)
    expect(callAgainAt({ outcome: 'later', at: 1000, againAt: 9 * HOUR })).toBe(9 * HOUR)
    expect(callAgainAt({ outcome: 'later', at: 1000, againAt: null })).toBe(1000)
  })
  it('is never before the call', () =>
    fc.assert(
      fc.property(fc.constantFrom(...OUTCOMES), fc.nat(), (outcome, at) => {
        const again = callAgainAt({ outcome, at, againAt: at + HOUR })
        expect(again === null || again >= at).toBe(true)
      }),
    ))
})

describe('the order of a call sheet', () => {
  const callable: fc.Arbitrary<Callable> = fc.record({
    id: fc.nat(1000),
    isNow: fc.boolean(),
    sureness: fc.constantFrom(0, 1, 2 as const),
    minutesLeft: fc.option(fc.integer({ min: 0, max: 600 }), { nil: null }),
  }) as fc.Arbitrary<Callable>
  it('has whoever may be called now first, then the surest, then whose day ends soonest', () =>
    fc.assert(
      fc.property(fc.uniqueArray(callable, { selector: ({ id }) => id, minLength: 2 }), (all) => {
        const sorted = [...all].sort(compareCallable)
        sorted.slice(1).forEach((one, at) => {
          const before = sorted[at]
          if (!before) return
          expect(before.isNow || !one.isNow).toBe(true)
          if (before.isNow === one.isNow) expect(before.sureness).toBeLessThanOrEqual(one.sureness)
        })
        // However they stood before, the order is the same.
        expect([...all].reverse().sort(compareCallable)).toEqual(sorted)
      }),
    ))
})
