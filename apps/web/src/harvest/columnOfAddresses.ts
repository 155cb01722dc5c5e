const LOOKS_LIKE = /^(?:https?:\/\/|www\.)|^[a-z0-9-]+(?:\.[a-z0-9-]+)+(?:\/|$)/i

/** The column with the most cells that look like an address of a page; null where there is none. */
export function columnOfAddresses(rows: readonly (readonly string[])[]): number | null {
  const counts = new Map<number, number>()
  for (const cells of rows)
    for (const [at, cell] of cells.entries())
      if (LOOKS_LIKE.test(cell.trim()) && !cell.includes('@')) counts.set(at, (counts.get(at) ?? 0) + 1)
  const [best] = [...counts].sort((a, b) => b[1] - a[1])
  return best?.[0] ?? null
}
