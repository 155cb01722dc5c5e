import { describe, expect, it } from '@jest/globals'
import fc from 'fast-check'
import { neighbour } from '../src/shell/useNeighbours'

describe('whom a key goes to', () => {
  it('is the first where nobody is chosen, or somebody else, and nobody else where there are no lines', () => {
    expect([neighbour([5, 7], null, 1), neighbour([5, 7], 9, -1), neighbour([], null, 1), neighbour([], 9, 1)]).toEqual(
      [5, 5, null, 9],
    )
  })

  it('is each contact once, however many lines it has, and stops at both ends', () => {
    const lines = fc.array(fc.record({ id: fc.nat({ max: 30 }), times: fc.integer({ min: 1, max: 3 }) }), {
      minLength: 1,
    })
    fc.assert(
      fc.property(lines, (some) => {
        const each = [...new Set(some.map(({ id }) => id))]
        const ids = each.flatMap((id, i) => Array<number>(some[i]?.times ?? 1).fill(id))
        const walk = (from: number | null, by: number) => {
          const seen: number[] = []
          for (let at = neighbour(ids, from, by); at !== null && at !== seen.at(-1); at = neighbour(ids, at, by))
            seen.push(at)
          return seen
        }
        expect(walk(null, 1)).toEqual(each)
        expect(walk(each.at(-1) ?? null, -1)).toEqual(each.toReversed().slice(each.length > 1 ? 1 : 0))
      }),
    )
  })
})
