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

/** A name with dates in it filled in: `{date}` as 2026-11-28, `{month}` as 2026-11, `{year}` as 2026; in UTC. */
export const datedName = (pattern: string, date: Date): string => {
  const day = date.toISOString().slice(0, 10)
  return pattern.replaceAll('{date}', day).replaceAll('{month}', day.slice(0, 7)).replaceAll('{year}', day.slice(0, 4))
}
