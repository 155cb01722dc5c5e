import { withoutAmbiguous } from './ambiguous'
import { type Blocks, blocksOf, candidatesIn, isWeakKey, PAIR_KEYS, type PairKey } from './blocks'
import { comparer } from './compare'
import type { Comparison } from './fields'
import { countValues } from './frequencies'
import { type Group, groupPairs } from './group'
import { int32List } from './int32List'
import { areStrangers, contradict, holdOneMobile, isPersonal, isSure, isWorthKeeping } from './judgement'
import { learnFrom } from './learn'
import { type PairFound, type PairStore, pairStore } from './pairFound'
import { type PairInput, type PairTable, pairTableBuilder } from './pairTable'
import { type Evidence, type Scale, scaleOf } from './score'
import { type Bin, countScores } from './scores'
import type { PairWeights } from './weights'

/** From where on pairs join by themselves, and from where on a person decides; bits for one person. */
export interface Thresholds {
  readonly join: number
  readonly decide: number
}

export const DEFAULT_THRESHOLDS: Thresholds = { join: 7, decide: -6 }

export interface PairOptions {
  readonly thresholds?: Thresholds
  /** Pairs, by position, that a person has kept apart: they are neither joined nor asked about again. */
  readonly isKeptApart?: (a: number, b: number) => boolean
}

export interface Paired {
  readonly groups: readonly Group[]
  /** Pairs left to a person, likeliest first. */
  readonly toDecide: PairsToDecide
  readonly bins: readonly Bin[]
  readonly weights: PairWeights
  /** How many groups there would be if pairs joined from this score on; not below the line from which a person decides. */
  groupsFrom(join: number): number
  explain(a: number, b: number): readonly Evidence[]
}

/** Pairs that are made one by one as they are asked for: of a large list there are millions. */
export interface PairsToDecide extends Iterable<PairFound> {
  readonly length: number
}

/** Takes contacts one after another and pairs them all. */
export interface Pairing {
  add(contact: PairInput): void
  /** Pairs them in small steps, so that others may work between two: each tells how many contacts have been compared. */
  steps(options?: PairOptions): Generator<number, Paired>
}

/**
 * Finds who is one person: contacts with a key in common are compared, what agreement is worth is learnt from the
 * list itself, and the surest pairs become groups. Contacts come in any order; their positions in it name them in
 * what comes back.
 * @param expected how many are about to come, roughly: a large list takes less memory where that is known
 */
export function createPairing(expected = 0): Pairing {
  const builder = pairTableBuilder(expected)
  return { add: builder.add, steps: (options = {}) => pairTable(builder.build(), options) }
}

/** Finds who is one person among these contacts. */
export function pairContacts(contacts: Iterable<PairInput>, options: PairOptions = {}): Paired {
  const pairing = createPairing()
  for (const contact of contacts) pairing.add(contact)
  const steps = pairing.steps(options)
  for (;;) {
    const { done, value } = steps.next()
    if (done) return value
  }
}

/** So many contacts are compared with their candidates in a step. */
const STEP = 5000

function* pairTable(
  table: PairTable,
  { thresholds = DEFAULT_THRESHOLDS, isKeptApart = () => false }: PairOptions,
): Generator<number, Paired> {
  const frequencies = countValues(table)
  yield 0
  const compare = comparer(table, frequencies.isSharedLine)
  const blocks: Blocks[] = []
  for (const kind of PAIR_KEYS) {
    blocks.push(blocksOf(table, kind))
    yield 0
  }
  const candidates = candidatesIn(blocks, table.size)
  const weights = learnFrom(table, candidates, compare)
  const scale = scaleOf(table, weights, frequencies)
  const scores = countScores()
  const positionOf = (at: number): number => table.positions[at] as number
  const isApart = (a: number, b: number) => isKeptApart(positionOf(a), positionOf(b))
  const found = pairStore()
  for (let a = 0; a < table.size; a++) {
    candidates.of(a, (b, key) => {
      const name = compare.names(a, b)
      if (isWeakKey(key) && areStrangers(name)) return
      const byKeys = compare.byKeys(a, b, name)
      if (!isWorthKeeping(table, byKeys, a, b)) return
      const comparison = byKeys | compare.byPlaces(a, b)
      const score = scale.score(comparison, a, b)
      scores.add({ a: positionOf(a), b: positionOf(b), score })
      if (score >= thresholds.decide || holdOneMobile(table, comparison, a, b))
        found.add(judged(table, comparison, { a, b, score, key }))
    })
    if (a % STEP === 0) yield a
  }
  yield table.size
  const groupsFrom = (join: number) =>
    groupsOf(found, table.size, join, {
      contradicts: (a, b) => isApart(a, b) || contradict(table, a, b),
      isUnlikely: (a, b) => scale.score(compare.whole(a, b), a, b) < thresholds.decide,
    })
  const groups = groupsFrom(thresholds.join)
  const groupAt = numbersOfGroups(groups, table.size)
  return {
    groups: groups
      .map(({ members, score }) => ({ members: members.map(positionOf).sort((x, y) => x - y), score }))
      .sort((x, y) => (x.members[0] ?? 0) - (y.members[0] ?? 0)),
    toDecide: pairsToDecide(
      found,
      positionOf,
      (a, b) => isApart(a, b) || (groupAt[a] !== 0 && groupAt[a] === groupAt[b]),
    ),
    bins: scores.bins(),
    groupsFrom: (join) => (join === thresholds.join ? groups : groupsFrom(join)).length,
    weights,
    explain: explainer(table, scale, compare.whole),
  }
}

const judged = (
  table: PairTable,
  comparison: Comparison,
  { a, b, score, key }: { readonly a: number; readonly b: number; readonly score: number; readonly key: PairKey },
): PairFound => ({
  a,
  b,
  score,
  key,
  isSure: isSure(table, comparison, a, b),
  isPersonal: isPersonal(table, comparison, a, b),
})

/** Of each contact the number of its group; 0 where it stands alone. */
function numbersOfGroups(groups: readonly Group[], size: number): Int32Array {
  const numbers = new Int32Array(size)
  for (const [i, { members }] of groups.entries()) for (const member of members) numbers[member] = i + 1
  return numbers
}

function groupsOf(
  found: PairStore,
  size: number,
  join: number,
  {
    contradicts,
    isUnlikely,
  }: {
    readonly contradicts: (a: number, b: number) => boolean
    readonly isUnlikely: (a: number, b: number) => boolean
  },
): readonly Group[] {
  const sure = placesOf(found, (i) => found.isSureAt(i) && found.scoreAt(i) >= join)
  const clear = withoutAmbiguous(found, sure, size, contradicts)
  return groupPairs(found, clear, size, (a, b) => contradicts(a, b) || isUnlikely(a, b))
}

/** Places of those of the pairs that are wanted. */
function placesOf(found: PairStore, isWanted: (i: number) => boolean): Int32Array {
  const places = int32List()
  for (let i = 0; i < found.length; i++) if (isWanted(i)) places.push(i)
  return places.take()
}

/** What was found and not settled, likeliest first, by the positions of the contacts. */
function pairsToDecide(
  found: PairStore,
  positionOf: (at: number) => number,
  isSettled: (a: number, b: number) => boolean,
): PairsToDecide {
  const order = placesOf(found, (i) => !isSettled(found.firstAt(i), found.secondAt(i))).sort(
    (x, y) => found.scoreAt(y) - found.scoreAt(x) || x - y,
  )
  return {
    length: order.length,
    *[Symbol.iterator]() {
      for (const i of order) {
        const pair = found.at(i)
        const [a, b] = [positionOf(pair.a), positionOf(pair.b)]
        yield { ...pair, a: Math.min(a, b), b: Math.max(a, b) }
      }
    },
  }
}

function explainer(table: PairTable, scale: Scale, compareAt: (a: number, b: number) => Comparison): Paired['explain'] {
  let placeOf: Int32Array | null = null
  return (a, b) => {
    placeOf ??= inverse(table.positions)
    const [x, y] = [placeOf[a] as number, placeOf[b] as number]
    return scale.explain(compareAt(x, y), x, y)
  }
}

function inverse(positions: Int32Array): Int32Array {
  const places = new Int32Array(positions.length)
  for (let at = 0; at < positions.length; at++) places[positions[at] as number] = at
  return places
}
