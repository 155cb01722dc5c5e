import { doubleMetaphone } from 'double-metaphone'
import { LEVEL, UNKNOWN } from './fields'
import { fold, wordsOf } from './fold'
import { hashOfText } from './hash'
import { areForms, isGivenName } from './nicknames'
import { pairMemo } from './pairMemo'
import { textPool } from './pool'
import { areAlike } from './similarity'

/** A name made ready for comparing: everything folded once, and kept once for all who bear it. */
export interface NameForm {
  /** Words of the whole name in order of the alphabet, so that their order in the cell does not count: a number. 0 is no name. */
  readonly key: number
  /** Words as numbers, in the order of the name. */
  readonly words: readonly number[]
  /** Given name as a text, and family name as the number of a word. 0 is none. */
  readonly given: string
  readonly family: number
  /** Hash of how the family name sounds; null where there is none. */
  readonly sound: number | null
}

/** The names of a list. */
export interface Names {
  /** Number of a name as it is written; its bearers are counted. */
  idOf(name: WrittenName): number
  readonly forms: readonly NameForm[]
  /** Hash of the name as it is written, the same in every run. */
  hashOf(id: number): number
  /** Hash of the first letters of a word, and code of the very first. */
  startOf(word: number): number
  initialOf(word: number): number
  /** Position of the level at which two names stand to each other, or `UNKNOWN`. */
  compare(a: NameForm, b: NameForm): number
}

export interface WrittenName {
  readonly fullName: string
  readonly givenName: string
  readonly familyName: string
}

/** More words than these are no name. */
const MOST_WORDS = 24
/** Letters that tell the start of a word. */
const START = 3
const { same, like, part, family: familyLevel, given: givenLevel, other } = LEVEL.name

export function pairNames(): Names {
  const written = textPool()
  const words = textPool()
  const keys = textPool()
  const starts: number[] = [0]
  const bearers: number[] = [0]
  const forms: NameForm[] = []
  const wordOf = (text: string): number => {
    const id = words.idOf(text)
    if (id === bearers.length) {
      starts.push(hashOfText(text.slice(0, START)))
      bearers.push(0)
    }
    return id
  }
  const textOf = (word: number): string => words.texts[word] as string
  const isInitial = (word: number): boolean => textOf(word).length === 1
  const areLike = (a: number, b: number): boolean =>
    areAlike(textOf(a), textOf(b)) && !areTwoNames(a, b, textOf, (word) => bearers[word] as number)
  const isAlike = pairMemo(areLike)
  const isLoosely = pairMemo((a, b) =>
    isInitial(a) || isInitial(b) ? textOf(a)[0] === textOf(b)[0] : areForms(textOf(a), textOf(b)) || areLike(a, b),
  )
  return {
    forms,
    idOf: (name) => {
      const id = written.idOf(`${name.fullName}\u0001${name.givenName}\u0001${name.familyName}`) - 1
      if (id === forms.length) forms.push(formOf(name, wordOf, keys.idOf))
      for (const word of (forms[id] as NameForm).words) bearers[word] = (bearers[word] as number) + 1
      return id
    },
    hashOf: (id) => written.hashOf(id + 1),
    startOf: (word) => starts[word] as number,
    initialOf: (word) => textOf(word).charCodeAt(0),
    compare: (a, b) => {
      if (a.key === 0 || b.key === 0) return UNKNOWN
      if (a.key === b.key) return a.words.length > 1 ? same : part
      const [few, many] = a.words.length <= b.words.length ? [a.words, b.words] : [b.words, a.words]
      const found = matchWords(few, many, isInitial, isLoosely)
      if (found === few.length) return few.length > 1 ? like : part
      if (a.family !== 0 && b.family !== 0 && (a.family === b.family || isAlike(a.family, b.family))) return familyLevel
      return a.given !== '' && a.given === b.given ? givenLevel : other
    },
  }
}

function formOf(
  { fullName, givenName, familyName }: WrittenName,
  wordOf: (text: string) => number,
  keyOf: (text: string) => number,
): NameForm {
  const words = wordsOf(fullName).slice(0, MOST_WORDS)
  const given = fold(givenName)
  const family = fold(familyName) || (given === '' ? (words.at(-1) ?? '') : '')
  return {
    key: keyOf(words.length < 2 ? (words[0] ?? '') : [...words].sort().join(' ')),
    words: words.map(wordOf),
    given: given || (words.length > 1 && familyName === '' ? words.slice(0, -1).join(' ') : ''),
    family: wordOf(family),
    sound: family === '' ? null : hashOfText(doubleMetaphone(family.slice(family.lastIndexOf(' ') + 1))[0]),
  }
}

/**
 * How many words of the shorter name stand in the longer one, or look like one of its words; -1 where no whole word
 * does: initials alone are nobody's name.
 */
function matchWords(
  few: readonly number[],
  many: readonly number[],
  isInitial: (word: number) => boolean,
  isLoosely: (a: number, b: number) => boolean,
): number {
  let used = 0
  let whole = 0
  let matched = 0
  let rest = 0
  for (let i = 0; i < few.length; i++) {
    const at = indexOfFree(many, used, few[i] as number)
    if (at === -1) {
      rest |= 1 << i
      continue
    }
    used |= 1 << at
    matched++
    if (!isInitial(few[i] as number)) whole++
  }
  if (whole === 0) return -1
  for (let i = 0; i < few.length && rest !== 0; i++) {
    if ((rest & (1 << i)) === 0) continue
    for (let j = 0; j < many.length; j++) {
      if ((used & (1 << j)) !== 0 || !isLoosely(few[i] as number, many[j] as number)) continue
      used |= 1 << j
      matched++
      break
    }
  }
  return matched
}

/** Where a word stands that was not matched with another yet, or -1. */
function indexOfFree(words: readonly number[], used: number, wanted: number): number {
  for (let i = 0; i < words.length; i++) if (words[i] === wanted && (used & (1 << i)) === 0) return i
  return -1
}

/** Fewer bearers do not make a word a name: a slip may be repeated. */
const LEAST_BEARERS = 3
/** A slip is so many times rarer than the name at least. */
const RARER = 8

/** Two like words that are a name each, not a slip for the other: both are given to people, here or at all. */
function areTwoNames(
  a: number,
  b: number,
  textOf: (word: number) => string,
  bearersOf: (word: number) => number,
): boolean {
  if (isGivenName(textOf(a)) && isGivenName(textOf(b))) return true
  const [fewer, more] = bearersOf(a) < bearersOf(b) ? [bearersOf(a), bearersOf(b)] : [bearersOf(b), bearersOf(a)]
  return fewer >= LEAST_BEARERS && fewer * RARER > more
}
