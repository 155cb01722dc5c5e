/** Plain, dated name of a file: `autumn-terraces-contacts-2026-11-23.csv`. The date is ISO 8601, in UTC. */
export function fileNameFor(list: string, purpose: string, date: Date, ending = 'csv'): string {
  const plain = `${list} ${purpose}`
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 80)
  return `${plain || 'list'}-${date.toISOString().slice(0, 10)}.${ending}`
}
