import type { PairFound } from './pairFound'

/**
 * Pairs without those that could be another's as well: a contact whose likely partners contradict each other is joined
 * to neither without a person, unless the two hold what only one person holds, or are by far the likelier.
 * @param contradicts true where two contacts cannot be one person
 */
export function withoutAmbiguous(
  pairs: readonly PairFound[],
  contradicts: (a: number, b: number) => boolean,
): readonly PairFound[] {
  const partners = new Map<number, Partner[]>()
  const add = (at: number, other: number, score: number) => {
    const known = partners.get(at)
    if (known) known.push({ other, score })
    else partners.set(at, [{ other, score }])
  }
  for (const { a, b, score } of pairs) {
    add(a, b, score)
    add(b, a, score)
  }
  const hasRival = (at: number, chosen: number, least: number) =>
    (partners.get(at) ?? []).some(({ other, score }) => other !== chosen && score > least && contradicts(other, chosen))
  return pairs.filter(({ a, b, score, isPersonal }) => {
    const least = score - FAR
    return isPersonal || (!hasRival(a, b, least) && !hasRival(b, a, least))
  })
}

interface Partner {
  readonly other: number
  readonly score: number
}

/** Bits by which a pair is by far likelier than another: a thousand times. */
const FAR = 10
