import { CELL, type Cell, cellAt } from './cells'
import { areDifferentNames, areSame } from './compare'
import { createCounter } from './counter'
import { countPeople } from './countPeople'
import { LEVEL } from './fields'
import type { PairTable } from './pairTable'
import { eachShared, keySorter } from './sortedKeys'

/** How often the values of a list stand in it: what many hold says little about who they are. */
export interface Frequencies {
  readonly size: number
  /** How many contacts are of a country, by its number. */
  countries(id: number): number
  /** How many people have a name. */
  names(key: number): number
  /** How many people have a family name with an initial before it. */
  kin(key: number): number
  /** How many contacts have a number or an address. */
  numbers(id: number): number
  emails(id: number): number
  /** How many contacts are of the company of these two: of the same name there may be many, so that its place counts where both tell it. */
  companies(a: number, b: number): number
  /** True for a number that people of different names hold. */
  isSharedLine(number: number): boolean
}

/** A line that more people hold is shared, whoever they are. */
const MOST_HOLDERS = 40

/** Counts the values of all contacts, once. */
export function countValues(table: PairTable): Frequencies {
  const names = countPeople(table, (at) => cellAt(table, at, CELL.nameKey))
  const kin = countPeople(table, (at) => table.names.kinOf(cellAt(table, at, CELL.name)))
  const numbers = countIds(table.numberIds, table.numberCount)
  const emails = countIds(table.emailIds, table.emailCount)
  const companies = countCompanies(table)
  const countries = countCountries(table)
  const shared = findSharedLines(table)
  return {
    size: table.size,
    countries: (id) => countries.get(id) ?? 0,
    names,
    kin,
    numbers: (id) => numbers[id] as number,
    emails: (id) => emails[id] as number,
    companies,
    isSharedLine: (id) => shared[id] === 1,
  }
}

function countIds(ids: Int32Array, most: number): Int32Array {
  const counts = new Int32Array(most)
  for (const id of ids) counts[id] = (counts[id] as number) + 1
  return counts
}

function countCountries(table: PairTable): ReadonlyMap<number, number> {
  const counts = new Map<number, number>()
  for (let at = 0; at < table.size; at++) {
    const country = cellAt(table, at, CELL.country)
    counts.set(country, (counts.get(country) ?? 0) + 1)
  }
  return counts
}

/** All places, the postal code and the town. */
const PLACES_EACH = 3

function countCompanies(table: PairTable): Frequencies['companies'] {
  // By the company and a place of it; 0 is all places.
  const sorter = keySorter(table.size * PLACES_EACH)
  for (let at = 0; at < table.size; at++) {
    const company = cellAt(table, at, CELL.company)
    if (company === 0) continue
    sorter.add(company, 0)
    const [code, town] = [cellAt(table, at, CELL.postalCode), cellAt(table, at, CELL.city)]
    if (code !== 0) sorter.add(company, code)
    // A town may be written like a postal code: it is one place then.
    if (town !== 0 && town !== code) sorter.add(company, town)
  }
  const sorted = sorter.sort()
  const several = createCounter()
  for (let from = 0; from < sorted.length; ) {
    const [company, place] = [sorted.keyAt(from), sorted.valueAt(from)]
    let to = from + 1
    while (to < sorted.length && sorted.keyAt(to) === company && sorted.valueAt(to) === place) to++
    if (to - from > 1) several.set(company, place, to - from)
    from = to
  }
  const inCommon = (cell: Cell, a: number, b: number) => (areSame(table, a, b, cell) ? cellAt(table, a, cell) : 0)
  return (a, b) => {
    const place = inCommon(CELL.postalCode, a, b) || inCommon(CELL.city, a, b)
    return several.of(cellAt(table, a, CELL.company), place) || 1
  }
}

/** Which numbers people of different names hold: a mark for each. */
function findSharedLines(table: PairTable): Uint8Array {
  const sorter = keySorter(table.numberIds.length)
  for (let at = 0; at < table.size; at++) {
    const to = cellAt(table, at, CELL.numbersTo)
    for (let i = cellAt(table, at, CELL.numbersFrom); i < to; i++) sorter.add(table.numberIds[i] as number, at)
  }
  const sorted = sorter.sort()
  const shared = new Uint8Array(table.numberCount)
  eachShared(sorted, (from, to) => {
    const names = new Map<number, Bearers>()
    for (let i = from; i < to && names.size <= MOST_HOLDERS; i++) {
      const at = sorted.valueAt(i)
      const key = cellAt(table, at, CELL.nameKey)
      const bearers = names.get(key)
      if (bearers) bearers.count++
      else if (key !== 0) names.set(key, { name: cellAt(table, at, CELL.name), count: 1 })
    }
    const number = sorted.keyAt(from)
    if (names.size > 1 && isOfSeveral(table, [...names.values()], table.isMobile(number))) shared[number] = 1
  })
  return shared
}

/** A name on a line, and how many contacts bear it there. */
interface Bearers {
  readonly name: number
  count: number
}

/** Where so many times more contacts bear one name than others, the others are slips of the list. */
const ODD = 2

/**
 * Whether a line is held by different people. A mobile is one person's where most on it bear names that may be one: one
 * odd name is a mistake, not a second holder.
 */
function isOfSeveral({ names }: PairTable, holders: readonly Bearers[], isMobile: boolean): boolean {
  if (holders.length > MOST_HOLDERS) return true
  const areTwo = (a: Bearers, b: Bearers) => {
    const level = names.compare(a.name, b.name)
    // On a mobile, another family name behind the same given name is a marriage.
    return areDifferentNames(level) && !(isMobile && level === LEVEL.name.given)
  }
  if (!holders.some((a, i) => holders.slice(i + 1).some((b) => areTwo(a, b)))) return false
  if (!isMobile) return true
  const all = holders.reduce((sum, { count }) => sum + count, 0)
  const most = Math.max(
    ...holders.map((one) =>
      holders.reduce((sum, other) => sum + (other === one || !areTwo(one, other) ? other.count : 0), 0),
    ),
  )
  return most < ODD * (all - most)
}
