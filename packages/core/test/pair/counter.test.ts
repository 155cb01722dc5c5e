import { describe, expect, it } from '@jest/globals'
import fc from 'fast-check'
import { createCounter } from '../../src/pair/counter'

const MOST = 2 ** 32 - 1
const number = fc.oneof(fc.integer({ min: 0, max: 40 }), fc.integer({ min: 0, max: MOST }))

describe('createCounter', () => {
  it('tells of any two numbers what was set for them, and of others nothing', () => {
    const keys = fc.uniqueArray(fc.tuple(number, number), { maxLength: 400, selector: ([a, b]) => `${a} ${b}` })
    fc.assert(
      fc.property(keys, fc.nat(400), (all, known) => {
        const counter = createCounter()
        const set = all.slice(0, known)
        for (const [i, [one, other]] of set.entries()) counter.set(one, other, i + 1)
        expect(all.map(([one, other]) => counter.of(one, other))).toEqual(
          all.map((_, i) => (i < set.length ? i + 1 : 0)),
        )
      }),
    )
  })

  it('keeps what was set while it grows', () => {
    const counter = createCounter()
    const all = Array.from({ length: 5000 }, (_, i) => i)
    for (const i of all) counter.set(i % 7, MOST - i, i + 1)
    expect(all.every((i) => counter.of(i % 7, MOST - i) === i + 1)).toBe(true)
    expect(counter.of(0, 0)).toBe(0)
  })
})
