import { describe, expect, it } from '@jest/globals'
import { findForgotten, type Holder } from '@upper-field/core/pair'

const holder = (id: number, name: string, numbers: string[], addresses: string[] = []): Holder => ({
  id,
  name,
  numbers,
  addresses,
})
const maren = holder(1, 'Maren Oldershaw', ['+447911204481'], ['maren@causeway.example'])

describe('findForgotten', () => {
  it('finds the person by an address under any name, and by a number under a name that can be theirs', () => {
    const { ids } = findForgotten(
      [maren],
      [
        holder(2, 'M. Oldershaw', ['+447911204481']),
        holder(3, 'Causeway Camping', [], ['maren@causeway.example']),
        holder(4, 'Tom Kestle', ['+447911204481']),
        holder(5, '', ['+447911204481']),
      ],
    )
    expect(ids).toEqual([1, 2, 3])
  })

  it('goes on from what it has found', () => {
    const { ids, keys } = findForgotten(
      [maren],
      [
        holder(2, 'Oldershaw, Maren', ['+447911204481'], ['m.oldershaw@heron.example']),
        holder(3, 'Maren O.', [], ['m.oldershaw@heron.example']),
      ],
    )
    expect(ids).toEqual([1, 2, 3])
    expect(keys).toEqual(['maren@causeway.example', 'm.oldershaw@heron.example', '+447911204481'])
  })

  it('does not keep out a number that other people hold', () => {
    const desk = '+441665555018'
    const { keys, heldByOthers } = findForgotten(
      [holder(1, 'Maren Oldershaw', [desk, '+447911204481'])],
      [holder(2, 'Tom Kestle', [desk])],
    )
    expect(keys).toEqual(['+447911204481'])
    expect(heldByOthers).toEqual([desk])
  })
})
