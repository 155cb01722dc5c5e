const LEAST_BIN = -20
const MOST_BIN = 40
/** So many pairs of a bin are kept to be looked at. */
const MOST_EXAMPLES = 2

/** Two contacts that stand for all with a score like theirs. */
export interface ScoredExample {
  readonly a: number
  readonly b: number
  readonly score: number
}

/** Pairs with a score between a whole number of bits and the next; the first and the last bin hold what lies beyond. */
export interface Bin {
  readonly from: number
  readonly pairs: number
  readonly examples: readonly ScoredExample[]
}

/** Counts scores by whole bits, and keeps the first pairs of each. */
export function countScores(): { add(pair: ScoredExample): void; bins(): readonly Bin[] } {
  const bins = Array.from({ length: MOST_BIN - LEAST_BIN + 1 }, (_, i) => ({
    from: LEAST_BIN + i,
    pairs: 0,
    examples: [] as ScoredExample[],
  }))
  return {
    add: (pair) => {
      const bin = bins[Math.min(MOST_BIN, Math.max(LEAST_BIN, Math.floor(pair.score))) - LEAST_BIN]
      if (!bin) return
      bin.pairs++
      if (bin.examples.length < MOST_EXAMPLES) bin.examples.push({ a: pair.a, b: pair.b, score: pair.score })
    },
    bins: () => bins,
  }
}
