import { digitsOf } from './characters'
import type { Likeness } from './severalNumbers'

const TAILS_BEHIND_SLASH = /(?:\s*\/\s*-?\d{1,4}(?!\d))+$/
/**
 * The digits right before the dash are more than those behind it: `85-65` are groups of one number, and so are three
 * digits behind one dash of several. A lone zero rings the switchboard (DIN 5008, 13.4) and is no other ending.
 */
const TAIL_BEHIND_DASH = /(?<=\d{4})(?!\s*-\s*0+$)(?:(?:\s*-\s*\d{1,2}(?!\d))+|(?<=^[^-]*)\s*-\s*\d{3})$/
const LEAST_STEM = 6
const STANDING: ReadonlySet<Likeness> = new Set(['stands'])
const ANY: ReadonlySet<Likeness> = new Set(['stands', 'mended'])

/** True where the end of a text may be another ending of the number before it. */
export const endsInDashTail = (text: string): boolean => TAIL_BEHIND_DASH.test(text)

/** Numbers that differ in their last digits only, and whether the whole may be one number as well. */
export interface StemNumbers {
  readonly numbers: readonly string[]
  readonly isOneToo: boolean
}

/**
 * `… 1234/5`, `…-32`, `…/11/12`: several numbers as long as each other, written once and then by their last digits.
 * A dash also stands before the extension that belongs to a number of an open plan (DIN 5008, 13.4): the whole is one
 * number too, and a person chooses.
 * @returns null where the text is no such thing, or not each of them is a number
 */
export function numbersOfStem(text: string, likenessOf: (text: string) => Likeness): StemNumbers | null {
  const whole = likenessOf(text)
  const tails = (TAILS_BEHIND_SLASH.exec(text) ?? TAIL_BEHIND_DASH.exec(text))?.[0]
  const endings = tails?.match(/\s*[/-]\s*-?\d+/g) ?? []
  // Nothing but endings stands behind a slash: what lost its zero may have them too.
  const least = whole === 'none' && tails?.includes('/') ? ANY : STANDING
  // A group of the stem itself may be as short as an ending.
  for (let first = 0; first < endings.length; first++) {
    const numbers = withEndings(text, endings.slice(first), (one) => least.has(likenessOf(one)))
    if (numbers) return { numbers, isOneToo: whole === 'stands' }
  }
  return null
}

function withEndings(
  text: string,
  endings: readonly string[],
  isNumber: (text: string) => boolean,
): readonly string[] | null {
  const stem = text.slice(0, text.length - endings.join('').length)
  if (digitsOf(stem).length < LEAST_STEM || !isNumber(stem)) return null
  const numbers = [stem, ...endings.map((ending) => withEnding(stem, digitsOf(ending)))]
  if (new Set(numbers.map(digitsOf)).size < numbers.length) return null
  return numbers.every(isNumber) ? numbers : null
}

/** A number with other last digits, its signs as they stand. */
function withEnding(stem: string, tail: string): string {
  let rest = tail
  let text = ''
  for (let i = stem.length - 1; i >= 0; i--) {
    const isDigit = /\d/.test(stem[i] ?? '')
    text = (isDigit && rest !== '' ? rest.slice(-1) : stem[i]) + text
    if (isDigit) rest = rest.slice(0, -1)
  }
  return text
}
