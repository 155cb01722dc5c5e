/** The word that begins alike, or is at most two slips away (edit distance by Wagner and Fischer); null where none is. */
export function nearestOf<T extends string>(word: string, known: readonly T[]): T | null {
  const [best] = known.map((one) => ({ one, far: distance(word, one) })).sort((a, b) => a.far - b.far)
  const most = word.length < 4 ? 1 : 2
  if (best && best.far <= most && best.far < best.one.length) return best.one
  return known.find((one) => word.length > 2 && (one.startsWith(word) || word.startsWith(one))) ?? null
}

function distance(a: string, b: string): number {
  let row = Array.from({ length: b.length + 1 }, (_, j) => j)
  for (let i = 1; i <= a.length; i++) {
    const next = [i]
    for (let j = 1; j <= b.length; j++) {
      const same = a[i - 1] === b[j - 1] ? 0 : 1
      next.push(Math.min((row[j] ?? 0) + 1, (next[j - 1] ?? 0) + 1, (row[j - 1] ?? 0) + same))
    }
    row = next
  }
  return row[b.length] ?? 0
}
