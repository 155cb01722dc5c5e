import { digitsOf } from './characters'
import type { Problem } from './types'

/** Things that stand in phone columns and are no numbers, whatever the plan would make of their digits. */
export function recogniseOtherThing(text: string): Problem | null {
  if (/^\+?[\d\s()]+$/.test(text)) return null
  if (/[^\s@]@[^\s@]+\.[^\s@]/.test(text)) return 'email'
  if (isDate(text)) return 'date'
  if (isAddressOfMachine(text)) return 'ip-address'
  if (isMasked(text)) return 'masked'
  if (isReference(text)) return 'reference-number'
  return null
}

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

/** Digits hidden by the seller: stars, dots, or letters x in the place of digits. A single x before digits is an extension. */
function isMasked(text: string): boolean {
  if (!/\d/.test(text)) return /^[x*•\s()+-]{5,}$/i.test(text)
  return (
    /[*•]/.test(text) || /(?<![a-z])(?:x[\s-]?){2,}(?![a-wyz])/i.test(text) || /#{2,}/.test(text) || /\dx+$/i.test(text)
  )
}

/** Letters glued to the front of digits (order and tax numbers): `ORD-2026-00417`, `ATU12345678`, `No. 4711-A`. */
function isReference(text: string): boolean {
  return (
    /^[A-Z]{2,6}[-/_#]\d/.test(text) ||
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
