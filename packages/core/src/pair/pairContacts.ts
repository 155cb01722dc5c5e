import { eachCandidate, type PairKey } from './blocks'
import { compare, compareEmails, compareNames } from './compare'
import { type Comparison, levelAt, type PairField } from './fields'
import { countValues } from './frequencies'
import { type Group, groupPairs } from './group'
import { type PairInput, type PairRecord, pairRecord } from './record'
import { type Evidence, scoreOf, shareMobile, weigh } from './score'
import { countPatterns, learnWeights, type PairWeights } from './weights'

/** From where on pairs join by themselves, and from where on a person decides; bits for one person. */
export interface Thresholds {
  readonly join: number
  readonly decide: number
}

export const DEFAULT_THRESHOLDS: Thresholds = { join: 9, decide: -6 }

export interface PairOptions {
  readonly thresholds?: Thresholds
  /** Pairs, by position, that a person has kept apart: they are neither joined nor asked about again. */
  readonly isKeptApart?: (a: number, b: number) => boolean
}

/** Two contacts that may be one person. */
export interface PairFound {
  readonly a: number
  readonly b: number
  readonly score: number
  readonly key: PairKey
  /** True where nothing speaks against joining them without a person, but for the score. */
  readonly isSure: boolean
  /** True where they hold what only one person holds: a mobile, a personal address, a profile. */
  readonly isPersonal: boolean
}

export interface Paired {
  readonly groups: readonly Group[]
  /** Pairs left to a person, likeliest first. */
  readonly toDecide: readonly PairFound[]
  /** How many pairs have a score between a whole number of bits and the next, from `LEAST_BIN` to `MOST_BIN`. */
  readonly bins: readonly { readonly from: number; readonly pairs: number }[]
  readonly weights: PairWeights
  explain(a: number, b: number): readonly Evidence[]
}

const RANDOM_PAIRS = 100_000

/** Exact keys: pairs that agree on one teach what people look like in all that was not chosen for. */
const TEACHERS: readonly PairField[] = ['name', 'number', 'email', 'profile']

/** Counts a comparison once for each exact key the pair has in common. */
function teach(patterns: ReturnType<typeof countPatterns>, comparison: Comparison): void {
  for (const field of TEACHERS) if (levelAt(comparison, field) === 'same') patterns.add(comparison, field)
}

/**
 * Finds who is one person: contacts with a key in common are compared, what agreement is worth is learnt from the
 * list itself, and the surest pairs become groups.
 * @param contacts in any order; positions in it name them in what comes back
 */
export function pairContacts(
  contacts: readonly PairInput[],
  { thresholds = DEFAULT_THRESHOLDS, isKeptApart = () => false }: PairOptions = {},
): Paired {
  const order = inOneOrder(contacts)
  const placeOf = new Map(order.map((position, at) => [position, at]))
  const records = order.map((position, at) => pairRecord(at, contacts[position] as PairInput))
  const frequencies = countValues(records)
  const compareAt = (a: number, b: number): Comparison =>
    compare(records[a] as PairRecord, records[b] as PairRecord, frequencies.isSharedLine)
  const candidates: { a: number; b: number; key: PairKey; comparison: Comparison }[] = []
  const patterns = countPatterns()
  const colleagues = countPatterns()
  eachCandidate(records, (a, b, key) => {
    const comparison = compareAt(a, b)
    teach(patterns, comparison)
    if (areColleagues(comparison)) colleagues.add(comparison)
    if (isWorthKeeping(comparison)) candidates.push({ a, b, key, comparison })
  })
  const weights = learnWeights(
    patterns.patterns(),
    randomPatterns(records.length, compareAt),
    colleagues.patterns(),
    records.length,
  )
  const explain = (a: number, b: number, comparison = compareAt(a, b)) =>
    weigh(comparison, records[a] as PairRecord, records[b] as PairRecord, weights, frequencies)
  const found = candidates.map(
    ({ a, b, key, comparison }): PairFound => ({
      a,
      b,
      key,
      score: scoreOf(explain(a, b, comparison), weights),
      isSure: isSure(comparison, records[a] as PairRecord, records[b] as PairRecord),
      isPersonal: isPersonal(comparison, records[a] as PairRecord, records[b] as PairRecord),
    }),
  )
  const positionOf = (at: number): number => order[at] as number
  const isApart = (a: number, b: number) => isKeptApart(positionOf(a), positionOf(b))
  const contradicts = (a: number, b: number) =>
    isApart(a, b) || contradict(records[a] as PairRecord, records[b] as PairRecord)
  const sure = found.filter(({ score, isSure }) => isSure && score >= thresholds.join)
  const groups = groupPairs(
    withoutAmbiguous(sure, contradicts),
    (a, b) => contradicts(a, b) || scoreOf(explain(a, b), weights) < thresholds.decide,
  )
  const groupAt = new Map(groups.flatMap((group) => group.members.map((member) => [member, group] as const)))
  const isJoined = ({ a, b }: PairFound) => groupAt.has(a) && groupAt.get(a) === groupAt.get(b)
  const toDecide = found
    .filter((pair) => pair.score >= thresholds.decide && !isJoined(pair) && !isApart(pair.a, pair.b))
    .map((pair) => ({ ...pair, ...inOrder(positionOf(pair.a), positionOf(pair.b)) }))
    .sort((x, y) => y.score - x.score || x.a - y.a || x.b - y.b)
  return {
    groups: groups
      .map(({ members, score }) => ({ members: members.map(positionOf).sort((x, y) => x - y), score }))
      .sort((x, y) => (x.members[0] ?? 0) - (y.members[0] ?? 0)),
    toDecide,
    bins: binsOf(found),
    weights,
    explain: (a, b) => explain(placeOf.get(a) ?? 0, placeOf.get(b) ?? 0),
  }
}

const inOrder = (a: number, b: number): { readonly a: number; readonly b: number } =>
  a < b ? { a, b } : { a: b, b: a }

/**
 * Positions in an order that is told by what the contacts hold alone: whatever is picked, parted or tied on the way, is
 * so in the same way however the rows stand.
 */
function inOneOrder(contacts: readonly PairInput[]): readonly number[] {
  const keys = contacts.map((one) =>
    [
      one.fullName,
      one.givenName,
      one.familyName,
      one.company,
      one.domain,
      one.profile,
      one.city,
      one.postalCode,
      one.country,
      ...one.numbers.map(({ e164 }) => e164),
      ...one.emails.map(({ address }) => address),
    ].join('\u0001'),
  )
  const before = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0)
  return [...contacts.keys()].sort((a, b) => before(keys[a] as string, keys[b] as string) || a - b)
}

/** Two people of one company: their names say so. */
const areColleagues = (comparison: Comparison): boolean =>
  levelAt(comparison, 'company') === 'same' && ['family', 'given', 'other'].includes(levelAt(comparison, 'name') ?? '')

const LEAST_BIN = -20
const MOST_BIN = 40

function binsOf(pairs: readonly PairFound[]): Paired['bins'] {
  const counts = Array.from({ length: MOST_BIN - LEAST_BIN + 1 }, () => 0)
  for (const { score } of pairs) {
    const at = Math.min(MOST_BIN, Math.max(LEAST_BIN, Math.floor(score))) - LEAST_BIN
    counts[at] = (counts[at] ?? 0) + 1
  }
  return counts.map((count, i) => ({ from: LEAST_BIN + i, pairs: count }))
}

/** Pairs of people with different names are not kept, unless they share what seldom two people share. */
function isWorthKeeping(comparison: Comparison): boolean {
  const name = levelAt(comparison, 'name')
  if (name !== 'other' && name !== 'given') return true
  return [levelAt(comparison, 'number'), levelAt(comparison, 'email'), levelAt(comparison, 'profile')].includes('same')
}

/** Whether two contacts may be joined without a person: their names agree, or what only one person holds. */
function isSure(comparison: Comparison, a: PairRecord, b: PairRecord): boolean {
  const name = levelAt(comparison, 'name')
  if (name === 'same' || name === 'like') return true
  return name !== 'family' && name !== 'given' && name !== 'other' && isPersonal(comparison, a, b)
}

/** They hold what only one person holds. */
const isPersonal = (comparison: Comparison, a: PairRecord, b: PairRecord): boolean =>
  levelAt(comparison, 'profile') === 'same' ||
  levelAt(comparison, 'email') === 'same' ||
  (levelAt(comparison, 'number') === 'same' && shareMobile(a, b))

/** Names that cannot be one person's, two profiles, or two addresses with one host. */
function contradict(a: PairRecord, b: PairRecord): boolean {
  const name = compareNames(a, b)
  if (name === 'family' || name === 'given' || name === 'other') return true
  if (a.profile !== '' && b.profile !== '' && a.profile !== b.profile) return true
  return compareEmails(a, b) === 'rival'
}

/**
 * Pairs without those that could be another's as well: a contact whose likely partners contradict each other is joined
 * to neither without a person, unless the two hold what only one person holds.
 */
function withoutAmbiguous(
  pairs: readonly PairFound[],
  contradicts: (a: number, b: number) => boolean,
): readonly PairFound[] {
  const partners = new Map<number, number[]>()
  const add = (at: number, other: number) => {
    const known = partners.get(at)
    if (known) known.push(other)
    else partners.set(at, [other])
  }
  for (const { a, b } of pairs) {
    add(a, b)
    add(b, a)
  }
  const hasRival = (at: number, chosen: number) =>
    (partners.get(at) ?? []).some((other) => other !== chosen && contradicts(other, chosen))
  return pairs.filter(({ a, b, isPersonal }) => isPersonal || (!hasRival(a, b) && !hasRival(b, a)))
}

const PERSONAL: readonly PairField[] = ['number', 'email', 'profile']

/** Comparisons of pairs picked at random, the same every time. */
function randomPatterns(size: number, compareAt: (a: number, b: number) => Comparison) {
  const patterns = countPatterns()
  let seed = 20_261_124
  const below = (n: number) => {
    seed = (Math.imul(seed, 1_103_515_245) + 12_345) & 0x7fffffff
    return Math.floor((seed / 0x80000000) * n)
  }
  const wanted = size < 2 ? 0 : Math.min(RANDOM_PAIRS, size * 20)
  for (let i = 0; i < wanted; i++) {
    const a = below(size)
    const b = below(size)
    if (a === b) continue
    const comparison = compareAt(a, b)
    // In a short list the picked pairs hold some of one person: they would pass for chance.
    if (!PERSONAL.some((field) => levelAt(comparison, field) === 'same')) patterns.add(comparison)
  }
  return patterns.patterns()
}
