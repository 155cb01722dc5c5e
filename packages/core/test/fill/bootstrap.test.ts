import { describe, expect, it } from '@jest/globals'
import fc from 'fast-check'
import { type Asked, expectOrder, NOT_ASKED, replayAsked } from '../../src/fill'

const randomFrom = (seed: number) => () => {
  seed = (Math.imul(seed, 1_664_525) + 1_013_904_223) >>> 0
  return seed / 4294967296
}
const asked: fc.Arbitrary<Asked> = fc.oneof(
  fc.constant(NOT_ASKED),
  fc.record({ cost: fc.nat(500), isFound: fc.boolean() }),
)
const samples = fc.array(fc.tuple(asked, asked, asked), { minLength: 1, maxLength: 30 })

describe('what an order is expected to bring', () => {
  it('is what the replay finds, scaled, within its range', () => {
    fc.assert(
      fc.property(samples, fc.nat(), fc.integer({ min: 1, max: 20 }), (sample, seed, times) => {
        for (const { order, usable, cost } of replayAsked(['a', 'b', 'c'], sample, null).choices) {
          const at = order.map((id) => 'abc'.indexOf(id))
          const expected = expectOrder(at, sample, sample.length * times, randomFrom(seed))
          expect([expected.usable.value, expected.cost.value]).toEqual([usable * times, cost * times])
          for (const { low, high } of [expected.usable, expected.cost]) expect(low).toBeLessThanOrEqual(high)
          expect(expected.usable.high).toBeLessThanOrEqual(sample.length * times)
        }
      }),
      { numRuns: 25 },
    )
  })

  it('covers the truth about nine times in ten', () => {
    let covered = 0
    for (let seed = 1; seed <= 100; seed++) {
      const random = randomFrom(seed * 7919)
      const sample = Array.from({ length: 150 }, () => [{ cost: 10, isFound: random() < 0.4 }])
      const { usable } = expectOrder([0], sample, 1000, random)
      if (usable.low <= 400 && 400 <= usable.high) covered++
    }
    expect(covered).toBeGreaterThanOrEqual(80)
    expect(covered).toBeLessThanOrEqual(98)
  })

  it('is nothing of an empty sample', () => {
    const nothing = { value: 0, low: 0, high: 0 }
    expect(expectOrder([0], [], 100, randomFrom(1))).toEqual({ usable: nothing, cost: nothing })
  })
})
