import { eachRun, keySorter } from './sortedKeys'

/** Columns of a table that tell who is of which host and company. */
interface HostColumns {
  readonly size: number
  readonly domain: Int32Array
  readonly company: Int32Array
  /** Number of a contact's name; 0 is none. */
  readonly name: Int32Array
}

/** Fewer contacts than these tell nothing of their host. */
const LEAST_CONTACTS = 4
/** A house is written in several ways; a host of more companies than these, none of which has most, serves them all. */
const MOST_COMPANIES = 3
/** Without companies told, a host of so large a part of the list, and of so many people, is nobody's own. */
const PART_OF_LIST = 50
const LEAST_PEOPLE = 8

/**
 * Which hosts serve people of many companies, or many people without one: letter boxes and web space for everybody,
 * and sites of profiles. Learnt from the list, for no list of such hosts is ever whole.
 * @returns numbers of domains
 */
export function findPublicHosts({ size, domain, company, name }: HostColumns): ReadonlySet<number> {
  const sorter = keySorter()
  for (let at = 0; at < size; at++) if (domain[at] !== 0) sorter.add(domain[at] as number, at)
  const sorted = sorter.sort()
  const hosts = new Set<number>()
  eachRun(sorted, (from, to) => {
    if (to - from < LEAST_CONTACTS) return
    const companies = new Map<number, number>()
    const people = new Set<number>()
    let withCompany = 0
    for (let i = from; i < to; i++) {
      const at = sorted.valueAt(i)
      const of = company[at] as number
      if (name[at] !== 0) people.add(name[at] as number)
      if (of === 0) continue
      withCompany++
      companies.set(of, (companies.get(of) ?? 0) + 1)
    }
    if (isOfMany({ contacts: to - from, withCompany, companies, people: people.size }, size))
      hosts.add(sorted.keyAt(from))
  })
  return hosts
}

interface Host {
  readonly contacts: number
  readonly withCompany: number
  /** How many of its contacts are of each company. */
  readonly companies: ReadonlyMap<number, number>
  readonly people: number
}

function isOfMany({ contacts, withCompany, companies, people }: Host, size: number): boolean {
  const largest = Math.max(0, ...companies.values())
  if (companies.size >= MOST_COMPANIES) return largest * 2 < withCompany
  // Most tell no company: people of a house would tell it as others in the list do.
  const areAlone = withCompany * 5 < contacts
  return areAlone && people >= LEAST_PEOPLE && contacts * PART_OF_LIST >= size
}
