import { type Addresses, pairAddresses } from './addresses'
import { type Births, pairBirths } from './births'
import { CELL, type Cell, type Cells, cellAt, newCells, SINGLE, type Single, setCell } from './cells'
import { type Companies, pairCompanies } from './companies'
import { fold } from './fold'
import { hashOfTwo } from './hash'
import { type Int32List, int32List } from './int32List'
import { type Names, pairNames } from './names'
import { canonicalOrder } from './order'
import { hashPool, numbersOfForm, sealAll } from './pool'
import { findPublicHosts } from './publicHosts'
import { pairStreets, type Streets } from './streets'

/** What pairing looks at in a contact. Empty texts are unknown. */
export interface PairInput {
  readonly fullName: string
  readonly givenName: string
  readonly familyName: string
  /** Without its legal form. */
  readonly company: string
  readonly domain: string
  readonly profile: string
  readonly city: string
  readonly postalCode: string
  /** ISO 3166-1 alpha-2. */
  readonly country: string
  /** Street and house. */
  readonly street?: string
  /** ISO 8601, or the year alone. */
  readonly birthDate?: string
  /** Valid numbers in E.164. */
  readonly numbers: readonly {
    readonly e164: string
    /** One person's, as far as the plan tells. */
    readonly isMobile: boolean
    /** It may be a house's all the same. */
    readonly mayBeFixed?: boolean
  }[]
  readonly emails: readonly { readonly address: string; readonly isRole: boolean }[]
}

/**
 * The contacts that are paired, made ready for comparing: each value is folded once, kept once, and told by a number.
 * They stand in an order that is told by what they hold alone, however the rows stood.
 */
export interface PairTable {
  readonly size: number
  /** Position of a contact among those that were given, by its place here. */
  readonly positions: Int32Array
  /** What is told of each contact by one number. */
  readonly cells: Cells
  /** The numbers of all contacts, one's behind another's, and their addresses. */
  readonly numberIds: Int32Array
  readonly emailIds: Int32Array
  /** How many different numbers and addresses there are, the empty one counted in. */
  readonly numberCount: number
  readonly emailCount: number
  readonly names: Names
  readonly companies: Companies
  readonly addresses: Addresses
  readonly births: Births
  readonly streets: Streets
  /** Hash of a domain, city or postal code. */
  hashOf(id: number): number
  isMobile(number: number): boolean
  /** A mobile that cannot be a line of a house. */
  isSurelyMobile(number: number): boolean
}

/** Takes contacts one after another: of each, only what pairing looks at is kept. */
export interface PairTableBuilder {
  add(input: PairInput): void
  build(): PairTable
}

/** Of a number. */
const [MOBILE, SURELY_MOBILE] = [1, 2]

/** A contact has about so many numbers, and so many texts that stand for themselves: domain, profile, city, postal code. */
const [NUMBERS_EACH, TEXTS_EACH] = [2, 2]

/** @param expected how many contacts are about to come */
export function pairTableBuilder(expected: number): PairTableBuilder {
  const names = pairNames(expected)
  const companies = pairCompanies()
  const addresses = pairAddresses(expected)
  const births = pairBirths()
  const streets = pairStreets()
  const texts = hashPool(expected * TEXTS_EACH)
  const e164s = hashPool(expected)
  const cities = numbersOfForm(fold, texts)
  const postalCodes = numbersOfForm((code) => code.toLowerCase().replace(/\s+/g, ''), texts)
  const marks = int32List()
  marks.push(0)
  const emails = severalList(expected, 1)
  const numbers = severalList(expected, NUMBERS_EACH)
  const columns = Object.fromEntries(SINGLE.map((column) => [column, int32List(expected)])) as Record<Single, Int32List>
  const [hashes, others] = [int32List(expected), int32List(expected)]
  return {
    add: (input) => {
      const hash = contentHash()
      const put = (column: Single, id: number, hashOf: (id: number) => number) => {
        columns[column].push(id)
        hash.add(hashOf(id))
      }
      put('name', names.idOf(input), names.hashOf)
      put('company', companies.idOf(input.company), companies.hashOf)
      put('domain', texts.idOf(input.domain.toLowerCase()), texts.hashOf)
      put('profile', texts.idOf(input.profile.toLowerCase()), texts.hashOf)
      put('city', cities.idOf(input.city), texts.hashOf)
      put('postalCode', postalCodes.idOf(input.postalCode), texts.hashOf)
      put('country', texts.idOf(input.country), texts.hashOf)
      put('street', streets.idOf(input.street ?? ''), streets.hashOf)
      put('birth', births.idOf(input.birthDate ?? ''), births.hashOf)
      for (const { e164, isMobile, mayBeFixed = false } of input.numbers) {
        const id = e164s.idOf(e164)
        if (id === marks.length) marks.push(isMobile ? (mayBeFixed ? MOBILE : MOBILE | SURELY_MOBILE) : 0)
        numbers.push(id)
        hash.add(e164s.hashOf(id))
      }
      numbers.end()
      for (const { address, isRole } of input.emails) {
        const id = addresses.idOf(address, isRole)
        emails.push(id)
        hash.add(addresses.hashOf(id))
      }
      emails.end()
      hashes.push(hash.first())
      others.push(hash.second())
    },
    build: () => {
      // What contacts are found by, and stood in as they came, is let go: a million take as much for it as for the rest.
      sealAll([names, companies, addresses, streets, texts, e164s, cities, postalCodes])
      const positions = canonicalOrder(hashes.take(), others.take())
      const cells = newCells(positions.length)
      for (const column of SINGLE) arrange(columns[column].take(), positions, cells, CELL[column])
      const size = positions.length
      forgetPublicHosts(cells, size)
      for (let at = 0; at < size; at++) setCell(cells, at, CELL.nameKey, names.keyOf(cellAt({ cells }, at, CELL.name)))
      return {
        size,
        positions,
        cells,
        numberIds: arrangeSeveral(numbers.take(), positions, cells, CELL.numbersFrom, CELL.numbersTo),
        emailIds: arrangeSeveral(emails.take(), positions, cells, CELL.emailsFrom, CELL.emailsTo),
        numberCount: e164s.count(),
        emailCount: addresses.count(),
        names,
        companies,
        addresses,
        births,
        streets,
        hashOf: texts.hashOf,
        isMobile: (number) => (marks.at(number) & MOBILE) !== 0,
        isSurelyMobile: (number) => (marks.at(number) & SURELY_MOBILE) !== 0,
      }
    },
  }
}

/** Hosts that are nobody's own are left out as domains. */
function forgetPublicHosts(cells: Cells, size: number): void {
  const hosts = findPublicHosts({ cells, size })
  if (hosts.size === 0) return
  for (let at = 0; at < size; at++)
    if (hosts.has(cellAt({ cells }, at, CELL.domain))) setCell(cells, at, CELL.domain, 0)
}

/** Two hashes over everything a contact holds: two contacts with both alike hold the same. */
function contentHash() {
  let first = 0
  let second = 1
  return {
    add: (hash: number) => {
      first = hashOfTwo(first, hash)
      second = hashOfTwo(hash, second)
    },
    first: () => first | 0,
    second: () => second | 0,
  }
}

/** Several numbers for each contact: those of contact `at` stand from `starts[at]` up to `starts[at + 1]`. */
interface Several {
  readonly starts: Int32Array
  readonly ids: Int32Array
}

/** @param each about how many a contact has */
function severalList(expected: number, each: number) {
  const starts = int32List(expected)
  const ids = int32List(expected * each)
  starts.push(0)
  return {
    push: ids.push,
    end: () => starts.push(ids.length),
    take: (): Several => ({ starts: starts.take(), ids: ids.take() }),
  }
}

function arrange(column: Int32Array, order: Int32Array, cells: Cells, to: Cell): void {
  for (let i = 0; i < order.length; i++) setCell(cells, i, to, column[order[i] as number] as number)
}

/** Notes in the cells from where and up to where each contact's stand. @returns them in the order of the contacts */
function arrangeSeveral({ starts, ids }: Several, order: Int32Array, cells: Cells, from: Cell, to: Cell): Int32Array {
  const arranged = new Int32Array(ids.length)
  let next = 0
  for (let i = 0; i < order.length; i++) {
    const at = order[i] as number
    setCell(cells, i, from, next)
    for (let one = starts[at] as number; one < (starts[at + 1] as number); one++) arranged[next++] = ids[one] as number
    setCell(cells, i, to, next)
  }
  return arranged
}
