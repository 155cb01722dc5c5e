/** Kinds of identifiers that networks match by, each with how often one matches where nothing else is known. */
export const IDENTIFIER_KINDS = [
  'personal-email',
  'work-email',
  'mobile',
  'other-number',
  'name-and-place',
  'device',
  'company-page',
  'site',
  'company-name',
] as const
export type IdentifierKind = (typeof IDENTIFIER_KINDS)[number]

/**
 * What is believed before anything was sent: the share that matches by one identifier alone, in the middle. From what
 * the trade tells: personal addresses match far better than those at work, and pages of companies almost surely.
 */
const USUAL: Readonly<Record<IdentifierKind, number>> = {
  'personal-email': 0.62,
  'work-email': 0.14,
  mobile: 0.4,
  'other-number': 0.04,
  'name-and-place': 0.22,
  device: 0.7,
  'company-page': 0.93,
  site: 0.75,
  'company-name': 0.25,
}

/** How far belief spreads round the usual, in logits; and how far one audience strays from its network's usual. */
const SPREAD = 0.35
const STRAY = 0.07
/**
 * How good the lists of an installation are, in logits: how many of their numbers and addresses are still their
 * holders'. Nobody knows before something came back; it is the same for all its audiences.
 */
const QUALITY = { middle: -0.3, spread: 0.4 }

/** How many have each set of identifiers; a set is its kinds in the order of the list, joined by `+`. */
export type IdentifierMix = Readonly<Record<string, number>>

/** The key of a set of identifiers within a mix. */
export const mixKey = (kinds: ReadonlySet<IdentifierKind>): string =>
  IDENTIFIER_KINDS.filter((kind) => kinds.has(kind)).join('+')

const kindsOf = (key: string): readonly IdentifierKind[] =>
  key === '' ? [] : (key.split('+') as IdentifierKind[]).filter((kind) => IDENTIFIER_KINDS.includes(kind))

/** An audience that a network told the size of. */
export interface MatchHistory {
  readonly mix: IdentifierMix
  readonly matched: number
}

export interface Forecast {
  /** People expected to match: the middle, and the ends of an interval that holds nine of ten. */
  readonly low: number
  readonly middle: number
  readonly high: number
  /** Of how many. */
  readonly people: number
  /** What somebody with this identifier alone matches by, as believed now; only of kinds that are in the mix. */
  readonly byKind: readonly { readonly kind: IdentifierKind; readonly people: number; readonly share: number }[]
  /** How many more would match if those who lack it had it; the most useful first. */
  readonly oneMore: readonly { readonly kind: IdentifierKind; readonly lacking: number; readonly more: number }[]
  /** Audiences of this network it has learnt from. */
  readonly learntFrom: number
}

/** The share that each kind matches, in the order of the kinds. */
type Shares = Float64Array

/** One belief, and what it weighs after what was told. */
interface Belief {
  readonly shares: Shares
  readonly weight: number
}

/** A mix ready to be counted many times: how many have which kinds, by their places among the kinds. */
type ReadMix = readonly { readonly n: number; readonly kinds: readonly number[] }[]

const readMix = (mix: IdentifierMix): ReadMix =>
  Object.entries(mix).map(([key, n]) => ({ n, kinds: kindsOf(key).map((kind) => IDENTIFIER_KINDS.indexOf(kind)) }))

const BELIEFS = 3000
const AUDIENCES_LEARNT_FROM = 12

/**
 * Forecasts how many of an audience will match, by beliefs about each kind of identifier that are weighed by what this
 * network has told of audiences before. A person matches where any of their identifiers does, each by itself. The same
 * question has the same answer.
 * @param kinds those the destination takes: only they are proposed as one more
 */
export function forecastMatch(
  mix: IdentifierMix,
  history: readonly MatchHistory[],
  kinds: readonly IdentifierKind[] = [],
): Forecast {
  const told = history.slice(-AUDIENCES_LEARNT_FROM)
  const beliefs = weighed(told)
  const normal = normals(2)
  const counted = readMix(mix)
  const outcomes = beliefs.map(({ shares, weight }) => {
    const { mean, variance } = expected(counted, shares)
    return { value: Math.max(0, mean + Math.sqrt(variance) * normal()), weight }
  })
  const people = Object.values(mix).reduce((sum, n) => sum + n, 0)
  const within = (value: number) => Math.min(people, Math.round(value))
  const [low, middle, high] = quantiles(outcomes, [0.05, 0.5, 0.95]) as [number, number, number]
  return {
    low: within(low),
    middle: within(middle),
    high: within(high),
    people,
    byKind: IDENTIFIER_KINDS.flatMap((kind) => {
      const holders = countOf(mix, (key) => kindsOf(key).includes(kind))
      return holders === 0
        ? []
        : [{ kind, people: holders, share: average(beliefs, ({ shares }) => shareAt(shares, kind)) }]
    }),
    oneMore: kinds
      .map((kind) => oneMoreOf(kind, mix, beliefs))
      .filter(({ lacking, more }) => lacking > 0 && more > 0)
      .sort((a, b) => b.more - a.more),
    learntFrom: told.length,
  }
}

/** How many of a mix are expected to match by what was told: to say of a part of an audience what it was worth. */
export function expectedMatch(mix: IdentifierMix, history: readonly MatchHistory[]): number {
  const counted = readMix(mix)
  return average(weighed(history.slice(-AUDIENCES_LEARNT_FROM)), ({ shares }) => expected(counted, shares).mean)
}

function oneMoreOf(kind: IdentifierKind, mix: IdentifierMix, beliefs: readonly Belief[]) {
  const lacking = Object.fromEntries(Object.entries(mix).filter(([key]) => !kindsOf(key).includes(kind)))
  const counted = readMix(lacking)
  const gained = average(beliefs, ({ shares }) =>
    counted.reduce((sum, { n, kinds }) => sum + n * missedOf(kinds, shares) * shareAt(shares, kind), 0),
  )
  return { kind, lacking: counted.reduce((sum, { n }) => sum + n, 0), more: Math.round(gained) }
}

const shareAt = (shares: Shares, kind: IdentifierKind): number => shares[IDENTIFIER_KINDS.indexOf(kind)] ?? 0

/** Of those who have all of these, the share that none of them matches. */
function missedOf(kinds: readonly number[], shares: Shares): number {
  let missed = 1
  for (const kind of kinds) missed *= 1 - (shares[kind] ?? 0)
  return missed
}

/** How many match, and how far that varies: by chance, and since lists of different people stray. */
function expected(mix: ReadMix, shares: Shares): { readonly mean: number; readonly variance: number } {
  let mean = 0
  let chance = 0
  for (const { n, kinds } of mix) {
    const missed = missedOf(kinds, shares)
    mean += n * (1 - missed)
    chance += n * missed * (1 - missed)
  }
  return { mean, variance: chance + (STRAY * mean) ** 2 + 1 }
}

function weighed(history: readonly MatchHistory[]): readonly Belief[] {
  const told = history.map(({ mix, matched }) => ({ mix: readMix(mix), matched }))
  const drawn = beforeAnything().map((shares) => {
    let likelihood = 0
    for (const { mix, matched } of told) {
      const { mean, variance } = expected(mix, shares)
      likelihood -= (matched - mean) ** 2 / (2 * variance) + Math.log(variance) / 2
    }
    return { shares, likelihood }
  })
  const best = drawn.reduce((most, { likelihood }) => Math.max(most, likelihood), Number.NEGATIVE_INFINITY)
  return drawn.map(({ shares, likelihood }) => ({ shares, weight: Math.exp(likelihood - best) }))
}

let drawnBefore: readonly Shares[] | null = null

/** Beliefs before anything was told: always the same. */
function beforeAnything(): readonly Shares[] {
  if (drawnBefore) return drawnBefore
  const normal = normals(1)
  drawnBefore = Array.from({ length: BELIEFS }, () => {
    const quality = QUALITY.middle + QUALITY.spread * normal()
    return Float64Array.from(IDENTIFIER_KINDS, (kind) => logistic(logit(USUAL[kind]) + quality + SPREAD * normal()))
  })
  return drawnBefore
}

function average(beliefs: readonly Belief[], of: (belief: Belief) => number): number {
  let sum = 0
  let weights = 0
  for (const belief of beliefs) {
    sum += of(belief) * belief.weight
    weights += belief.weight
  }
  return sum / weights
}

function quantiles(
  outcomes: readonly { readonly value: number; readonly weight: number }[],
  at: readonly number[],
): readonly number[] {
  const sorted = outcomes.toSorted((a, b) => a.value - b.value)
  const whole = sorted.reduce((sum, { weight }) => sum + weight, 0)
  return at.map((share) => {
    let passed = 0
    for (const { value, weight } of sorted) {
      passed += weight
      if (passed >= share * whole) return value
    }
    return sorted.at(-1)?.value ?? 0
  })
}

const countOf = (mix: IdentifierMix, has: (key: string) => boolean): number =>
  Object.entries(mix).reduce((sum, [key, n]) => sum + (has(key) ? n : 0), 0)

const logit = (share: number): number => Math.log(share / (1 - share))
const logistic = (x: number): number => 1 / (1 + Math.exp(-x))

/** Normally distributed numbers (Box and Muller), the same each time (mulberry32, public domain). */
function normals(seed: number): () => number {
  let state = seed * 0x9e3779b9
  const next = () => {
    state = (state + 0x6d2b79f5) >>> 0
    let t = Math.imul(state ^ (state >>> 15), state | 1)
    t = (t + Math.imul(t ^ (t >>> 7), t | 61)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
  return () => Math.sqrt(-2 * Math.log(1 - next())) * Math.cos(2 * Math.PI * next())
}
