import { servesEverybody } from '../table'
import { CELL, type Cells, cellAt } from './cells'
import { eachShared, keySorter } from './sortedKeys'

/**
 * Which hosts serve people of many companies, or many people without one: letter boxes and web space for everybody,
 * and sites of profiles. Learnt from the list, for no list of such hosts is ever whole.
 * @returns numbers of domains
 */
export function findPublicHosts(contacts: { readonly size: number; readonly cells: Cells }): ReadonlySet<number> {
  const { size } = contacts
  const sorter = keySorter(size)
  for (let at = 0; at < size; at++) {
    const domain = cellAt(contacts, at, CELL.domain)
    if (domain !== 0) sorter.add(domain, at)
  }
  const sorted = sorter.sort()
  const hosts = new Set<number>()
  eachShared(sorted, (from, to) => {
    const companies = new Map<number, number>()
    const people = new Set<number>()
    for (let i = from; i < to; i++) {
      const at = sorted.valueAt(i)
      const of = cellAt(contacts, at, CELL.company)
      const name = cellAt(contacts, at, CELL.name)
      if (name !== 0) people.add(name)
      if (of !== 0) companies.set(of, (companies.get(of) ?? 0) + 1)
    }
    const facts = { rows: to - from, people: people.size, companies: [...companies.values()] }
    if (servesEverybody(facts, size)) hosts.add(sorted.keyAt(from))
  })
  return hosts
}
