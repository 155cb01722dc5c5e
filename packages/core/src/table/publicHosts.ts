import type { Field } from './fields'
import { fold } from './fold'

/** Fewer rows than these tell nothing of their host. */
const LEAST_ROWS = 4
/** A house is written in several ways; a host of as many companies, none of which has most of it, serves them all. */
const LEAST_COMPANIES = 3
/** Where hardly one in so many tells a company, so many people of one host are no house. */
const FEW_TELL = 5
const LEAST_PEOPLE = 8
/** They are no small part of a list then, and not most of it: a house may give all of its people. */
const SMALLEST_PART = 0.02
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
  return [...hosts].flatMap(([host, by]) => (servesEverybody(factsOf(by), rows) ? [host] : [])).slice(0, MOST)
}

/** @param by how many rows of a host tell each company; none is the empty one */
function factsOf(by: ReadonlyMap<string, number>): HostFacts {
  const rows = [...by.values()].reduce((sum, n) => sum + n, 0)
  return { rows, people: rows, companies: [...by].filter(([company]) => company !== '').map(([, n]) => n) }
}

const hostOf = (cell: string): string => /@([a-z0-9.-]+\.[a-z]{2,})\s*$/.exec(cell.trim().toLowerCase())?.[1] ?? ''

/** Who is of a host, as far as it tells whose host it is. */
export interface HostFacts {
  readonly rows: number
  readonly people: number
  /** How many of its rows tell each company; rows without one are left out. */
  readonly companies: readonly number[]
}

/**
 * Whether a host serves people of many companies, or many people without one.
 * @param all how many rows there are of all hosts
 */
export function servesEverybody({ rows, people, companies }: HostFacts, all: number): boolean {
  if (rows < LEAST_ROWS) return false
  const withCompany = companies.reduce((sum, n) => sum + n, 0)
  if (companies.length >= LEAST_COMPANIES) return Math.max(...companies) * 2 < withCompany
  const areAlone = withCompany * FEW_TELL < rows
  return areAlone && people >= LEAST_PEOPLE && rows >= all * SMALLEST_PART && rows < all * LARGEST_PART
}
