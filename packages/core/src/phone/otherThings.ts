import { digitsOf } from './characters'
import { labelOf } from './labels'
import { withoutOpenCarrier } from './oldForms'
import type { Problem } from './types'

/** Things that stand in phone columns and are no numbers, whatever the plan would make of their digits. */
export function recogniseOtherThing(text: string): Problem | null {
  if (/^\+?[\d\s()]+$/.test(text)) return null
  if (text.includes('@') && /^\S*[^\s@]@[^\s@]+\.[^\s@]+$/.test(text)) return 'email'
  if (isDate(text)) return 'date'
  if (isAddressOfMachine(text)) return 'ip-address'
  if (isMasked(text)) return 'masked'
  if (isReference(text)) return 'reference-number'
  if (!QUANTITY_SIGN.test(text)) return null
  if (isPlace(text)) return 'coordinates'
  return QUANTITIES.find(([, pattern]) => pattern.test(text))?.[0] ?? null
}

/** A latitude and a longitude, in degrees with decimals or with minutes. */
function isPlace(text: string): boolean {
  const [, latitude, longitude] = DECIMALS.exec(text) ?? []
  if (latitude !== undefined) return Math.abs(Number(latitude)) <= 90 && Math.abs(Number(longitude)) <= 180
  return MINUTES.test(text)
}

const CURRENCY =
  '(?:[\\p{Sc}]|(?:eur|usd|gbp|chf|sek|nok|dkk|pln|czk|huf|ron|try|rub|inr|cny|jpy|aud|nzd|cad|brl|mxn|zar)\\b|(?:euros?|dollars?|pounds?|kr)\\b)'
const TIME = '(?:[01]?\\d|2[0-4])(?:[:.h]\\d{2})?\\s*(?:uhr|h|hrs?|[ap]\\.?m\\.?)?'
const SPAN = '\\s*(?:-|to|bis|till|until|a|à)\\s*'
const MINUTES = /^[-+]?\d{1,3}\s*°\s*\d{1,2}\s*['′].*[NSEWO]$/i
const DECIMALS = /^([-+]?\d{1,3}\.\d{3,})\s*°?\s*[NSEWO]?\s*[,; ]\s*([-+]?\d{1,3}\.\d{3,})\s*°?\s*[NSEWO]?$/i

/** One of these stands in every quantity. */
const QUANTITY_SIGN = /[\p{Sc}\p{L}%°:.,;/-]/u

/** Quantities by what stands beside their digits. */
const QUANTITIES: readonly (readonly [Problem, RegExp])[] = [
  ['money', new RegExp(`^[-+]?${CURRENCY}\\s*[-+]?\\d[\\d\\s.,']*$|^[-+]?\\d[\\d\\s.,']*${CURRENCY}$`, 'iu')],
  ['percentage', /^[-+]?\d+(?:[.,]\d+)?\s*(?:%|percent|prozent|pct)$/i],
  [
    'opening-hours',
    new RegExp(
      `^(?:[\\p{L}.]+(?:\\s*[-,]\\s*[\\p{L}.]+)?[\\s:]+)?${TIME}(?:${SPAN}${TIME})+(?:\\s*[,;/&]\\s*${TIME}${SPAN}${TIME})*$`,
      'iu',
    ),
  ],
  ['date', /^(?:19|20)\d{2}\s*(?:[-/,;]|to|bis)\s*(?:19|20)?\d{2}$/i],
]

const DAY_FIRST = /^(\d{1,2})[./-](\d{1,2})[./-](\d{2}|(?:19|20)\d{2})(?:[ T]\d{1,2}:\d{2}(?::\d{2})?)?$/
const YEAR_FIRST = /^(?:19|20)\d{2}[./-](\d{1,2})[./-](\d{1,2})(?:[ T]\d{1,2}:\d{2}.*)?$/

function isDate(text: string): boolean {
  const match = DAY_FIRST.exec(text) ?? YEAR_FIRST.exec(text)
  if (!match) return false
  const first = Number(match[1])
  const second = Number(match[2])
  return first >= 1 && second >= 1 && Math.min(first, second) <= 12 && Math.max(first, second) <= 31
}

/** Four groups up to 255. Danes and Norwegians write numbers as four pairs with dots: those are left to the plan. */
function isAddressOfMachine(text: string): boolean {
  const groups = /^(\d{1,3})\.(\d{1,3})\.(\d{1,3})\.(\d{1,3})$/.exec(text)?.slice(1)
  if (!groups || groups.every((group) => group.length === 2)) return false
  return groups.every((group) => Number(group) <= 255)
}

/** Signs and letters in the place of digits, in every shape sellers hide them. */
const HIDDEN = /[*•●∙▪■□◦]|_{2,}|\?{2,}|(?<=\d)\?(?=\d)|\.{3,}|…|#{2,}|(?<![a-z])(?:x[\s-]?){2,}(?![a-wyz])|\d{2,}x+$/i
const MAY_HIDE = /[*•●∙▪■□◦_?…#xX]|\.\.\./
/** A lone star or dagger before or behind a whole number points to a note. */
const FOOTNOTE = /^[*†‡]\s*(?=[+(\d])|(?<=\d[)\]]?)\s*[*†‡]$/g
const LEAST_WITH_NOTE = 7

/** Digits hidden by the seller. A single x before digits is an extension. */
function isMasked(text: string): boolean {
  if (!/\d/.test(text)) return /^[x*•●·_?#.\s()+-]{5,}$/i.test(text)
  if (!MAY_HIDE.test(text)) return false
  const whole = withoutOpenCarrier(text)
  return HIDDEN.test(digitsOf(whole).length >= LEAST_WITH_NOTE ? whole.replace(FOOTNOTE, '') : whole)
}

/** Letters glued to the front of digits (order and tax numbers): `ORD-2026-00417`, `ATU12345678`, `No. 4711-A`. */
function isReference(text: string): boolean {
  const lettered = /^([A-Z]{2,6})[-/_#]\d/.exec(text)?.[1]
  return (
    (lettered !== undefined && labelOf(lettered, '') === null) ||
    /^(?:[A-Z]{2}U?)\d{8,12}$/.test(text) ||
    /^(?:order|invoice|inv|ref|vat|ust|id|auftrag|rechnung|commande|kd)\b/i.test(text)
  )
}

/** Thirteen to nineteen digits that pass the check digit of ISO/IEC 7812. */
export function isCardNumber(text: string): boolean {
  if (!/^[\d\s-]+$/.test(text)) return false
  const digits = digitsOf(text)
  if (digits.length < 13 || digits.length > 19) return false
  let sum = 0
  for (let i = 0; i < digits.length; i++) {
    const digit = Number(digits[digits.length - 1 - i])
    const doubled = i % 2 === 1 ? digit * 2 : digit
    sum += doubled > 9 ? doubled - 9 : doubled
  }
  return sum % 10 === 0
}
