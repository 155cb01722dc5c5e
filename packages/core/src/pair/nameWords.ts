import { int32List } from './int32List'
import { areForms, isGivenName } from './nicknames'
import { pairMemo } from './pairMemo'
import { type Sealable, textPool } from './pool'
import { areAlike, areKeyedApart, mayBeAlike } from './similarity'

/** The words that names are made of, by numbers. 0 is none. */
export interface NameWords extends Sealable {
  idOf(word: string): number
  countBearer(word: number): void
  bearersOf(word: number): number
  isInitial(word: number): boolean
  hashOf(word: number): number
  /** Code of the first letter of a word. */
  initialOf(word: number): number
  /** The same word but for a slip of a key. */
  areLike(a: number, b: number): boolean
  /** The same word but for two keys changed about, or one lost or hit twice, inside it: hardly another name. */
  areKeyedApart(a: number, b: number): boolean
  /** One name all the same: an initial of the other, or a short or familiar form. */
  areForms(a: number, b: number): boolean
}

export function nameWords(): NameWords {
  const pool = textPool()
  const initials = int32List()
  const lengths = int32List()
  const lasts = int32List()
  const bearers: number[] = []
  const areGiven: boolean[] = []
  const areOpen: boolean[] = []
  const describe = (text: string): void => {
    initials.push(text === '' ? 0 : text.charCodeAt(0))
    lasts.push(text === '' ? 0 : text.charCodeAt(text.length - 1))
    lengths.push(text.length)
    bearers.push(0)
    areGiven.push(isGivenName(text))
    areOpen.push(text.includes('?'))
  }
  describe('')
  const textOf = (word: number): string => pool.texts[word] as string
  const isInitial = (word: number): boolean => lengths.at(word) === 1
  const likeByLetters = pairMemo((a, b) => areAlike(textOf(a), textOf(b)) && !areTwoNames(a, b, areGiven, bearers))
  // Most words are unlike at a glance.
  const areLike = (a: number, b: number): boolean =>
    a === b ||
    (mayBeAlike(
      { length: lengths.at(a), first: initials.at(a), last: lasts.at(a) },
      { length: lengths.at(b), first: initials.at(b), last: lasts.at(b) },
    ) &&
      likeByLetters(a, b))
  const isShortened = (a: number, b: number): boolean => {
    if (initials.at(a) !== initials.at(b)) return false
    const [short, long] = lengths.at(a) <= lengths.at(b) ? [a, b] : [b, a]
    return (
      lengths.at(short) > 1 &&
      lengths.at(long) - lengths.at(short) >= LEAST_LEFT_OUT &&
      !(areGiven[short] && areGiven[long]) &&
      textOf(long).startsWith(textOf(short))
    )
  }
  return {
    idOf: (word) => {
      const id = pool.idOf(word)
      if (id === bearers.length) describe(word)
      return id
    },
    countBearer: (word) => {
      bearers[word] = (bearers[word] as number) + 1
    },
    bearersOf: (word) => bearers[word] as number,
    isInitial,
    hashOf: pool.hashOf,
    seal: pool.seal,
    initialOf: initials.at,
    areLike,
    areKeyedApart: (a, b) => {
      if (Math.min(lengths.at(a), lengths.at(b)) < LEAST_KEYED) return false
      if (initials.at(a) !== initials.at(b) || lasts.at(a) !== lasts.at(b)) return false
      return areKeyedApart(textOf(a), textOf(b)) && !areTwoNames(a, b, areGiven, bearers)
    },
    areForms: (a, b) => {
      if (areOpen[a] || areOpen[b]) return fitsOpen(textOf(a), textOf(b))
      if (isInitial(a) || isInitial(b)) return initials.at(a) === initials.at(b)
      return (areGiven[a] && areGiven[b] && areForms(textOf(a), textOf(b))) || isShortened(a, b)
    },
  }
}

/** The same letters, where `?` is any one, or the two that a language writes for it. */
function fitsOpen(a: string, b: string): boolean {
  const [open, other] = a.includes('?') ? [a, b] : [b, a]
  const more = other.length - open.length
  return other.length > 1 && more >= 0 && more <= open.length && fitsFrom(open, 0, other, 0)
}

function fitsFrom(open: string, i: number, other: string, j: number): boolean {
  while (i < open.length && open[i] !== '?') if (open[i++] !== other[j++]) return false
  if (i === open.length) return j === other.length
  return (
    j < other.length &&
    (fitsFrom(open, i + 1, other, j + 1) || (j + 1 < other.length && fitsFrom(open, i + 1, other, j + 2)))
  )
}

/** A slip in a shorter name may be another one (`Jan`, `Jana`). */
const LEAST_KEYED = 4

/** `Jo` for `Joanna`: fewer letters do not make a short form, but another name (`Ann` and `Anna`). */
const LEAST_LEFT_OUT = 3

/** Fewer bearers do not make a word a name: a slip may be repeated. */
const LEAST_BEARERS = 3
/** A slip is so many times rarer than the name at least. */
const RARER = 8

/** Two like words that are a name each, not a slip for the other: both are given to people, here or at all. */
function areTwoNames(a: number, b: number, areGiven: readonly boolean[], bearers: readonly number[]): boolean {
  if (areGiven[a] && areGiven[b]) return true
  const [mine, theirs] = [bearers[a] as number, bearers[b] as number]
  return Math.min(mine, theirs) >= LEAST_BEARERS && Math.min(mine, theirs) * RARER > Math.max(mine, theirs)
}
