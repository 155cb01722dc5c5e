import { isOneSlipApart } from '../slip'

const PREFIX = 4
const PREFIX_WEIGHT = 0.1

/** Letters of the first word that were found in the second: one list for all pairs. */
const matched = new Uint16Array(256)

/**
 * How alike two words are, from 0 to 1 (Jaro's measure with Winkler's credit for a common beginning).
 * Source: W. E. Winkler, "String Comparator Metrics and Enhanced Decision Rules", 1990.
 */
function jaroWinkler(a: string, b: string): number {
  if (a === b) return 1
  if (a.length === 0 || b.length === 0) return 0
  const reach = Math.max(0, (Math.max(a.length, b.length) >> 1) - 1)
  let usedInB = 0
  let matches = 0
  for (let i = 0; i < a.length && i < matched.length; i++) {
    const end = Math.min(b.length - 1, i + reach)
    for (let j = Math.max(0, i - reach); j <= end && j < 31; j++) {
      if ((usedInB & (1 << j)) !== 0 || a.charCodeAt(i) !== b.charCodeAt(j)) continue
      usedInB |= 1 << j
      matched[matches++] = a.charCodeAt(i)
      break
    }
  }
  if (matches === 0) return 0
  let changed = 0
  let at = 0
  for (let j = 0; j < b.length && j < 31; j++) {
    if ((usedInB & (1 << j)) === 0) continue
    if (b.charCodeAt(j) !== matched[at]) changed++
    at++
  }
  const jaro = (matches / a.length + matches / b.length + (matches - changed / 2) / matches) / 3
  let prefix = 0
  while (prefix < PREFIX && prefix < a.length && prefix < b.length && a[prefix] === b[prefix]) prefix++
  return jaro + prefix * PREFIX_WEIGHT * (1 - jaro)
}

const ALIKE = 0.92
/** Words of fewer letters are too close to each other to tell. */
const SHORTEST = 3
/** How much longer one of two like words can be, and the length up to which only a key hit twice is told. */
const LONGER = 3

/** What a word looks like at a glance. Letters are their codes. */
export interface Glance {
  readonly length: number
  readonly first: number
  readonly last: number
}

/**
 * False for words that cannot be alike, told without reading them: one that is much longer, or whose first letter is
 * another. Where that is the slip, the last is the same.
 */
export const mayBeAlike = (a: Glance, b: Glance): boolean =>
  a.length >= SHORTEST &&
  b.length >= SHORTEST &&
  Math.abs(a.length - b.length) <= LONGER &&
  (a.first === b.first || a.last === b.last)

/** The same word but for slips, which seldom begin a word. */
export function areAlike(a: string, b: string): boolean {
  if (a === b) return true
  const shorter = Math.min(a.length, b.length)
  if (shorter < SHORTEST || Math.abs(a.length - b.length) > LONGER) return false
  if (areKeyedApart(a, b)) return true
  if (shorter <= LONGER) return false
  return a.charCodeAt(0) === b.charCodeAt(0) ? jaroWinkler(a, b) >= ALIKE : isOneSlipApart(a, b)
}

/** Two keys changed about, or one lost or hit twice; of words of three letters, only one hit twice. */
export function areKeyedApart(a: string, b: string): boolean {
  if (!isOneSlipApart(a, b)) return false
  const [short, long] = a.length <= b.length ? [a, b] : [b, a]
  // Of as many letters, another letter may make another name (`Marten`, `Martin`): two changed about do not.
  if (short.length === long.length) return short.length > LONGER && sortedLetters(short) === sortedLetters(long)
  return short.length > LONGER || withoutDoubles(short) === withoutDoubles(long)
}

const sortedLetters = (word: string): string => [...word].sort().join('')
const withoutDoubles = (word: string): string => word.replace(/(.)\1/g, '$1')
