import { digitsOf } from './characters'

/** What a text is as one number. */
export type Likeness = 'stands' | 'mended' | 'none'

/** Texts of single numbers, and digits that belong to none. */
export interface Parted {
  readonly numbers: readonly string[]
  readonly leftOver: readonly string[]
}

/** Nothing else can stand between two numbers. */
const CERTAIN = /[\r\n|]+|;|&|\s\+\s(?=\d)|(?<=\d)\s*(?=\+\d)|\s[•·]\s/
/** What mostly parts numbers, and stands inside single ones too. */
const LIKELY = /\/{1,2}|,|\s{2,}|\t|\s-\s|:|\s=\s|\*|_/
const GAP = /[\s./,:;-]+/g
/** What parts a number from a count beside it: a dot stands inside those. */
const GAP_BESIDE_COUNT = /[\s/,:;-]+/g
const LEAST_DIGITS = 6
const LEAST_APART = 7
/** No plan has longer numbers in use: what is longer in a generous plan is two numbers where it can be. */
const MOST_IN_USE = 12
/** More groups than these are no phone numbers. */
const MOST_GROUPS = 16
/** Most digits of an hour or a count beside a number. */
const LONGEST_COUNT = 4

/**
 * The single numbers of digits and signs. All digits together come first, where they are a number: any sign may stand
 * inside one.
 * @param likenessOf what a text is as one number
 * @param hasWords words stood beside the digits: a few of them may belong to those ("9-17", "2")
 */
export function partNumbers(text: string, likenessOf: (text: string) => Likeness, hasWords: boolean): Parted {
  const listed = withoutCounting(text)
  const parts = listed.split(CERTAIN).filter(holdsDigits)
  const isOne = likenessOf(text) === 'stands'
  if (parts.length > 1 && parts.every((part) => digitsOf(part).length >= LEAST_DIGITS - 1)) {
    const isLong = digitsOf(text).length > MOST_IN_USE
    if (!isOne || (isLong && parts.every((part) => likenessOf(part) === 'stands')))
      return together(parts.map((part) => partLikely(part, likenessOf, hasWords)))
  }
  return isOne ? one(text) : partLikely(listed, likenessOf, hasWords)
}

const one = (text: string): Parted => ({ numbers: [text], leftOver: [] })

const together = (parted: readonly Parted[]): Parted => ({
  numbers: parted.flatMap(({ numbers }) => numbers),
  leftOver: parted.flatMap(({ leftOver }) => leftOver),
})

const holdsDigits = (part: string): boolean => /\d/.test(part)

/** `1) … 2) …` on lines of their own, without the counting. */
function withoutCounting(text: string): string {
  const counted = /^\s*\(?1\s*[).:]\s*(?=[+(\d])(.*?)[\s,;/]+\(?2\s*[).:]\s*(?=[+(\d])(.*)$/s.exec(text)
  if (!counted) return text
  return `${counted[1]}\n${(counted[2] ?? '').replace(/[\s,;/]+\(?[3-9]\s*[).:]\s*(?=[+(\d])/g, '\n')}`
}

function partLikely(text: string, likenessOf: (text: string) => Likeness, hasWords: boolean): Parted {
  const asOne = likenessOf(text)
  if (asOne === 'stands') return one(text)
  const parts = text.split(LIKELY).filter(holdsDigits)
  const areNumbers = parts.length > 1 && parts.every((part) => digitsOf(part).length >= LEAST_DIGITS)
  if (asOne === 'none' && areNumbers && parts.some((part) => likenessOf(part) !== 'none'))
    return together(parts.map((part) => partLikely(part, likenessOf, hasWords)))
  const groups = text.split(GAP).filter(holdsDigits)
  if (groups.length > MOST_GROUPS) return one(text)
  const apart = partGroups(text, likenessOf)
  if (apart !== null) return { numbers: apart, leftOver: [] }
  return (hasWords && asOne === 'none' && withoutCounts(text, likenessOf)) || one(text)
}

/** What stands before and behind each gap of a text. */
function* aroundGaps(text: string, gap: RegExp): Generator<readonly [head: string, tail: string]> {
  for (const match of text.matchAll(gap)) yield [text.slice(0, match.index), text.slice(match.index + match[0].length)]
}

/** Numbers with nothing but a gap between them: only where every part is one as it stands. */
function partGroups(text: string, likenessOf: (text: string) => Likeness): readonly string[] | null {
  for (const [head, tail] of aroundGaps(text, GAP)) {
    if (digitsOf(head).length < LEAST_APART || digitsOf(tail).length < LEAST_APART) continue
    if (likenessOf(head) !== 'stands') continue
    const behind = likenessOf(tail) === 'stands' ? [tail] : partGroups(tail, likenessOf)
    if (behind) return [head, ...behind]
  }
  return null
}

/** A number beside a few digits that belong to the words around it. */
function withoutCounts(text: string, likenessOf: (text: string) => Likeness): Parted | null {
  for (const [head, tail] of aroundGaps(text, GAP_BESIDE_COUNT)) {
    if (digitsOf(head).length <= LONGEST_COUNT && likenessOf(tail) === 'stands')
      return { numbers: [tail], leftOver: [head] }
    if (digitsOf(tail).length <= LONGEST_COUNT && likenessOf(head) === 'stands')
      return { numbers: [head], leftOver: [tail] }
  }
  return null
}
