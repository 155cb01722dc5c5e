/** Two contacts by their positions, and the bits for their being one person. */
export interface ScoredPair {
  readonly a: number
  readonly b: number
  readonly score: number
}

export interface Group {
  /** Positions of its members, in order. */
  readonly members: readonly number[]
  /** Score of the weakest pair that holds it together. */
  readonly score: number
}

/** Larger groups are no person. */
const MOST_MEMBERS = 60

/**
 * Puts pairs together to groups, the surest first. A group takes another only where nobody in it contradicts anybody in
 * the other, so that strangers are not chained through what they share with a third.
 * @param contradicts true where two contacts cannot be one person, whatever others say
 */
export function groupPairs(
  pairs: readonly ScoredPair[],
  contradicts: (a: number, b: number) => boolean,
): readonly Group[] {
  const groups = new Map<number, { members: number[]; score: number }>()
  const groupOf = (at: number) => groups.get(at) ?? { members: [at], score: Number.POSITIVE_INFINITY }
  // The order of the rows does not count: equal scores are taken by their members, and members are sorted in the end.
  const ordered = [...pairs].sort((x, y) => y.score - x.score || x.a - y.a || x.b - y.b)
  for (const { a, b, score } of ordered) {
    const [mine, theirs] = [groupOf(a), groupOf(b)]
    if (mine === theirs || mine.members.length + theirs.members.length > MOST_MEMBERS) continue
    if (mine.members.some((one) => theirs.members.some((other) => contradicts(one, other)))) continue
    const joined = { members: [...mine.members, ...theirs.members], score: Math.min(mine.score, theirs.score, score) }
    for (const member of joined.members) groups.set(member, joined)
  }
  return [...new Set(groups.values())]
    .map(({ members, score }) => ({ members: [...members].sort((x, y) => x - y), score }))
    .sort((x, y) => (x.members[0] ?? 0) - (y.members[0] ?? 0))
}
