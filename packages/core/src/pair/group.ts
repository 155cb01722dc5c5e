import type { PairStore } from './pairFound'

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
 * @param pairs places of those that count among all that were found
 * @param size how many contacts there are
 * @param contradicts true where two contacts cannot be one person, whatever others say
 */
export function groupPairs(
  found: PairStore,
  pairs: Int32Array,
  size: number,
  contradicts: (a: number, b: number) => boolean,
): readonly Group[] {
  const groups: (Group | null)[] = [null]
  // Of each contact the number of its group; 0 where it stands alone.
  const numbers = new Int32Array(size)
  const groupOf = (at: number): Group =>
    groups[numbers[at] as number] ?? { members: [at], score: Number.POSITIVE_INFINITY }
  // The order of the rows does not count: equal scores are taken by their members, and members are sorted in the end.
  const ordered = pairs
    .slice()
    .sort(
      (x, y) =>
        found.scoreAt(y) - found.scoreAt(x) ||
        found.firstAt(x) - found.firstAt(y) ||
        found.secondAt(x) - found.secondAt(y),
    )
  for (const pair of ordered) {
    const [a, b] = [found.firstAt(pair), found.secondAt(pair)]
    if (numbers[a] !== 0 && numbers[a] === numbers[b]) continue
    const [mine, theirs] = [groupOf(a), groupOf(b)]
    if (mine.members.length + theirs.members.length > MOST_MEMBERS) continue
    if (mine.members.some((one) => theirs.members.some((other) => contradicts(one, other)))) continue
    groups[numbers[a] as number] = null
    groups[numbers[b] as number] = null
    const members = [...mine.members, ...theirs.members]
    for (const member of members) numbers[member] = groups.length
    groups.push({ members, score: Math.min(mine.score, theirs.score, found.scoreAt(pair)) })
  }
  return groups
    .flatMap((group) => group ?? [])
    .map(({ members, score }) => ({ members: [...members].sort((x, y) => x - y), score }))
    .sort((x, y) => (x.members[0] ?? 0) - (y.members[0] ?? 0))
}
