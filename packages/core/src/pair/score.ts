import { type Comparison, levelAt, PAIR_FIELDS, PAIR_LEVELS, type PairField, UNKNOWN } from './fields'
import type { Frequencies } from './frequencies'
import type { PairRecord } from './record'
import type { PairWeights } from './weights'

/** What people of one company have in common anyway. */
const COMPANY_BOUND: ReadonlySet<PairField> = new Set(['number', 'email', 'place'])

/** What a field says about two contacts: bits for one person (above zero) or for two. */
export interface Evidence {
  readonly field: PairField
  readonly level: string
  readonly bits: number
}

/** So many contacts are imagined beside those of the list, so that a value is not rare only because the list is short. */
const IMAGINED = 2000

/**
 * Weighs a comparison. What few hold weighs more: agreement on a value is judged by how often the value stands in the
 * list, beyond the two contacts themselves.
 */
export function weigh(
  comparison: Comparison,
  a: PairRecord,
  b: PairRecord,
  weights: PairWeights,
  frequencies: Frequencies,
): readonly Evidence[] {
  const found: Evidence[] = []
  const isOneCompany = levelAt(comparison, 'company') === 'same'
  for (let i = 0; i < PAIR_FIELDS.length; i++) {
    const at = comparison[i] ?? UNKNOWN
    if (at === UNKNOWN) continue
    const field = PAIR_FIELDS[i] as PairField
    const level = (PAIR_LEVELS[field] as readonly string[])[at] ?? ''
    const chances = isOneCompany && COMPANY_BOUND.has(field) ? weights.colleagues : weights.two
    // A company's line that only one name is known on is a line of the company's all the same.
    const isOfficeLine = field === 'number' && at === 0 && isOneCompany && !shareMobile(a, b)
    const usual = chances[field][isOfficeLine ? SHARED_AT : at] ?? 1
    const holders = at === 0 && !isOfficeLine ? holdersOf(field, a, b, frequencies) : null
    const chance =
      holders === null ? usual : (Math.max(0, holders - 2) + IMAGINED * usual) / (frequencies.size + IMAGINED)
    found.push({ field, level, bits: Math.log2((weights.one[field][at] ?? 1) / chance) })
  }
  return found
}

const SHARED_AT = PAIR_LEVELS.number.indexOf('shared')

/** They hold one mobile number. */
export const shareMobile = (a: PairRecord, b: PairRecord): boolean =>
  a.numbers.some(({ e164, isMobile }) => isMobile && b.numbers.some((other) => other.e164 === e164))

/** How many contacts hold what these two agree on; null where nothing is counted. */
function holdersOf(field: PairField, a: PairRecord, b: PairRecord, counts: Frequencies): number | null {
  switch (field) {
    case 'name':
      return counts.names(a.nameKey)
    case 'number':
      return fewest(
        a.numbers.map(({ e164 }) => e164),
        b.numbers.map(({ e164 }) => e164),
        counts.numbers,
      )
    case 'email':
      return fewest(
        a.emails.map(({ address }) => address),
        b.emails.map(({ address }) => address),
        counts.emails,
      )
    case 'company':
      return a.company === b.company ? counts.companies(companyKey(a, b)) : null
    // A place is as common as it is: whoever lives there is counted by the level.
    case 'place':
    case 'profile':
      return null
  }
}

/** A company with its place, where both tell it: of the same name there may be many. */
function companyKey(a: PairRecord, b: PairRecord): string {
  if (a.postalCode !== '' && a.postalCode === b.postalCode) return `${a.company}/${a.postalCode}`
  return a.city !== '' && a.city === b.city ? `${a.company}/${a.city}` : a.company
}

function fewest(mine: readonly string[], theirs: readonly string[], count: (value: string) => number): number | null {
  const both = mine.filter((value) => theirs.includes(value))
  return both.length === 0 ? null : Math.min(...both.map(count))
}

/** Bits for one person rather than two: above zero it is likelier that they are one. */
export const scoreOf = (evidence: readonly Evidence[], weights: PairWeights): number =>
  evidence.reduce((sum, { bits }) => sum + bits, -weights.against)
