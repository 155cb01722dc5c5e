import type { ColumnFacts } from './columnFacts'
import { type Field, isRepeatable } from './fields'
import { fold } from './fold'
import { fieldOfHeading, headingKey, type NamedField } from './headingWords'
import { GIVEN_NAMES } from './nameWords'

export const SUGGESTION_REASONS = [
  'heading',
  'cells',
  'heading-and-cells',
  'against-heading',
  'beside',
  'nothing',
  'known-other',
  'taken',
  'as-last-time',
] as const // prettier-ignore
export type SuggestionReason = (typeof SUGGESTION_REASONS)[number]

export interface FieldSuggestion {
  readonly field: Field | null
  /** 0 to 1. */
  readonly confidence: number
  readonly why: SuggestionReason
}

const NOTHING: FieldSuggestion = { field: null, confidence: 0.5, why: 'nothing' }

/** A field for each column: by its heading, by what its cells hold, and never the same single field twice. */
export function suggestFields(columns: readonly ColumnFacts[]): readonly FieldSuggestion[] {
  const first = settleNames(columns, columns.map(suggestField))
  const taken = new Set<Field>()
  const order = columns.map((_, i) => i)
  order.sort((a, b) => (first[b]?.confidence ?? 0) - (first[a]?.confidence ?? 0) || a - b)
  const result: FieldSuggestion[] = []
  for (const i of order) {
    const suggestion = first[i] ?? NOTHING
    const isFree = suggestion.field === null || isRepeatable(suggestion.field) || !taken.has(suggestion.field)
    if (suggestion.field && isFree) taken.add(suggestion.field)
    result[i] = isFree ? suggestion : { field: null, confidence: 0.6, why: 'taken' }
  }
  return result
}

function suggestField(facts: ColumnFacts): FieldSuggestion {
  const named = fieldOfHeading(facts.heading)
  const held = fieldOfCells(facts)
  if (!named) return held ?? NOTHING
  if (named.field === 'none') return overNone(facts, named, held)
  if (held && held.field === named.field) {
    return {
      field: named.field,
      confidence: Math.max(0.9, Math.min(0.99, named.confidence + 0.04)),
      why: 'heading-and-cells',
    }
  }
  if (contradicts(named.field, facts)) {
    return held ? { ...held, confidence: Math.min(held.confidence, 0.75), why: 'against-heading' } : NOTHING
  }
  return { field: named.field, confidence: named.confidence, why: 'heading' }
}

/** A heading such as "Address" or "Number of …" is no field, unless its cells are plainly e-mails. */
function overNone(facts: ColumnFacts, named: NamedField, held: FieldSuggestion | null): FieldSuggestion {
  if (held?.field === 'email' && facts.kinds.email > 0.8) return { ...held, why: 'against-heading' }
  return { field: null, confidence: named.confidence, why: 'known-other' }
}

function fieldOfCells({ blank, kinds, samples, countries }: ColumnFacts): FieldSuggestion | null {
  if (blank === 1) return null
  const byCells = (field: Field, confidence: number): FieldSuggestion => ({ field, confidence, why: 'cells' })
  if (kinds.email > 0.5) return byCells('email', kinds.email * 0.95)
  if (kinds.phone > 0.5 && countries.length > 0) return byCells('number', kinds.phone * 0.9)
  if (kinds.profile > 0.6) return byCells('profile', kinds.profile * 0.8)
  if (kinds.web + kinds.profile > 0.6) return byCells('web', (kinds.web + kinds.profile) * 0.75)
  if (kinds.country > 0.7) return byCells('country', kinds.country * 0.8)
  if (kinds.company > 0.3) return byCells('company', 0.4 + kinds.company * 0.4)
  if (kinds.town > 0.3) return byCells('city', 0.4 + kinds.town * 0.4)
  if (kinds['postal-code'] > 0.85) return byCells('postal-code', kinds['postal-code'] * 0.6)
  if (kinds.person > 0.6 && samples.some((cell) => /\S\s+\S/.test(cell.trim())))
    return byCells('full-name', kinds.person * 0.65)
  if (kinds.person > 0.35 && samples.some(isGiven)) return byCells('given-name', 0.3 + kinds.person * 0.4)
  return null
}

const isGiven = (cell: string): boolean => GIVEN_NAMES.has(fold(cell.trim()))

/** A heading is not believed where hardly any cell could be what it says. */
function contradicts(field: Field, facts: ColumnFacts): boolean {
  const { kinds, blank } = facts
  if (blank === 1) return false
  const other = 1 - kinds.phone - kinds['postal-code'] - kinds.amount
  if (field === 'number')
    return (
      kinds.email > 0.5 ||
      kinds.date > 0.5 ||
      // Two cells are too few to say that there are no numbers among them.
      (facts.samples.length > 2 && kinds.phone === 0 && other > 0.8) ||
      (facts.samples.length > 2 && kinds.phone < 0.1 && kinds.amount + kinds['postal-code'] > 0.8)
    )
  if (field === 'email') return kinds.email < 0.2
  if (field === 'title')
    return facts.samples.every((cell) =>
      /^(?:mr|mrs|ms|miss|mx|dr|prof|herr|frau|m|mme|mlle|sr|sra|sig|sig\.ra|dhr|mevr)\.?$/i.test(cell.trim()),
    )
  if (field === 'profile' || field === 'web') return kinds.web + kinds.profile < 0.2
  if (field === 'country') return kinds.date > 0.5 || kinds.email > 0.5 || kinds.phone > 0.5 || kinds.amount > 0.8
  if (field === 'birth-date') return facts.samples.length > 2 && facts.samples.every((cell) => !/\d/.test(cell))
  return kinds.email > 0.8 || (kinds.phone > 0.8 && field !== 'postal-code') || kinds.date > 0.8
}

/** Headings that mean a part of a name beside another part, and the whole name alone. */
const WHOLE_OR_FAMILY = new Set(['name', 'nom', 'naam'])
const WHOLE_OR_GIVEN = new Set(['nombre', 'nome'])

/**
 * `Name` beside `Vorname` is the family name, `Nombre` alone is the whole name; a column of family names without a
 * heading is told by the given names beside it.
 */
function settleNames(columns: readonly ColumnFacts[], first: readonly FieldSuggestion[]): FieldSuggestion[] {
  const keys = columns.map(({ heading }) => headingKey(heading))
  const has = (field: Field) => first.some((one) => one.field === field)
  const hasGiven = first.some((one, i) => one.field === 'given-name' && !WHOLE_OR_GIVEN.has(keys[i] ?? ''))
  const hasFamily = first.some((one, i) => one.field === 'family-name' && !WHOLE_OR_FAMILY.has(keys[i] ?? ''))
  const given = first.findIndex((one) => one.field === 'given-name')
  return first.map((one, i) => {
    const key = keys[i] ?? ''
    const facts = columns[i]
    if (WHOLE_OR_FAMILY.has(key) && (one.field === 'full-name' || one.field === 'family-name'))
      return { ...one, field: hasGiven ? 'family-name' : 'full-name', why: hasGiven ? 'beside' : one.why }
    if (WHOLE_OR_GIVEN.has(key) && one.field === 'given-name')
      return { ...one, field: hasFamily ? 'given-name' : 'full-name', why: hasFamily ? 'beside' : one.why }
    const isBeside = given >= 0 && Math.abs(given - i) === 1 && !has('family-name') && one.why === 'nothing'
    const areWords =
      facts !== undefined && facts.blank < 1 && facts.samples.every((cell) => /^[\p{L}'’ .-]{2,40}$/u.test(cell.trim()))
    if (isBeside && areWords && key.startsWith('column'))
      return { field: 'family-name', confidence: 0.55, why: 'beside' }
    return one
  })
}
