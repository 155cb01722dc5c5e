import { LEVEL, UNKNOWN } from './fields'
import { fold, nameWordsOf } from './fold'
import { hashMore, hashOfTwo, hashText } from './hash'
import { int32List } from './int32List'
import { type NameWords, nameWords } from './nameWords'
import { hashPool, type Sealable, sealAll } from './pool'

export interface WrittenName {
  readonly fullName: string
  readonly givenName: string
  readonly familyName: string
}

/** The names of a list, each folded once and told by a number, however many bear it. */
export interface Names extends Sealable {
  /** Number of a name as it is written; its bearers are counted. */
  idOf(name: WrittenName): number
  /** Hash of the name as it is written, the same in every run. */
  hashOf(id: number): number
  /** Number of its words in order of the alphabet, so that their order in the cell does not count. 0 is no name. */
  keyOf(id: number): number
  /** Number of the family name with the initial of the given name: all that may be the same name written in another way. */
  kinOf(id: number): number
  wordCount(id: number): number
  /** How likely somebody bears its family name and its initial, of `size` contacts. */
  kinChanceOf(id: number, size: number): number
  /** How likely somebody bears just these words, each as common as it is in the list; of `size` contacts, two left out. */
  chanceOf(id: number, size: number): number
  eachWord(id: number, tell: (word: number) => void): void
  readonly words: NameWords
  /**
   * Position of the level at which two names stand to each other, or `UNKNOWN`.
   * @param keyOfA its `keyOf`, where whoever asks knows it
   */
  compare(a: number, b: number, keyOfA?: number, keyOfB?: number): number
}

/** A word that only the two in question bear counts like so many bearers. */
const RAREST = 0.5
/** How many names begin with one letter: names crowd on the common ones. */
const OF_INITIAL = 0.1
/** A name has about so many. */
const WORDS_EACH = 3
/** More words than these are no name. */
const MOST_WORDS = 24
const { same, like, slip, part, family: familyLevel, given: givenLevel, other } = LEVEL.name

/** @param expected how many contacts are about to come, each with a name */
export function pairNames(expected: number): Names {
  const written = hashPool(expected)
  const keyPool = hashPool(expected)
  const givenPool = hashPool()
  const words = nameWords()
  const keys = int32List(expected)
  const givens = int32List(expected)
  const families = int32List(expected)
  const initials = int32List(expected)
  const starts = int32List(expected)
  const wordIds = int32List(expected * WORDS_EACH)
  const addName = ({ fullName, givenName, familyName }: WrittenName): void => {
    const all = nameWordsOf(fullName).slice(0, MOST_WORDS)
    const given = fold(givenName)
    const family = fold(familyName) || (given === '' ? (all.at(-1) ?? '') : '')
    keys.push(keyPool.idOf(all.length < 2 ? (all[0] ?? '') : [...all].sort().join(' ')))
    const before = given || (all.length > 1 && familyName === '' ? all.slice(0, -1).join(' ') : '')
    givens.push(givenPool.idOf(before))
    initials.push(before === '' ? 0 : before.charCodeAt(0))
    families.push(words.idOf(family))
    for (const word of all) wordIds.push(words.idOf(word))
    starts.push(wordIds.length)
  }
  starts.push(0)
  // The pool knows the empty text as 0.
  addName({ fullName: '', givenName: '', familyName: '' })
  const wordCount = (id: number): number => starts.at(id + 1) - starts.at(id)
  const stretchOf = (id: number): Stretch => ({ from: starts.at(id), count: wordCount(id), family: families.at(id) })
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
    seal: () => sealAll([written, keyPool, givenPool, words]),
    keyOf: keys.at,
    kinOf: (id) => (families.at(id) === 0 ? 0 : hashOfTwo(words.hashOf(families.at(id)), initials.at(id)) >>> 0),
    wordCount,
    kinChanceOf: (id, size) => (Math.max(RAREST, words.bearersOf(families.at(id)) - 2) / size) * OF_INITIAL,
    chanceOf: (id, size) => {
      let chance = 1
      for (let i = starts.at(id); i < starts.at(id + 1); i++)
        chance *= Math.max(RAREST, words.bearersOf(wordIds.at(i)) - 2) / size
      return chance
    },
    eachWord: (id, tell) => {
      for (let i = starts.at(id); i < starts.at(id + 1); i++) tell(wordIds.at(i))
    },
    compare: (a, b, keyOfA = keys.at(a), keyOfB = keys.at(b)) => {
      if (keyOfA === 0 || keyOfB === 0) return UNKNOWN
      if (keyOfA === keyOfB) return wordCount(a) > 1 ? same : part
      const [few, many] = wordCount(a) <= wordCount(b) ? [a, b] : [b, a]
      const match = matchWords(wordIds.at, stretchOf(few), stretchOf(many), words)
      if (match === 'like') return wordCount(few) > 1 ? like : part
      if (match === 'slip') return slip
      const [mine, theirs] = [families.at(a), families.at(b)]
      if (mine !== 0 && theirs !== 0 && (mine === theirs || words.areLike(mine, theirs))) return familyLevel
      return givens.at(a) !== 0 && givens.at(a) === givens.at(b) ? givenLevel : other
    },
  }
}

/** A name's stretch of the words of all names. */
interface Stretch {
  readonly from: number
  readonly count: number
  /** The word that is its family name. */
  readonly family: number
}

/**
 * How all words of the shorter name find theirs in the longer one: as they are or in another form, or by a slip in a
 * word that is no family name. Null where one finds none: initials alone are nobody's name.
 */
function matchWords(
  wordAt: (place: number) => number,
  few: Stretch,
  many: Stretch,
  words: NameWords,
): 'like' | 'slip' | null {
  let used = 0
  let whole = 0
  let rest = 0
  for (let i = 0; i < few.count; i++) {
    const word = wordAt(few.from + i)
    let at = 0
    while (at < many.count && (wordAt(many.from + at) !== word || (used & (1 << at)) !== 0)) at++
    if (at === many.count) rest |= 1 << i
    else used |= 1 << at
    if (at < many.count && !words.isInitial(word)) whole++
  }
  // Where no word is there whole, most are told apart by their first letters.
  if (whole === 0 && !shareInitial(wordAt, few, many, words)) return null
  let hasSlip = false
  let loose = 0
  for (let i = 0; i < few.count && rest !== 0; i++) {
    if ((rest & (1 << i)) === 0) continue
    const word = wordAt(few.from + i)
    let at = 0
    while (at < many.count && ((used & (1 << at)) !== 0 || !areLoosely(words, word, wordAt(many.from + at)))) at++
    if (at === many.count) return null
    used |= 1 << at
    const found = wordAt(many.from + at)
    if (!words.isInitial(word) && !words.isInitial(found)) loose++
    const isFamily = word === few.family && found === many.family
    if (!isFamily && !words.areForms(word, found) && !words.areKeyedApart(word, found)) hasSlip = true
  }
  if (whole > 0) return hasSlip ? 'slip' : 'like'
  // No word is there whole: one that is nearly there makes a name with the others, initials alone make nobody's.
  return few.count > 1 && loose >= LEAST_LOOSE ? 'slip' : null
}

/** True where each word of the shorter name begins as some word of the longer one does. */
function shareInitial(wordAt: (place: number) => number, few: Stretch, many: Stretch, words: NameWords): boolean {
  for (let i = 0; i < few.count; i++) {
    const initial = words.initialOf(wordAt(few.from + i))
    let at = 0
    while (at < many.count && words.initialOf(wordAt(many.from + at)) !== initial) at++
    if (at === many.count) return false
  }
  return true
}

/** So many words in another form or with a slip, where none is there as it is and initials fit. */
const LEAST_LOOSE = 1

const areLoosely = (words: NameWords, a: number, b: number): boolean => words.areForms(a, b) || words.areLike(a, b)
