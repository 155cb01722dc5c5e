import { type Addresses, pairAddresses } from './addresses'
import { type Births, pairBirths } from './births'
import { CELL, type Cell, type Cells, cellAt, orderCells, setCell, WIDTH } from './cells'
import { type Companies, pairCompanies } from './companies'
import { fold } from './fold'
import { hashOfTwo } from './hash'
import { int32List } from './int32List'
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
  /** The numbers of all contacts, one's behind another's as they came, and their addresses: cells tell whose stand where. */
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
  const emailIds = int32List(expected)
  const numberIds = int32List(expected * NUMBERS_EACH)
  const rows = int32List(expected * WIDTH)
  const row = new Int32Array(WIDTH)
  return {
    add: (input) => {
      const hash = contentHash()
      const put = (cell: Cell, id: number, hashOf: (id: number) => number) => {
        row[cell] = id
        hash.add(hashOf(id))
      }
      put(CELL.name, names.idOf(input), names.hashOf)
      put(CELL.company, companies.idOf(input.company), companies.hashOf)
      put(CELL.domain, texts.idOf(input.domain.toLowerCase()), texts.hashOf)
      put(CELL.profile, texts.idOf(input.profile.toLowerCase()), texts.hashOf)
      put(CELL.city, cities.idOf(input.city), texts.hashOf)
      put(CELL.postalCode, postalCodes.idOf(input.postalCode), texts.hashOf)
      put(CELL.country, texts.idOf(input.country), texts.hashOf)
      put(CELL.street, streets.idOf(input.street ?? ''), streets.hashOf)
      put(CELL.birth, births.idOf(input.birthDate ?? ''), births.hashOf)
      row[CELL.nameKey] = names.keyOf(row[CELL.name] as number)
      row[CELL.numbersFrom] = numberIds.length
      for (const { e164, isMobile, mayBeFixed = false } of input.numbers) {
        const id = e164s.idOf(e164)
        if (id === marks.length) marks.push(isMobile ? (mayBeFixed ? MOBILE : MOBILE | SURELY_MOBILE) : 0)
        numberIds.push(id)
        hash.add(e164s.hashOf(id))
      }
      row[CELL.numbersTo] = numberIds.length
      row[CELL.emailsFrom] = emailIds.length
      for (const { address, isRole } of input.emails) {
        const id = addresses.idOf(address, isRole)
        emailIds.push(id)
        hash.add(addresses.hashOf(id))
      }
      row[CELL.emailsTo] = emailIds.length
      row[CELL.hash] = hash.first()
      row[CELL.otherHash] = hash.second()
      for (const value of row) rows.push(value)
    },
    build: () => {
      // What contacts are found by is let go: a million take as much for it as for the rest.
      sealAll([names, companies, addresses, streets, texts, e164s, cities, postalCodes])
      const cells = rows.take()
      const size = cells.length / WIDTH
      const positions = canonicalOrder({ cells, size })
      orderCells(cells, positions)
      forgetPublicHosts(cells, size)
      return {
        size,
        positions,
        cells,
        numberIds: numberIds.take(),
        emailIds: emailIds.take(),
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
