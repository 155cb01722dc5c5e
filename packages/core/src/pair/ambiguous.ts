import type { PairStore } from './pairFound'

/**
 * Pairs without those that could be another's as well: a contact whose likely partners contradict each other is joined
 * to neither without a person, unless the two hold what only one person holds, or are by far the likelier.
 * @param pairs places of those that count among all that were found
 * @param size how many contacts there are
 * @param contradicts true where two contacts cannot be one person
 * @returns the places of those that are left
 */
export function withoutAmbiguous(
  found: PairStore,
  pairs: Int32Array,
  size: number,
  contradicts: (a: number, b: number) => boolean,
): Int32Array {
  const { starts, places } = pairsOfContacts(found, pairs, size)
  const hasRival = (at: number, chosen: number, least: number): boolean => {
    for (let i = starts[at] as number; i < (starts[at + 1] as number); i++) {
      const pair = places[i] as number
      const first = found.firstAt(pair)
      const other = first === at ? found.secondAt(pair) : first
      if (other !== chosen && found.scoreAt(pair) > least && contradicts(other, chosen)) return true
    }
    return false
  }
  return pairs.filter((pair) => {
    if (found.isPersonalAt(pair)) return true
    const [a, b, least] = [found.firstAt(pair), found.secondAt(pair), found.scoreAt(pair) - FAR]
    return !hasRival(a, b, least) && !hasRival(b, a, least)
  })
}

/** Bits by which a pair is by far likelier than another: a thousand times. */
const FAR = 10

/** The pairs in which each contact is: those of contact `at` stand from `starts[at]` up to `starts[at + 1]`. */
function pairsOfContacts(found: PairStore, pairs: Int32Array, size: number) {
  const starts = new Int32Array(size + 1)
  const count = (at: number) => {
    starts[at + 1] = (starts[at + 1] as number) + 1
  }
  for (const pair of pairs) {
    count(found.firstAt(pair))
    count(found.secondAt(pair))
  }
  for (let at = 0; at < size; at++) starts[at + 1] = (starts[at + 1] as number) + (starts[at] as number)
  const next = starts.slice()
  const places = new Int32Array(pairs.length * 2)
  const put = (at: number, pair: number) => {
    places[next[at] as number] = pair
    next[at] = (next[at] as number) + 1
  }
  for (const pair of pairs) {
    put(found.firstAt(pair), pair)
    put(found.secondAt(pair), pair)
  }
  return { starts, places }
}
