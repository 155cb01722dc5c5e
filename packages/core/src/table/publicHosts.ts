import type { Field } from './fields'
import { fold } from './fold'

/** Fewer rows than these tell nothing of their host. */
const LEAST_ROWS = 4
/** A house is written in several ways; a host of as many companies, none of which has most of it, serves them all. */
const LEAST_COMPANIES = 3
/** Without companies told, so many people of one host are no house, where they are no large part of the list. */
const LEAST_PEOPLE = 8
const LARGEST_PART = 0.5
/** Most hosts that are kept of a file. */
const MOST = 100

/**
 * Which mail hosts of a file serve people of many companies, or many people without one: letter boxes for everybody.
 * Learnt from the rows that are looked at first, for no list of such hosts is whole.
 * @param columns cells of the same rows, column by column
 * @param fields what each column holds
 */
export function learnPublicHosts(
  columns: readonly (readonly string[])[],
  fields: readonly (Field | null)[],
): readonly string[] {
  const companies = columns[fields.indexOf('company')] ?? []
  const hosts = new Map<string, Map<string, number>>()
  let rows = 0
  for (const [at, field] of fields.entries()) {
    if (field !== 'email') continue
    for (const [row, cell] of (columns[at] ?? []).entries()) {
      const host = hostOf(cell)
      if (host === '') continue
      rows++
      const company = fold(companies[row] ?? '')
      const known = hosts.get(host) ?? new Map<string, number>()
      hosts.set(host, known.set(company, (known.get(company) ?? 0) + 1))
    }
  }
  return [...hosts].flatMap(([host, by]) => (isOfMany(by, rows) ? [host] : [])).slice(0, MOST)
}

const hostOf = (cell: string): string => /@([a-z0-9.-]+\.[a-z]{2,})\s*$/.exec(cell.trim().toLowerCase())?.[1] ?? ''

/** @param by how many rows of a host tell each company; none is the empty one */
function isOfMany(by: ReadonlyMap<string, number>, all: number): boolean {
  const alone = by.get('') ?? 0
  const rows = [...by.values()].reduce((sum, n) => sum + n, 0)
  if (rows < LEAST_ROWS) return false
  const companies = [...by].filter(([company]) => company !== '').map(([, n]) => n)
  if (companies.length >= LEAST_COMPANIES) return Math.max(...companies) * 2 < rows - alone
  return companies.length === 0 && alone >= LEAST_PEOPLE && alone < all * LARGEST_PART
}
