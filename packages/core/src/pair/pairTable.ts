import { type Addresses, pairAddresses } from './addresses'
import { type Births, pairBirths } from './births'
import { type Companies, pairCompanies } from './companies'
import { fold } from './fold'
import { hashOfTwo } from './hash'
import { type Int32List, int32List } from './int32List'
import { type Names, pairNames } from './names'
import { canonicalOrder } from './order'
import { hashPool, numberOfForm } from './pool'
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

/** What a contact says in each of these is one number; 0 where it says nothing. */
const SINGLE = ['company', 'domain', 'profile', 'city', 'postalCode', 'country', 'street', 'birth'] as const
type Single = (typeof SINGLE)[number]

/** Several numbers for each contact: those of contact `at` stand from `starts[at]` up to `starts[at + 1]`. */
export interface Several {
  readonly starts: Int32Array
  readonly ids: Int32Array
}

/**
 * The contacts that are paired, made ready for comparing: each value is folded once, kept once, and told by a number.
 * They stand in an order that is told by what they hold alone, however the rows stood.
 */
export interface PairTable extends Readonly<Record<Single, Int32Array>> {
  readonly size: number
  /** Position of a contact among those that were given, by its place here. */
  readonly positions: Int32Array
  /** Number of its name. */
  readonly name: Int32Array
  readonly numbers: Several
  readonly emails: Several
  /** How many different numbers, addresses and other texts there are, the empty one counted in. */
  readonly numberCount: number
  readonly emailCount: number
  readonly textCount: number
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

/** Number of a contact's name, whatever the order of its words. 0 is no name. */
export const nameKeyAt = ({ names, name }: PairTable, at: number): number => names.keyOf(name[at] as number)

/** Takes contacts one after another: of each, only what pairing looks at is kept. */
export interface PairTableBuilder {
  add(input: PairInput): void
  build(): PairTable
}

export function pairTableBuilder(): PairTableBuilder {
  const names = pairNames()
  const companies = pairCompanies()
  const addresses = pairAddresses()
  const births = pairBirths()
  const streets = pairStreets()
  const texts = hashPool()
  const e164s = hashPool()
  const cityOf = numberOfForm(fold, texts)
  const postalCodeOf = numberOfForm((code) => code.toLowerCase().replace(/\s+/g, ''), texts)
  const mobiles: boolean[] = [false]
  const sureMobiles: boolean[] = [false]
  const emails = severalList()
  const numbers = severalList()
  const columns = Object.fromEntries([...SINGLE, 'name'].map((column) => [column, int32List()])) as Record<
    Single | 'name',
    Int32List
  >
  const [hashes, others] = [int32List(), int32List()]
  return {
    add: (input) => {
      const hash = contentHash()
      const put = (column: Single | 'name', id: number, hashOf: (id: number) => number) => {
        columns[column].push(id)
        hash.add(hashOf(id))
      }
      put('name', names.idOf(input), names.hashOf)
      put('company', companies.idOf(input.company), companies.hashOf)
      put('domain', texts.idOf(input.domain.toLowerCase()), texts.hashOf)
      put('profile', texts.idOf(input.profile.toLowerCase()), texts.hashOf)
      put('city', cityOf(input.city), texts.hashOf)
      put('postalCode', postalCodeOf(input.postalCode), texts.hashOf)
      put('country', texts.idOf(input.country), texts.hashOf)
      put('street', streets.idOf(input.street ?? ''), streets.hashOf)
      put('birth', births.idOf(input.birthDate ?? ''), births.hashOf)
      for (const { e164, isMobile, mayBeFixed = false } of input.numbers) {
        const id = e164s.idOf(e164)
        if (id === mobiles.length) {
          mobiles.push(isMobile)
          sureMobiles.push(isMobile && !mayBeFixed)
        }
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
      const positions = canonicalOrder(hashes.toArray(), others.toArray())
      const hosts = findPublicHosts({
        size: positions.length,
        domain: columns.domain.toArray(),
        company: columns.company.toArray(),
        name: columns.name.toArray(),
      })
      const inOrder = (column: Single | 'name') => arrange(columns[column].toArray(), positions)
      return {
        size: positions.length,
        positions,
        name: inOrder('name'),
        company: inOrder('company'),
        domain: withoutHosts(inOrder('domain'), hosts),
        profile: inOrder('profile'),
        city: inOrder('city'),
        postalCode: inOrder('postalCode'),
        country: inOrder('country'),
        street: inOrder('street'),
        birth: inOrder('birth'),
        numbers: arrangeSeveral(numbers.build(), positions),
        emails: arrangeSeveral(emails.build(), positions),
        numberCount: e164s.count(),
        emailCount: addresses.count(),
        textCount: texts.count(),
        names,
        companies,
        addresses,
        births,
        streets,
        hashOf: texts.hashOf,
        isMobile: (number) => mobiles[number] as boolean,
        isSurelyMobile: (number) => sureMobiles[number] as boolean,
      }
    },
  }
}

/** Domains, but for hosts that are nobody's own. */
const withoutHosts = (domains: Int32Array, hosts: ReadonlySet<number>): Int32Array =>
  hosts.size === 0 ? domains : domains.map((domain) => (hosts.has(domain) ? 0 : domain))

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

function severalList() {
  const starts = int32List()
  const ids = int32List()
  starts.push(0)
  return {
    push: ids.push,
    end: () => starts.push(ids.length),
    build: (): Several => ({ starts: starts.toArray(), ids: ids.toArray() }),
  }
}

function arrange(column: Int32Array, order: Int32Array): Int32Array {
  const arranged = new Int32Array(order.length)
  for (let i = 0; i < order.length; i++) arranged[i] = column[order[i] as number] as number
  return arranged
}

function arrangeSeveral({ starts, ids }: Several, order: Int32Array): Several {
  const arranged = { starts: new Int32Array(order.length + 1), ids: new Int32Array(ids.length) }
  let to = 0
  for (let i = 0; i < order.length; i++) {
    const at = order[i] as number
    for (let from = starts[at] as number; from < (starts[at + 1] as number); from++)
      arranged.ids[to++] = ids[from] as number
    arranged.starts[i + 1] = to
  }
  return arranged
}
