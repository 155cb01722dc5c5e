import { CELL, type Cells, cellAt } from './cells'
import { eachRun, keySorter } from './sortedKeys'

/**
 * Positions in an order that is told by two hashes of what each holds: whatever is picked, parted or tied on the way,
 * is so in the same way however the rows stand. Where both hashes are alike, so are the contacts.
 */
export function canonicalOrder(contacts: { readonly size: number; readonly cells: Cells }): Int32Array {
  const sorter = keySorter(contacts.size)
  for (let at = 0; at < contacts.size; at++) sorter.add(cellAt(contacts, at, CELL.hash) >>> 0, at)
  const sorted = sorter.sort()
  const order = new Int32Array(contacts.size)
  const other = (at: number): number => cellAt(contacts, at, CELL.otherHash)
  eachRun(sorted, (from, to) => {
    const alike = Array.from({ length: to - from }, (_, i) => sorted.valueAt(from + i))
    if (alike.length > 1) alike.sort((a, b) => other(a) - other(b) || a - b)
    order.set(alike, from)
  })
  return order
}
