import { type Reading, readPhoneCell } from '../phone'
import { readCountry } from './countries'
import { fold } from './fold'
import { GIVEN_NAMES, LEGAL_FORM, TRADE_WORD } from './nameWords'
import { TOWNS } from './towns'

export const CELL_KINDS = [
  'phone',
  'email',
  'web',
  'profile',
  'date',
  'country',
  'town',
  'postal-code',
  'person',
  'company',
  'amount',
  'words',
] as const // prettier-ignore
/** What one filled cell looks like, taken alone. */
export type CellKind = (typeof CELL_KINDS)[number]

const EMAIL = /^(?:mailto:)?["'<(]*[^\s@"<>]+@[^\s@"<>]+\.[^\s@"<>]{2,}["'>)]*$/i
const WEB = /^(?:https?:\/\/\S+|www\.\S+|[\w-]+(?:\.[\w-]+)*\.[a-z]{2,12}(?:\/\S*)?)$/i
const PROFILE =
  /^(?:https?:\/\/)?(?:www\.)?[\w.-]+\.[a-z]{2,12}\/(?:in|p|u|pub|profile|profil|person|people|people-directory|members?|user|@)[/-]?[\w%@.-]+/i
const DATE =
  /^(?:\d{1,2}[./-]\d{1,2}[./-]\d{2,4}|\d{4}[./-]\d{1,2}[./-]\d{1,2}|\d{1,2}\.? \p{L}{3,10}\.? \d{4}|\p{L}{3,10} \d{1,2}, \d{4})(?:[ T,]+\d{1,2}:\d{2}(?::\d{2})?.*)?$/u
const POSTAL =
  /^(?:(?:D|A|CH|F|I|E|NL|B|L|DK|S|FIN|PL|CZ)-)?(?:\d{4,6}(?:-\d{3,4})?|[A-Z]{1,2}\d[A-Z\d]? ?\d[A-Z]{2}|\d{4} ?[A-Z]{2}|\d{3} ?\d{2}|[A-Z]\d[A-Z] ?\d[A-Z]\d|[A-Z]\d{2} ?[A-Z\d]{4})$/i
const AMOUNT = /^[€$£]?\s?-?\d{1,3}(?:[.,' ]?\d{3})*(?:[.,]\d+)?\s?(?:[€$£%]|EUR|USD|GBP|CHF)?$/
const PERSON =
  /^(?:[\p{L}.]{1,12}\.? )?\p{Lu}[\p{L}'’.-]*(?:,? (?:\p{Lu}[\p{L}'’.-]*|v[ao]n|de[rnl]?|di|da|du|la|le|ten|ter|zu|af|y|e)){1,4}$/u

const LONGEST_VALUE = 300

/** A cell with what it looks like; the reading of a phone cell is kept, since it is dear. */
export interface KindOfCell {
  readonly kind: CellKind
  readonly reading: Reading | null
}

const plain = (kind: CellKind): KindOfCell => ({ kind, reading: null })

/** The likeliest kind of one filled cell. `country` is where its numbers are dialled from, if known. */
export function kindOfCell(text: string, country: string | null): KindOfCell {
  const cell = text.trim()
  // Patterns are for values; a longer text is none.
  if (cell.length > LONGEST_VALUE) return plain('words')
  if (EMAIL.test(cell)) return plain('email')
  if (DATE.test(cell)) return plain('date')
  const reading = phoneReading(cell, country)
  if (reading) return { kind: 'phone', reading }
  if (PROFILE.test(cell)) return plain('profile')
  if (WEB.test(cell) && !/^\d+(?:[.,]\d+)*$/.test(cell)) return plain('web')
  if (POSTAL.test(cell)) return plain('postal-code')
  if (AMOUNT.test(cell)) return plain('amount')
  return plain(kindOfWords(cell))
}

function kindOfWords(cell: string): CellKind {
  if (/\d{3}/.test(cell)) return 'words'
  if (readCountry(cell)) return 'country'
  const folded = fold(cell)
  if (TOWNS.has(folded.replace(/\s*[(,/].*$/, ''))) return 'town'
  if (LEGAL_FORM.test(cell) || TRADE_WORD.test(cell)) return 'company'
  const [first = ''] = folded.split(/[\s,]+/)
  if (GIVEN_NAMES.has(first) || GIVEN_NAMES.has(folded.split(/,\s*/)[1] ?? '')) return 'person'
  return PERSON.test(cell) ? 'person' : 'words'
}

/** The reading, where the cell is a telephone number or was one before it was hurt or masked. */
function phoneReading(cell: string, country: string | null): Reading | null {
  const digits = cell.replace(/\D/g, '').length
  if (digits < 5 || digits > 40) return null
  const reading = readPhoneCell(cell, { country })
  if (reading.problem === 'masked' || reading.problem === 'digits-lost') return reading
  if (digits < 7) return null
  if (reading.verdict === 'clean' || reading.verdict === 'repaired' || reading.verdict === 'placeholder') return reading
  // Without a country nine digits and more may be a number that lost its plus.
  return /^[+(0][\d\s()./+-]{7,24}$|^\d{9,15}$/.test(cell) ? reading : null
}
