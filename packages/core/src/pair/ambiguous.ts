import type { PairFound } from './pairFound'

/**
 * Pairs without those that could be another's as well: a contact whose likely partners contradict each other is joined
 * to neither without a person, unless the two hold what only one person holds.
 * @param contradicts true where two contacts cannot be one person
 */
export function withoutAmbiguous(
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
