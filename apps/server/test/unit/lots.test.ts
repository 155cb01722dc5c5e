import { describe, expect, it } from '@jest/globals'
import fc from 'fast-check'
import { lotsOf } from '../../src/check/lots'
import { wholeOrders } from '../../src/check/wholeOrders'

const service = fc.record({ most: fc.integer({ min: 1, max: 1000 }), atOnce: fc.integer({ min: 1, max: 50 }) })
const total = fc.integer({ min: 0, max: 2_000_000 })

describe('orders of a check', () => {
  it('are no larger than the service takes, and no more at once than it takes calls', () => {
    fc.assert(
      fc.property(service, total, (of, all) => {
        const { orders, size } = lotsOf(of, all)
        expect(size).toBeGreaterThanOrEqual(1)
        expect(size).toBeLessThanOrEqual(of.most)
        if (of.most > 1) expect(orders).toBeLessThanOrEqual(of.atOnce)
      }),
    )
  })

  it('leave no more than a twelfth of a large check to be paid for by whoever stops it', () => {
    fc.assert(
      fc.property(service, fc.integer({ min: 10_000, max: 2_000_000 }), (of, all) => {
        const { orders, size } = lotsOf(of, all)
        expect(orders * size).toBeLessThanOrEqual(Math.ceil(all / 12))
      }),
    )
  })

  it('are one by one where the service takes one at a time, some of them at once', () => {
    expect(lotsOf({ most: 1, atOnce: 8 }, 5000)).toEqual({ orders: 20, size: 1 })
  })

  it('grow with the check', () => {
    const sizes = [100, 10_000, 30_000, 1_000_000].map((all) => lotsOf({ most: 1000, atOnce: 8 }, all).size)
    expect(sizes).toEqual([200, 200, 600, 1000])
  })
})

describe('orders that are settled together', () => {
  const orders = fc.array(fc.record({ subjects: fc.array(fc.string({ maxLength: 3 }), { maxLength: 12 }) }))

  it('are whole and in order, and no more than fit', () => {
    fc.assert(
      fc.property(orders, fc.integer({ min: 1, max: 20 }), (all, most) => {
        const runs = wholeOrders(all, most)
        expect(runs.flat()).toEqual(all)
        for (const run of runs) {
          const subjects = run.flatMap((one) => one.subjects).length
          if (run.length > 1) expect(subjects).toBeLessThanOrEqual(most)
        }
      }),
    )
  })

  it('are not parted into more runs than needed', () => {
    fc.assert(
      fc.property(orders, fc.integer({ min: 1, max: 20 }), (all, most) => {
        const runs = wholeOrders(all, most)
        for (const [at, run] of runs.entries()) {
          const next = runs[at + 1]?.[0]
          if (next) expect([...run, next].flatMap((one) => one.subjects).length).toBeGreaterThan(most)
        }
      }),
    )
  })
})
