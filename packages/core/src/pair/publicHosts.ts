import { servesEverybody } from '../table'
import { eachRun, keySorter } from './sortedKeys'

/** Columns of a table that tell who is of which host and company. */
interface HostColumns {
  readonly size: number
  readonly domain: Int32Array
  readonly company: Int32Array
  /** Number of a contact's name; 0 is none. */
  readonly name: Int32Array
}

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
    const companies = new Map<number, number>()
    const people = new Set<number>()
    for (let i = from; i < to; i++) {
      const at = sorted.valueAt(i)
      const of = company[at] as number
      if (name[at] !== 0) people.add(name[at] as number)
      if (of !== 0) companies.set(of, (companies.get(of) ?? 0) + 1)
    }
    const facts = { rows: to - from, people: people.size, companies: [...companies.values()] }
    if (servesEverybody(facts, size)) hosts.add(sorted.keyAt(from))
  })
  return hosts
}
