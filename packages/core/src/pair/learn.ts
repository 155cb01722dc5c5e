import { type Candidates, isWeakKey } from './blocks'
import { CELL, cellAt } from './cells'
import { areCompatriots, areOfOneCompany, type Comparer } from './compare'
import { type Comparison, FIELD, LEVEL, levelOf, type PairField } from './fields'
import { areColleagues, areStrangers, holdSameKey } from './judgement'
import type { PairTable } from './pairTable'
import { countPatterns, type LearntFrom, learnWeights, type PairWeights, type PatternCounter } from './weights'

/** More contacts than these teach nothing new: of a larger list, one in so many is learnt from. */
const MOST_TEACHERS = 60_000
const RANDOM_PAIRS = 50_000

/** Learns what agreement is worth from the candidates of a list and from pairs picked at random. */
export function learnFrom(table: PairTable, candidates: Candidates, comparer: Comparer): PairWeights {
  const { size } = table
  const oneIn = Math.max(1, Math.ceil(size / MOST_TEACHERS))
  const exact = countPatterns()
  const colleagues = countPatterns()
  for (let a = 0; a < size; a += oneIn) {
    candidates.of(a, (b, key) => {
      const name = comparer.names(a, b)
      if (isWeakKey(key) && areStrangers(name) && !areOfOneCompany(table, a, b)) return
      const byKeys = comparer.byKeys(a, b, name)
      const haveKey = holdSameKey(byKeys) || levelOf(byKeys, FIELD.name) === LEVEL.name.same
      const workTogether = areColleagues(table, byKeys, a, b)
      if (!haveKey && !workTogether) return
      const comparison = byKeys | comparer.byPlaces(a, b)
      if (haveKey) teach(exact, comparison)
      if (workTogether) colleagues.add(comparison)
    })
  }
  const { random, sameCountry } = randomPatterns(table, comparer)
  return learnWeights({
    candidates: exact.patterns(),
    random: random.patterns(),
    sameCompany: colleagues.patterns(),
    sameCountry: sameCountry.patterns(),
    namesakes: namesakes(table, comparer),
    size,
    oneIn,
  })
}

/** Exact keys: pairs that agree on one teach what people look like in all that was not chosen for. */
const EXACT_KEYS: readonly PairField[] = ['name', 'number', 'email', 'profile']

/** Counts a comparison once for each exact key the pair has in common. */
function teach(patterns: PatternCounter, comparison: Comparison): void {
  for (const field of EXACT_KEYS) if (levelOf(comparison, FIELD[field]) === 0) patterns.add(comparison, field)
}

/** Comparisons of pairs picked at random, the same every time; those of one country apart as well. */
function randomPatterns(table: PairTable, { whole }: Comparer) {
  const [random, sameCountry] = [countPatterns(), countPatterns()]
  eachRandomPair(table.size, Math.min(RANDOM_PAIRS, table.size * 20), (a, b) => {
    const comparison = whole(a, b)
    // In a short list the picked pairs hold some of one person: they would pass for chance.
    if (holdSameKey(comparison)) return
    random.add(comparison)
    if (areCompatriots(table, a, b)) sameCountry.add(comparison)
  })
  return { random, sameCountry }
}

const RANDOM_NAMES = 1_500_000

/**
 * How often two people have the same name by chance: all over, and in one country. It is so seldom that many pairs have
 * to be picked. Those who share a key or a house are left out: of them, most are one person.
 */
function namesakes(table: PairTable, { byKeys }: Comparer): LearntFrom['namesakes'] {
  const counts = { pairs: 0, same: 0, atHome: 0, sameAtHome: 0 }
  const wanted = Math.min(RANDOM_NAMES, table.size * 400)
  eachRandomPair(table.size, wanted, (a, b) => {
    const [mine, theirs] = [cellAt(table, a, CELL.nameKey), cellAt(table, b, CELL.nameKey)]
    if (mine === 0 || theirs === 0) return
    const isSame =
      mine === theirs &&
      table.names.wordCount(cellAt(table, a, CELL.name)) > 1 &&
      !areOfOneCompany(table, a, b) &&
      !holdSameKey(byKeys(a, b))
    const isAtHome = areCompatriots(table, a, b)
    counts.pairs++
    if (isSame) counts.same++
    if (isAtHome) counts.atHome++
    if (isAtHome && isSame) counts.sameAtHome++
  })
  // In a short list the same pairs are picked again and again: they tell no more than once.
  const share = Math.min(1, (table.size * (table.size - 1)) / 2 / Math.max(1, wanted))
  return {
    anywhere: { pairs: counts.pairs * share, same: counts.same * share },
    atHome: { pairs: counts.atHome * share, same: counts.sameAtHome * share },
  }
}

/** Pairs of different contacts, the same ones every time. */
function eachRandomPair(size: number, wanted: number, tell: (a: number, b: number) => void): void {
  let seed = 20_261_124
  const below = (n: number) => {
    seed = (Math.imul(seed, 1_103_515_245) + 12_345) & 0x7fffffff
    return Math.floor((seed / 0x80000000) * n)
  }
  for (let i = 0; i < wanted && size > 1; i++) {
    const a = below(size)
    const b = below(size)
    if (a !== b) tell(a, b)
  }
}
