import { digitsOf, plainCharacters } from './characters'
import { readPhoneCell } from './readPhoneCell'
import { mendSpreadsheetDamage } from './spreadsheetDamage'

/** Something a cell may have been meant to be, for a person to accept or not. */
export interface Fix {
  readonly kind:
    | 'letter-for-digit'
    | 'letter-left-out'
    | 'digits-swapped'
    | 'digit-dropped'
    | 'other-country'
    | 'reading'
    | 'domain'
    | 'parts-joined'
    | 'part'
    | 'person'
    | 'code'
  /** What to put into the cell. */
  readonly text: string
}

const MOST = 3
const LONGEST = 18

/**
 * What an unreadable cell may have been: a slip of one key taken back, or the number of another country that lists
 * mix in. Never applied by itself: each is one possibility among several.
 * @returns up to three, likeliest first
 */
export function nearestFixes(raw: string, country: string | null): readonly Fix[] {
  const damage = mendSpreadsheetDamage(plainCharacters(raw).trim())
  // Of digits that a spreadsheet has lost, or put behind a point, none is guessed.
  if (damage.status === 'digits-lost') return []
  const { text } = damage
  const digits = digitsOf(text)
  if (digitsOf(withoutLookalikes(text) ?? text).length < 7 || digits.length > LONGEST) return []
  const plus = /^\W*\+/.test(text) ? '+' : ''
  const found = new Map<string, Fix>()
  for (const fix of possibilities(text, plus, digits, country)) {
    if (found.size === MOST) break
    const e164 = onlyNumberIn(fix.text, fix.kind === 'other-country' ? null : country)
    if (e164 !== null && !found.has(e164)) found.set(e164, fix)
  }
  return [...found.values()]
}

/**
 * What a cell was meant to be that holds nothing but digits and letters that look like them, also where there are too few
 * digits, or too many letters, to take it for a number.
 * @returns one at most
 */
export function lettersAsDigits(raw: string, country: string | null): readonly Fix[] {
  const text = withoutLookalikes(plainCharacters(raw).trim())
  return text === null || onlyNumberIn(text, country) === null ? [] : [{ kind: 'letter-for-digit', text }]
}

/** The one valid number that a text is without a doubt; null where it is none. */
export function onlyNumberIn(text: string, country: string | null): string | null {
  const { numbers, problem } = readPhoneCell(text, { country })
  const [number, ...others] = numbers
  return number?.valid && problem === null && others.length === 0 ? number.e164 : null
}

/** What stands for a digit where a text was copied by eye, or by a machine that reads pictures. */
const LOOK_LIKE: Readonly<Record<string, string>> = {
  ...{ O: '0', o: '0', Q: '0', D: '0' },
  ...{ I: '1', i: '1', l: '1', '|': '1' },
  ...{ Z: '2', z: '2', A: '4', S: '5', s: '5', G: '6', b: '6', T: '7', B: '8', g: '9', q: '9' },
}

/** Before the first digit, other letters are those of an order or a customer. */
const IN_FRONT = 'OolI|'

/** A text whose letters all look like digits, as those digits; null for any other. */
function withoutLookalikes(text: string): string | null {
  const first = text.search(/\d/)
  const meant = text.replace(/[\p{L}|]/gu, (letter, at: number) =>
    at > first || IN_FRONT.includes(letter) ? (LOOK_LIKE[letter] ?? letter) : letter,
  )
  return meant === text || /[\p{L}|]/u.test(meant) ? null : meant
}

function* possibilities(text: string, plus: string, digits: string, country: string | null): Generator<Fix> {
  const meant = withoutLookalikes(text)
  if (meant !== null) yield { kind: 'letter-for-digit', text: meant }
  if (/\p{L}/u.test(text)) yield { kind: 'letter-left-out', text: `${plus}${digits}` }
  // A key that was hit twice comes before any other digit too many.
  for (let i = 1; i < digits.length; i++) {
    if (digits[i] === digits[i - 1])
      yield { kind: 'digit-dropped', text: plus + digits.slice(0, i) + digits.slice(i + 1) }
  }
  for (let i = 1; i < digits.length; i++) {
    const [a = '', b = ''] = [digits[i - 1], digits[i]]
    if (a !== b) yield { kind: 'digits-swapped', text: plus + digits.slice(0, i - 1) + b + a + digits.slice(i + 1) }
  }
  if (plus === '' && (country === null || !digits.startsWith('0'))) yield { kind: 'other-country', text: `+${digits}` }
  for (let i = digits.length - 1; i >= 0; i--) {
    yield { kind: 'digit-dropped', text: plus + digits.slice(0, i) + digits.slice(i + 1) }
  }
}
