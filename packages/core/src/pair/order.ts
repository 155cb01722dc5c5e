import { eachRun, keySorter } from './sortedKeys'

/**
 * Positions in an order that is told by two hashes of what each holds: whatever is picked, parted or tied on the way,
 * is so in the same way however the rows stand. Where both hashes are alike, so are the contacts.
 */
export function canonicalOrder(first: Int32Array, second: Int32Array): Int32Array {
  const sorter = keySorter(first.length)
  for (let at = 0; at < first.length; at++) sorter.add((first[at] as number) >>> 0, at)
  const sorted = sorter.sort()
  const order = new Int32Array(first.length)
  eachRun(sorted, (from, to) => {
    const alike = Array.from({ length: to - from }, (_, i) => sorted.valueAt(from + i))
    if (alike.length > 1) alike.sort((a, b) => (second[a] as number) - (second[b] as number) || a - b)
    order.set(alike, from)
  })
  return order
}
