/** How many contacts of one country have a best line of each type, and of each status. */
export interface LinesOfCountry {
  readonly country: string
  readonly all: number
  readonly byType: Readonly<Record<string, number>>
  readonly byStatus: Readonly<Record<string, number>>
}

/**
 * Counts by `country/type/status` as one line for each country, those with most contacts first. Whoever has no number
 * has no line to tell of.
 */
export function linesByCountry(counts: Readonly<Record<string, number>>): readonly LinesOfCountry[] {
  const byCountry = new Map<string, { all: number; byType: Record<string, number>; byStatus: Record<string, number> }>()
  for (const [key, n] of Object.entries(counts)) {
    const [country = '', type = '', status = ''] = key.split('/')
    if (country === '' || type === 'unknown') continue
    const lines = byCountry.get(country) ?? { all: 0, byType: {}, byStatus: {} }
    lines.all += n
    lines.byType[type] = (lines.byType[type] ?? 0) + n
    lines.byStatus[status] = (lines.byStatus[status] ?? 0) + n
    byCountry.set(country, lines)
  }
  return [...byCountry].map(([country, lines]) => ({ country, ...lines })).sort((a, b) => b.all - a.all)
}
