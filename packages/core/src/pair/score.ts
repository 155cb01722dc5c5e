import { CELL, type Cell, cellAt } from './cells'
import { areCompatriots, areSame, shareMobile } from './compare'
import { type Comparison, FIELD, LEVEL, levelOf, PAIR_FIELDS, PAIR_LEVELS, type PairField, UNKNOWN } from './fields'
import type { Frequencies } from './frequencies'
import type { PairTable } from './pairTable'
import type { PairWeights, Shares } from './weights'

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

/** Weighs comparisons of a list by what was learnt from it. */
export interface Scale {
  /** Bits for one person rather than two: above zero it is likelier that they are one. */
  score(comparison: Comparison, a: number, b: number): number
  /** What each field adds to the score. */
  explain(comparison: Comparison, a: number, b: number): readonly Evidence[]
}

/**
 * What few hold weighs more: agreement on a value is judged by how often the value stands in the list, beyond the two
 * contacts themselves.
 */
export function scaleOf(table: PairTable, weights: PairWeights, frequencies: Frequencies): Scale {
  const kinds = [weights.two, weights.colleagues, weights.compatriots].map((chances) => ({
    chances,
    bits: bitsOf(weights.one, chances),
  }))
  const [two, colleagues, compatriots] = kinds as [Chances, Chances, Chances]
  const bitsAt = (comparison: Comparison, field: number, level: number, a: number, b: number): number => {
    const isOneCompany = levelOf(comparison, FIELD.company) === LEVEL.company.same
    const name = PAIR_FIELDS[field] as PairField
    const isBound = isOneCompany && COMPANY_BOUND.has(name)
    const isAtHome = field === FIELD.name && areCompatriots(table, a, b)
    const { chances, bits } = isBound ? colleagues : isAtHome ? compatriots : two
    const isLikeName = field === FIELD.name && (level === LEVEL.name.like || level === LEVEL.name.slip)
    if (level !== 0 && !isLikeName) return bits[field]?.[level] as number
    // A company's line that only one name is known on is a line of the company's all the same.
    if (field === FIELD.number && isOneCompany && !shareMobile(table, a, b)) return bits[field]?.[OFFICE_LINE] as number
    const holders = isLikeName ? kinOf(table, a, b, frequencies) : holdersOf(field, table, a, b, frequencies)
    if (holders === 0) return bits[field]?.[level] as number
    const size = isAtHome ? frequencies.countries(cellAt(table, a, CELL.country)) : frequencies.size
    const usual = chances[name][level] as number
    const expected = field === FIELD.name ? nameChance(table, a, b, level, usual) : usual
    const chance = (Math.max(0, holders - 2) + IMAGINED * expected) / (size + IMAGINED)
    return Math.log2((weights.one[name][level] as number) / chance)
  }
  return {
    score: (comparison, a, b) => {
      let sum = -weights.against
      for (let field = 0; field < PAIR_FIELDS.length; field++) {
        const level = levelOf(comparison, field)
        if (level !== UNKNOWN) sum += bitsAt(comparison, field, level, a, b)
      }
      return sum
    },
    explain: (comparison, a, b) =>
      PAIR_FIELDS.flatMap((name, field) => {
        const level = levelOf(comparison, field)
        if (level === UNKNOWN) return []
        return [
          { field: name, level: PAIR_LEVELS[name][level] as string, bits: bitsAt(comparison, field, level, a, b) },
        ]
      }),
  }
}

/** Given and family names go together: somebody with a rare one is likelier to bear the other. */
const TOGETHER = 4

/** How likely somebody else bears a name: told by its words, for two common ones are met together more often. */
function nameChance(table: PairTable, a: number, b: number, level: number, usual: number): number {
  const { names, size } = table
  const [mine, theirs] = [cellAt(table, a, CELL.name), cellAt(table, b, CELL.name)]
  if (Math.min(names.wordCount(mine), names.wordCount(theirs)) < 2) return usual
  if (level === LEVEL.name.same) return rareness(names.chanceOf(mine, size + BESIDE), size)
  if (level !== LEVEL.name.like) return usual
  const kin = Math.max(names.kinChanceOf(mine, size + BESIDE), names.kinChanceOf(theirs, size + BESIDE))
  return rareness(kin, size)
}

/** The words of a short list are counted among so many more contacts: how common they are, it cannot say. */
const BESIDE = 250
/** A list cannot tell that a name is rarer than one in so many times its contacts. */
const BEYOND_LIST = 60

const rareness = (chance: number, size: number): number => Math.max(1 / (size * BEYOND_LIST), TOGETHER * chance)

/** Behind the levels of a number: the bits of a company's own line, held by one name. */
const OFFICE_LINE = PAIR_LEVELS.number.length

/** How often the levels are met in pairs of two people of some kind, and what they are worth then. */
interface Chances {
  readonly chances: Shares
  readonly bits: readonly (readonly number[])[]
}

/** Bits of each level of each field, as far as the value itself does not count. */
function bitsOf(one: Shares, chances: Shares): readonly (readonly number[])[] {
  return PAIR_FIELDS.map((field) => {
    const bits = one[field].map((share, level) => Math.log2(share / (chances[field][level] as number)))
    if (field !== 'number') return bits
    return [...bits, Math.log2((one.number[0] as number) / (chances.number[LEVEL.number.shared] as number))]
  })
}

/** How many contacts may bear a name that is written in two ways: the more for either. */
function kinOf(table: PairTable, a: number, b: number, { kin }: Frequencies): number {
  const kinAt = (at: number) => kin(table.names.kinOf(cellAt(table, at, CELL.name)))
  return Math.max(kinAt(a), kinAt(b))
}

/** How many contacts hold what these two agree on; 0 where nothing is counted. */
function holdersOf(field: number, table: PairTable, a: number, b: number, counts: Frequencies): number {
  switch (field) {
    case FIELD.name:
      return counts.names(cellAt(table, a, CELL.nameKey))
    case FIELD.number:
      return fewestHolders(table, HELD.numbers, a, b, counts.numbers)
    case FIELD.email:
      return fewestHolders(table, HELD.emails, a, b, counts.emails)
    case FIELD.company:
      return areSame(table, a, b, CELL.company) ? counts.companies(a, b) : 0
    default:
      // A place is as common as it is: whoever lives there is counted by the level.
      return 0
  }
}

/** Of what contacts hold several. */
interface Held {
  readonly idsOf: (table: PairTable) => Int32Array
  readonly from: Cell
  readonly to: Cell
}
const HELD = {
  numbers: { idsOf: ({ numberIds }: PairTable) => numberIds, from: CELL.numbersFrom, to: CELL.numbersTo },
  emails: { idsOf: ({ emailIds }: PairTable) => emailIds, from: CELL.emailsFrom, to: CELL.emailsTo },
} satisfies Readonly<Record<string, Held>>

/** The fewest holders of anything that both hold. */
function fewestHolders(
  table: PairTable,
  { idsOf, from, to }: Held,
  a: number,
  b: number,
  count: (id: number) => number,
): number {
  const ids = idsOf(table)
  let fewest = 0
  for (let i = cellAt(table, a, from); i < cellAt(table, a, to); i++) {
    for (let j = cellAt(table, b, from); j < cellAt(table, b, to); j++) {
      if (ids[i] !== ids[j]) continue
      const holders = count(ids[i] as number)
      if (fewest === 0 || holders < fewest) fewest = holders
    }
  }
  return fewest
}
