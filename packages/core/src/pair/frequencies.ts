import { areDifferentNames } from './compare'
import { countPeople } from './countPeople'
import { LEVEL } from './fields'
import { nameKeyAt, type PairTable } from './pairTable'
import { eachRun, keySorter } from './sortedKeys'

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
  const names = countPeople(table, (at) => nameKeyAt(table, at))
  const kin = countPeople(table, (at) => table.names.kinOf(table.name[at] as number))
  const numbers = countIds(table.numbers.ids, table.numberCount)
  const emails = countIds(table.emails.ids, table.emailCount)
  const companies = countCompanies(table)
  const countries = countIds(table.country, table.textCount)
  const shared = findSharedLines(table)
  return {
    size: table.size,
    countries: (id) => countries[id] as number,
    names: (key) => names.get(key) ?? 0,
    kin: (key) => kin.get(key) ?? 0,
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

/** A company and a place are numbers below this: two of them make one whole number that a double holds exactly. */
const MOST_PLACES = 2 ** 26

function countCompanies({ size, company, postalCode, city }: PairTable): Frequencies['companies'] {
  const counts = new Map<number, number>()
  const count = (of: number, place: number) => {
    const key = of * MOST_PLACES + place
    counts.set(key, (counts.get(key) ?? 0) + 1)
  }
  for (let at = 0; at < size; at++) {
    const of = company[at] as number
    if (of === 0) continue
    count(of, 0)
    const [code, town] = [postalCode[at] as number, city[at] as number]
    if (code !== 0) count(of, code)
    // A town may be written like a postal code: it is one place then.
    if (town !== 0 && town !== code) count(of, town)
  }
  const inCommon = (column: Int32Array, a: number, b: number) => (column[a] === column[b] ? (column[a] as number) : 0)
  return (a, b) => {
    const place = inCommon(postalCode, a, b) || inCommon(city, a, b)
    return counts.get((company[a] as number) * MOST_PLACES + place) ?? 0
  }
}

/** Which numbers people of different names hold: a mark for each. */
function findSharedLines(table: PairTable): Uint8Array {
  const { starts, ids } = table.numbers
  const sorter = keySorter()
  for (let at = 0; at < table.size; at++)
    for (let i = starts[at] as number; i < (starts[at + 1] as number); i++) sorter.add(ids[i] as number, at)
  const sorted = sorter.sort()
  const shared = new Uint8Array(table.numberCount)
  eachRun(sorted, (from, to) => {
    const names = new Map<number, Bearers>()
    for (let i = from; i < to && names.size <= MOST_HOLDERS; i++) {
      const at = sorted.valueAt(i)
      const key = nameKeyAt(table, at)
      const bearers = names.get(key)
      if (bearers) bearers.count++
      else if (key !== 0) names.set(key, { name: table.name[at] as number, count: 1 })
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
