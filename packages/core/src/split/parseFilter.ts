/** Piles of the sieve that can be typed: `line:mobile country:GB,DE oldershaw`. */
export const FILTER_FIELDS = [
  'batch',
  'country',
  'verdict',
  'line',
  'status',
  'lane',
  'reason',
  'fell',
  'is',
  /** How sure the contact can be reached; what its best address is, and whether it takes mail. */
  'sure',
  'kind',
  'address',
  /** Whether the contact may be called at this moment. */
  'call',
  /** What suppression lists keep the contact out of. */
  'suppressed',
  /** Those who are in another list too, and those who are not: ids of lists. */
  'in',
  'notin',
] as const
export type FilterField = (typeof FILTER_FIELDS)[number]

export interface Filter {
  readonly piles: Partial<Record<FilterField, readonly string[]>>
  /** Free words, as typed. */
  readonly words: string
}

export interface FilterIssue {
  readonly code: 'unknown-field'
  readonly field: string
  /** The known field it is nearest to, by a slip or two of a key; null where none is near. */
  readonly nearest: FilterField | null
}

/** Reads a typed filter. Terms with an unknown field are reported and searched for as words. */
export function parseFilter(text: string): { readonly filter: Filter; readonly issues: readonly FilterIssue[] } {
  const piles: Partial<Record<FilterField, string[]>> = {}
  const words: string[] = []
  const issues: FilterIssue[] = []
  for (const term of text.match(/[a-z]+:"[^"]*"|\S+/gi) ?? []) {
    const match = /^([a-z]+):(.+)$/i.exec(term)
    const field = match?.[1]?.toLowerCase()
    if (!match?.[2] || field === undefined || field === 'http' || field === 'https') words.push(term)
    else if (isFilterField(field))
      piles[field] = [...(piles[field] ?? []), ...match[2].replaceAll('"', '').split(',').filter(Boolean)]
    else {
      issues.push({ code: 'unknown-field', field, nearest: nearestField(field) })
      words.push(term)
    }
  }
  return { filter: { piles, words: words.join(' ') }, issues }
}

/** A field that begins alike, or is at most two slips away (edit distance by Wagner and Fischer). */
function nearestField(field: string): FilterField | null {
  const scored = FILTER_FIELDS.map((known) => ({ known, far: distance(field, known) })).sort((a, b) => a.far - b.far)
  const [best] = scored
  const most = field.length < 4 ? 1 : 2
  if (best && best.far <= most && best.far < best.known.length) return best.known
  return FILTER_FIELDS.find((known) => field.length > 2 && (known.startsWith(field) || field.startsWith(known))) ?? null
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

const isFilterField = (field: string): field is FilterField => (FILTER_FIELDS as readonly string[]).includes(field)

/** The text that reads back as the same filter. */
export function writeFilter({ piles, words }: Filter): string {
  const terms = FILTER_FIELDS.flatMap((field) => {
    const values = piles[field]
    if (!values?.length) return []
    const text = values.join(',')
    return [`${field}:${/\s/.test(text) ? `"${text}"` : text}`]
  })
  return [...terms, words].filter(Boolean).join(' ')
}

/** The filter with one pile switched on or off. */
export function togglePile(filter: Filter, field: FilterField, value: string): Filter {
  const values = filter.piles[field] ?? []
  const next = values.includes(value) ? values.filter((other) => other !== value) : [...values, value]
  return { ...filter, piles: { ...filter.piles, [field]: next } }
}
