import { doubleMetaphone } from 'double-metaphone'
import { LEVEL, UNKNOWN } from './fields'
import { fold, wordsOf } from './fold'
import { hashMore, hashOfText, hashText } from './hash'
import { int32List } from './int32List'
import { type NameWords, nameWords } from './nameWords'
import { hashPool } from './pool'

export interface WrittenName {
  readonly fullName: string
  readonly givenName: string
  readonly familyName: string
}

/** The names of a list, each folded once and told by a number, however many bear it. */
export interface Names {
  /** Number of a name as it is written; its bearers are counted. */
  idOf(name: WrittenName): number
  /** Hash of the name as it is written, the same in every run. */
  hashOf(id: number): number
  /** Number of its words in order of the alphabet, so that their order in the cell does not count. 0 is no name. */
  keyOf(id: number): number
  /** Number of the family name with the initial of the given name: all that may be the same name written in another way. */
  kinOf(id: number): number
  wordCount(id: number): number
  eachWord(id: number, tell: (word: number) => void): void
  /** Hash of how the family name sounds; 0 where there is none. */
  soundOf(id: number): number
  readonly words: NameWords
  /** Position of the level at which two names stand to each other, or `UNKNOWN`. */
  compare(a: number, b: number): number
}

/** Codes of letters are below this. */
const MOST_INITIALS = 2 ** 16
/** More words than these are no name. */
const MOST_WORDS = 24
const { same, like, part, family: familyLevel, given: givenLevel, other } = LEVEL.name

export function pairNames(): Names {
  const written = hashPool()
  const keyPool = hashPool()
  const givenPool = hashPool()
  const words = nameWords()
  const keys = int32List()
  const givens = int32List()
  const families = int32List()
  const sounds = int32List()
  const initials = int32List()
  const starts = int32List()
  const wordIds = int32List()
  const addName = ({ fullName, givenName, familyName }: WrittenName): void => {
    const all = wordsOf(fullName).slice(0, MOST_WORDS)
    const given = fold(givenName)
    const family = fold(familyName) || (given === '' ? (all.at(-1) ?? '') : '')
    keys.push(keyPool.idOf(all.length < 2 ? (all[0] ?? '') : [...all].sort().join(' ')))
    const before = given || (all.length > 1 && familyName === '' ? all.slice(0, -1).join(' ') : '')
    givens.push(givenPool.idOf(before))
    initials.push(before === '' ? 0 : before.charCodeAt(0))
    families.push(words.idOf(family))
    sounds.push(family === '' ? 0 : hashOfText(doubleMetaphone(family.slice(family.lastIndexOf(' ') + 1))[0]))
    for (const word of all) wordIds.push(words.idOf(word))
    starts.push(wordIds.length)
  }
  starts.push(0)
  // The pool knows the empty text as 0.
  addName({ fullName: '', givenName: '', familyName: '' })
  const wordCount = (id: number): number => starts.at(id + 1) - starts.at(id)
  return {
    words,
    idOf: (name) => {
      hashText(name.fullName)
      hashMore(name.givenName)
      hashMore(name.familyName)
      const id = written.idOfHashed()
      if (id === keys.length) addName(name)
      for (let i = starts.at(id); i < starts.at(id + 1); i++) words.countBearer(wordIds.at(i))
      return id
    },
    hashOf: written.hashOf,
    keyOf: keys.at,
    kinOf: (id) => families.at(id) * MOST_INITIALS + initials.at(id),
    wordCount,
    eachWord: (id, tell) => {
      for (let i = starts.at(id); i < starts.at(id + 1); i++) tell(wordIds.at(i))
    },
    soundOf: sounds.at,
    compare: (a, b) => {
      if (keys.at(a) === 0 || keys.at(b) === 0) return UNKNOWN
      if (keys.at(a) === keys.at(b)) return wordCount(a) > 1 ? same : part
      const [few, many] = wordCount(a) <= wordCount(b) ? [a, b] : [b, a]
      const [from, count] = [starts.at(few), wordCount(few)]
      if (matchWords(wordIds.at, { from, count }, { from: starts.at(many), count: wordCount(many) }, words) === count)
        return count > 1 ? like : part
      const [mine, theirs] = [families.at(a), families.at(b)]
      if (mine !== 0 && theirs !== 0 && (mine === theirs || words.areLike(mine, theirs))) return familyLevel
      return givens.at(a) !== 0 && givens.at(a) === givens.at(b) ? givenLevel : other
    },
  }
}

/** A stretch of the words of all names. */
interface Stretch {
  readonly from: number
  readonly count: number
}

/**
 * How many words of the shorter name stand in the longer one, or look like one of its words; -1 where no whole word
 * does: initials alone are nobody's name.
 */
function matchWords(
  wordAt: (place: number) => number,
  few: Stretch,
  many: Stretch,
  { isInitial, areLoosely }: NameWords,
): number {
  let used = 0
  let whole = 0
  let matched = 0
  let rest = 0
  for (let i = 0; i < few.count; i++) {
    const word = wordAt(few.from + i)
    let at = 0
    while (at < many.count && (wordAt(many.from + at) !== word || (used & (1 << at)) !== 0)) at++
    if (at === many.count) {
      rest |= 1 << i
      continue
    }
    used |= 1 << at
    matched++
    if (!isInitial(word)) whole++
  }
  if (whole === 0) return -1
  for (let i = 0; i < few.count && rest !== 0; i++) {
    if ((rest & (1 << i)) === 0) continue
    for (let at = 0; at < many.count; at++) {
      if ((used & (1 << at)) !== 0 || !areLoosely(wordAt(few.from + i), wordAt(many.from + at))) continue
      used |= 1 << at
      matched++
      break
    }
  }
  return matched
}
