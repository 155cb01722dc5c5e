import { remember } from '../remember'
import { PARTICLES } from './names'

type Case = 'upper' | 'lower' | 'mixed' | 'none'

function caseOf(word: string): Case {
  const upper = word.toUpperCase()
  const lower = word.toLowerCase()
  if (upper === lower) return 'none'
  return word === upper ? 'upper' : word === lower ? 'lower' : 'mixed'
}

/** More capitals than these shout, also behind a small letter: `McDonald` has two. */
const MOST_CAPITALS = 2

/** True where a small letter and a capital or two stand in each word, as in most names: no word needs a look. */
function isPlainlyMixed(name: string): boolean {
  let capitals = 0
  let small = 0
  for (let i = 0; i <= name.length; i++) {
    const code = i === name.length ? 0x20 : name.charCodeAt(i)
    if (code === 0x20) {
      if (capitals === 0 || small === 0 || capitals > MOST_CAPITALS) return false
      capitals = 0
      small = 0
    } else if (code >= 0x41 && code <= 0x5a) capitals++
    else if (code >= 0x61 && code <= 0x7a) small++
  }
  return true
}

/**
 * A name with the capitals it should have: where all of it is written in capitals or in small letters, and where one
 * word of it shouts or whispers beside another that does neither.
 */
export function mendNameCase(name: string): string {
  if (isPlainlyMixed(name)) return name
  const words = name.split(' ')
  const whole = caseOf(name)
  if (whole === 'none') return name
  if (whole === 'mixed') return mendWords(words, name)
  // Two capitals alone are initials, and no more is known of them.
  if (whole === 'upper' && words.every((word) => word.length <= 2)) return name
  return words.map((word, i) => wordCase(word, i > 0 && i < words.length - 1, isTurkish(name))).join(' ')
}

/** A capital and small letters behind it. */
const CASED = /^\p{Lu}[\p{Ll}\p{M}'’.-]+/u

function mendWords(words: readonly string[], name: string): string {
  if (!words.some((word) => CASED.test(word))) return name
  const shouts = words.some(isShouted)
  const last = words.length - 1
  return words
    .map((word, i) => {
      const isInside = i > 0 && i < last
      if (shouts && isInside && caseOf(word) === 'upper' && PARTICLES.has(word.toLowerCase())) return word.toLowerCase()
      if (isShouted(word)) return cased(word, isTurkish(name))
      const behind = SHOUTED_BEHIND.exec(word)
      if (behind?.[1] && behind[2]) return behind[1] + casedWord(behind[2].toLowerCase())
      return (i === 0 || i === last) && isWhispered(word) ? casedWord(word) : word
    })
    .join(' ')
}

const lettersOf = (word: string): string => word.replace(/[^\p{L}\p{M}]/gu, '')
const VOWEL = /[aeiouyàáâãäåæèéêëìíîïòóôõöøùúûüýąęóőűœāēīōūăěůıİ]/iu

/** A word in capitals that is no initials, no roman numeral and no abbreviation. */
function isShouted(word: string): boolean {
  const letters = lettersOf(word)
  if (letters.length < 3 || caseOf(word) !== 'upper' || /^(?:III|VII|VIII)$/.test(letters) || word.includes('.'))
    return false
  return !/\p{sc=Latin}/u.test(letters) || VOWEL.test(letters) || letters.length > 4
}

/** What begins a surname in small letters though the rest of it shouts: `McDONALD`, `d’ARCY`, `DeSANTIS`. */
const SHOUTED_BEHIND = /^(Mc|Mac|Fitz|De|Di|Du|La|Le|Van|[DdLlO]['’])(\p{Lu}{3,})$/u

const isWhispered = (word: string): boolean =>
  lettersOf(word).length >= 3 && caseOf(word) === 'lower' && /^\p{Ll}/u.test(word) && !PARTICLES.has(word)

/** Only Turkish writes a dot on a capital I: then the one without a dot is another letter. */
const isTurkish = (name: string): boolean => name.includes('İ')

function cased(word: string, turkish: boolean): string {
  if (!turkish) return casedWord(word.toLowerCase())
  return word
    .toLocaleLowerCase('tr')
    .replace(/(^|[-'’.])(\p{L})/gu, (_, before: string, letter: string) => before + letter.toLocaleUpperCase('tr'))
}

const wordCase = (word: string, isInside: boolean, turkish: boolean): string => {
  const lower = word.toLowerCase()
  return isInside && PARTICLES.has(lower) ? lower : cased(word, turkish)
}

/** The capital behind `Mc`, of a word that has its own already. */
export const behindMc = (word: string): string =>
  word.replace(/(^|-)Mc(\p{L})/gu, (_, before: string, letter: string) => `${before}Mc${letter.toUpperCase()}`)

const casedWord = remember((lower: string): string => {
  if (/^(?:ii|iii|iv)$/.test(lower)) return lower.toUpperCase()
  const capital = lower.replace(
    /(^|[-'’.])(\p{L})/gu,
    (_, before: string, letter: string) => before + letter.toUpperCase(),
  )
  return behindMc(capital)
    .replace(
      /(^|-)Mac([bdfglmnpqrst])(?=\p{L}{3})/gu,
      (_, before: string, letter: string) => `${before}Mac${letter.toUpperCase()}`,
    )
    .replace(/^(\p{Lu}\p{L}{2,})(['’])S$/u, '$1$2s')
}, 50_000)
