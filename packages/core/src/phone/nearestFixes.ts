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
    const at = fix.kind === 'other-country' ? null : country
    const { numbers, problem } = readPhoneCell(fix.text, { country: at })
    const [number] = numbers
    if (number?.valid && problem === null && numbers.length === 1 && !found.has(number.e164))
      found.set(number.e164, fix)
  }
  return [...found.values()]
}

/** What stands for a digit where a text was copied by eye, or by a machine that reads pictures. */
const LOOK_LIKE: Readonly<Record<string, string>> = {
  ...{ O: '0', o: '0', Q: '0', D: '0' },
  ...{ I: '1', i: '1', l: '1', '|': '1' },
  ...{ Z: '2', z: '2', A: '4', S: '5', s: '5', G: '6', b: '6', T: '7', B: '8', g: '9', q: '9' },
}

/** At the beginning, other letters are those of an order or a customer. */
const IN_PLACE = /^\W*[OolI|]|(?<=\d.*)[\p{L}|]/gu

/** A text whose letters all look like digits, as those digits; null for any other. */
function withoutLookalikes(text: string): string | null {
  const meant = text.replace(IN_PLACE, (found) => found.slice(0, -1) + (LOOK_LIKE[found.slice(-1)] ?? found.slice(-1)))
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
