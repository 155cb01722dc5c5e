/** How many of these are worked on in a second, one after another. */
export function perSecond<T>(cells: readonly T[], work: (cell: T) => unknown): number {
  const start = performance.now()
  for (const cell of cells) work(cell)
  return (cells.length / (performance.now() - start)) * 1000
}
