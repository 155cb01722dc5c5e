import { COMPARISONS, type Comparison, FIELD, levelOf, PAIR_FIELDS, type PairField, UNKNOWN } from './fields'

/** For each field and level, in the order of `PAIR_LEVELS`: how often it is met. Each field's shares add up to one. */
export type Shares = Readonly<Record<PairField, readonly number[]>>

/** What the levels are worth: how often each is met in pairs of one person, and in pairs of two. */
export interface PairWeights {
  readonly one: Shares
  readonly two: Shares
  /** In pairs of two people of one company: they have its place, its host and its switchboard in common anyway. */
  readonly colleagues: Shares
  /** In pairs of two people of one country: names are bound to it. */
  readonly compatriots: Shares
  /** Bits against two contacts picked at random being one person. */
  readonly against: number
}

/**
 * Where a list is too small to teach: shares judged beforehand. They count like this many pairs, so that a large
 * list outweighs them.
 */
const DEFAULT_ONE: Shares = {
  name: [0.78, 0.12, 0.04, 0.04, 0.01, 0.005, 0.005],
  number: [0.7, 0.12, 0.18],
  email: [0.74, 0.06, 0.02, 0.16, 0.02],
  profile: [0.97, 0.03],
  company: [0.86, 0.08, 0.01, 0.05],
  place: [0.8, 0.12, 0.06, 0.02],
  birth: [0.7, 0.27, 0.02, 0.01],
  street: [0.84, 0.1, 0.06],
}
const DEFAULT_TWO: Shares = {
  name: [0.0005, 0.001, 0.001, 0.003, 0.02, 0.03, 0.9445],
  number: [0.00001, 0.0005, 0.99949],
  email: [0.00001, 0.0003, 0.0003, 0.9988, 0.00059],
  profile: [0.00001, 0.99999],
  company: [0.001, 0.003, 0.002, 0.994],
  place: [0.004, 0.02, 0.326, 0.65],
  birth: [0.00006, 0.018, 0.003, 0.97894],
  street: [0.0004, 0.002, 0.9976],
}
const DEFAULT_COLLEAGUES: Shares = {
  ...DEFAULT_TWO,
  number: [0.001, 0.4, 0.599],
  email: [0.0005, 0.005, 0.2, 0.0945, 0.7],
  place: [0.7, 0.1, 0.18, 0.02],
}
const DEFAULT_PAIRS = 200

/** Comparisons that are alike, and how many pairs compare so. */
export interface Pattern {
  /** The field that brought the pairs together: of it they teach nothing. */
  readonly blocked: PairField | null
  readonly comparison: Comparison
  count: number
}

export interface PatternCounter {
  add(comparison: Comparison, blocked?: PairField | null): void
  patterns(): readonly Pattern[]
}

/** Counts comparisons that are alike together. */
export function countPatterns(): PatternCounter {
  const known = new Map<number, Pattern>()
  return {
    add: (comparison, blocked = null) => {
      const key = comparison + COMPARISONS * (blocked === null ? 0 : FIELD[blocked] + 1)
      const pattern = known.get(key)
      if (pattern) pattern.count++
      else known.set(key, { blocked, comparison, count: 1 })
    },
    // In one order, however the pairs came: sums of fractions depend on it.
    patterns: () => [...known].sort(([a], [b]) => a - b).map(([, pattern]) => pattern),
  }
}

const ROUNDS = 40
/** The shares of any two people count like so many pairs among those who share a key. */
const DEFAULT_AMONG = 20
const FIRST_GUESS = 0.3

export interface Namesakes {
  readonly pairs: number
  readonly same: number
}

/** What the weights of a list are learnt from. */
export interface LearntFrom {
  /** Comparisons of pairs that have an exact key in common: number, e-mail, profile or name. */
  readonly candidates: readonly Pattern[]
  /** Comparisons of pairs picked at random. */
  readonly random: readonly Pattern[]
  /** Comparisons of pairs of one company whose names differ. */
  readonly sameCompany: readonly Pattern[]
  /** Those of the pairs picked at random that are of one country. */
  readonly sameCountry: readonly Pattern[]
  /** Pairs of two people, and how many of them have the same name: all over, and in one country. */
  readonly namesakes: { readonly anywhere: Namesakes; readonly atHome: Namesakes }
  /** How many contacts there are. */
  readonly size: number
  /** The candidates are those of one contact in so many. */
  readonly oneIn: number
}

/**
 * Learns the weights of a list from itself, without being told who is who: expectation–maximisation over the
 * candidate pairs tells what pairs of one person look like, pairs picked at random tell what chance agreement is.
 * Source: I. P. Fellegi and A. B. Sunter, "A Theory for Record Linkage", 1969; W. E. Winkler's use of EM for it, 1988.
 */
export function learnWeights({
  candidates,
  random,
  sameCompany,
  sameCountry,
  namesakes,
  size,
  oneIn,
}: LearntFrom): PairWeights {
  const two = withNamesakes(
    sharesOf(random, () => 1, DEFAULT_TWO, DEFAULT_PAIRS * 10),
    namesakes.anywhere,
    DEFAULT_TWO,
  )
  const colleagues = sharesOf(sameCompany, () => 1, DEFAULT_COLLEAGUES, DEFAULT_PAIRS)
  const compatriots = withNamesakes(
    sharesOf(sameCountry, () => 1, two, DEFAULT_PAIRS),
    namesakes.atHome,
    two,
  )
  let one: Shares = DEFAULT_ONE
  // Pairs of two people who share a key all the same start as any two people do, so that the two kinds are not taken for
  // each other where nearly all that share a key are one person.
  let among: Shares = two
  let share = FIRST_GUESS
  const all = candidates.reduce((sum, { count }) => sum + count, 0)
  for (let round = 0; round < ROUNDS && all > 0; round++) {
    const likely = candidates.map((pattern) => {
      const yes = share * likelihood(one, pattern)
      return yes / (yes + (1 - share) * likelihood(among, pattern))
    })
    one = sharesOf(candidates, (i) => likely[i] ?? 0, DEFAULT_ONE, DEFAULT_PAIRS)
    among = sharesOf(candidates, (i) => 1 - (likely[i] ?? 0), two, DEFAULT_AMONG)
    const expected = candidates.reduce((sum, { count }, i) => sum + count * (likely[i] ?? 0), 0)
    share = Math.min(0.95, Math.max(0.001, expected / all))
  }
  const pairs = Math.max(1, (size * (size - 1)) / 2)
  // In a list without candidates, one contact in ten is taken to be there twice.
  const expected = Math.max(share * all * oneIn, size * LEAST_REPEATED)
  return { one, two, colleagues, compatriots, against: Math.log2(pairs / expected) }
}

/** Namesakes are counted apart, with those that were to be expected beforehand. */
function withNamesakes(shares: Shares, { pairs, same }: Namesakes, before: Shares): Shares {
  const pairsBefore = DEFAULT_PAIRS * 10
  const share = (same + (before.name[0] as number) * pairsBefore) / (pairs + pairsBefore)
  return { ...shares, name: [share, ...shares.name.slice(1)] }
}

const LEAST_REPEATED = 0.05

function likelihood(shares: Shares, { comparison, blocked }: Pattern): number {
  let product = 1
  for (let i = 0; i < PAIR_FIELDS.length; i++) {
    const level = levelOf(comparison, i)
    const field = PAIR_FIELDS[i] as PairField
    if (level !== UNKNOWN && field !== blocked) product *= shares[field][level] ?? 1
  }
  return product
}

/** Shares of the levels among weighted patterns, with the shares judged beforehand counted in. */
function sharesOf(
  patterns: readonly Pattern[],
  weightOf: (i: number) => number,
  before: Shares,
  pairsBefore: number,
): Shares {
  const sums = Object.fromEntries(
    PAIR_FIELDS.map((field) => [field, before[field].map((share) => share * pairsBefore)]),
  ) as Record<PairField, number[]>
  patterns.forEach(({ comparison, count, blocked }, i) => {
    const weight = count * weightOf(i)
    for (let f = 0; f < PAIR_FIELDS.length; f++) {
      const level = levelOf(comparison, f)
      const name = PAIR_FIELDS[f] as PairField
      const field = sums[name]
      if (level !== UNKNOWN && name !== blocked) field[level] = (field[level] ?? 0) + weight
    }
  })
  for (const field of PAIR_FIELDS) {
    const total = sums[field].reduce((sum, share) => sum + share, 0)
    sums[field] = sums[field].map((share) => Math.max(share / total, SMALLEST))
  }
  return sums
}

const SMALLEST = 1e-7
