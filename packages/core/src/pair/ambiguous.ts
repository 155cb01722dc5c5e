import type { PairStore } from './pairFound'
import { placesOfContacts } from './placesOfContacts'

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
  // Each pair has two places, one for either contact.
  const { starts, places } = placesOfContacts(size, pairs.length * 2, (place) => {
    const pair = pairs[place >> 1] as number
    return place % 2 === 0 ? found.firstAt(pair) : found.secondAt(pair)
  })
  const hasRival = (at: number, chosen: number, least: number): boolean => {
    for (let i = starts[at] as number; i < (starts[at + 1] as number); i++) {
      const pair = pairs[(places[i] as number) >> 1] as number
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
