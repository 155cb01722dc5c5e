import type { Candidates } from './blocks'
import type { Comparer } from './compare'
import { type Comparison, FIELD, LEVEL, levelOf, type PairField } from './fields'
import { areColleagues, holdSameKey } from './judgement'
import type { PairTable } from './pairTable'
import { countPatterns, learnWeights, type PairWeights, type PatternCounter } from './weights'

/** More contacts than these teach nothing new: of a larger list, one in so many is learnt from. */
const MOST_TEACHERS = 60_000
const RANDOM_PAIRS = 100_000

/** Learns what agreement is worth from the candidates of a list and from pairs picked at random. */
export function learnFrom(table: PairTable, candidates: Candidates, comparer: Comparer): PairWeights {
  const { size } = table
  const oneIn = Math.max(1, Math.ceil(size / MOST_TEACHERS))
  const exact = countPatterns()
  const colleagues = countPatterns()
  for (let a = 0; a < size; a += oneIn) {
    candidates.of(a, (b) => {
      const byKeys = comparer.byKeys(a, b)
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
function randomPatterns({ size, country }: PairTable, { whole }: Comparer) {
  const [random, sameCountry] = [countPatterns(), countPatterns()]
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
    const comparison = whole(a, b)
    // In a short list the picked pairs hold some of one person: they would pass for chance.
    if (holdSameKey(comparison)) continue
    random.add(comparison)
    if (country[a] !== 0 && country[a] === country[b]) sameCountry.add(comparison)
  }
  return { random, sameCountry }
}
