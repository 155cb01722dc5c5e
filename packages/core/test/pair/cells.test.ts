import { describe, expect, it } from '@jest/globals'
import fc from 'fast-check'
import { CELL, orderCells, WIDTH } from '../../src/pair/cells'
import { canonicalOrder } from '../../src/pair/order'

const MOST = 40

const rowsOf = (cells: Int32Array): number[][] =>
  Array.from({ length: cells.length / WIDTH }, (_, at) => [...cells.subarray(at * WIDTH, (at + 1) * WIDTH)])

/** Each with numbers of its own. */
const cellsOf = (contacts: number): Int32Array => Int32Array.from({ length: contacts * WIDTH }, (_, i) => i)

/** Numbers below so many, each once, in any order. */
const anyOrder = fc
  .array(fc.nat(), { maxLength: MOST })
  .map((keys) => keys.map((key, at) => ({ key, at })).sort((a, b) => a.key - b.key || a.at - b.at))
  .map((sorted) => sorted.map(({ at }) => at))

describe('cells of contacts', () => {
  it('are brought into any order where they stand', () => {
    fc.assert(
      fc.property(anyOrder, (order) => {
        const cells = cellsOf(order.length)
        const before = rowsOf(cells)
        orderCells(cells, Int32Array.from(order))
        expect(rowsOf(cells)).toEqual(order.map((from) => before[from]))
      }),
    )
  })

  it('stand in an order that their hashes tell, whoever came first', () => {
    // So few that some are alike, in one or in both.
    const hash = fc.integer({ min: -2, max: 2 })
    fc.assert(
      fc.property(fc.array(fc.tuple(hash, hash), { maxLength: MOST }), (hashes) => {
        const inOrder = (given: typeof hashes) => {
          const cells = new Int32Array(given.length * WIDTH)
          for (const [at, [one, other]] of given.entries()) {
            cells[at * WIDTH + CELL.hash] = one
            cells[at * WIDTH + CELL.otherHash] = other
          }
          orderCells(cells, canonicalOrder({ cells, size: given.length }))
          return rowsOf(cells)
        }
        expect(inOrder(hashes)).toEqual(inOrder(hashes.toReversed()))
      }),
    )
  })
})
