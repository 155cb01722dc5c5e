import { atField, type Comparison, FIELD, LEVEL, UNKNOWN } from './fields'
import type { PairTable } from './pairTable'

/** Compares contacts of a list. */
export interface Comparer {
  /** Position of the level at which their names stand to each other, or `UNKNOWN`. */
  names(a: number, b: number): number
  /** What tells who they are: name, number, address, profile. The other fields are left unknown. */
  byKeys(a: number, b: number, name?: number): Comparison
  /** Where they are: company and place. The other fields are left unknown. */
  byPlaces(a: number, b: number): Comparison
  /** All fields. */
  whole(a: number, b: number): Comparison
}

/** @param isSharedLine true for a number that people of different names hold */
export function comparer(table: PairTable, isSharedLine: (number: number) => boolean): Comparer {
  const names = (a: number, b: number): number => compareNames(table, a, b)
  const byKeys = (a: number, b: number, name = names(a, b)): Comparison =>
    atField(FIELD.name, name) |
    atField(FIELD.number, compareNumbers(table, a, b, isSharedLine)) |
    atField(FIELD.email, compareEmails(table, a, b)) |
    atField(FIELD.profile, compareProfiles(table, a, b))
  const byPlaces = (a: number, b: number): Comparison =>
    atField(FIELD.company, compareCompanies(table, a, b)) |
    atField(FIELD.place, comparePlaces(table, a, b)) |
    atField(FIELD.birth, compareBirths(table, a, b)) |
    atField(FIELD.street, compareStreets(table, a, b))
  return { names, byKeys, byPlaces, whole: (a, b) => byKeys(a, b) | byPlaces(a, b) }
}

/** Names in any order, with initials, familiar forms, fewer words and slips of a key. */
export const compareNames = (table: PairTable, a: number, b: number): number =>
  table.names.compare(table.name[a] as number, table.name[b] as number)

/** Names that cannot be one person's. */
export const areDifferentNames = (level: number): boolean => level >= LEVEL.name.family

export function compareProfiles({ profile }: PairTable, a: number, b: number): number {
  if (profile[a] === 0 || profile[b] === 0) return UNKNOWN
  return profile[a] === profile[b] ? LEVEL.profile.same : LEVEL.profile.other
}

function compareNumbers(table: PairTable, a: number, b: number, isSharedLine: (number: number) => boolean): number {
  const { starts, ids } = table.numbers
  const [fromA, toA, fromB, toB] = [starts[a], starts[a + 1], starts[b], starts[b + 1]] as [
    number,
    number,
    number,
    number,
  ]
  if (fromA === toA || fromB === toB) return UNKNOWN
  let isShared = false
  let isOwnLine = false
  for (let i = fromA; i < toA; i++) {
    const id = ids[i] as number
    if (!holds(ids, fromB, toB, id)) continue
    if (isSharedLine(id)) isShared = true
    else if (table.isMobile(id)) return LEVEL.number.same
    else isOwnLine = true
  }
  // A line of a house says little where two mobiles say that they are two; a desk and a mobile may be one person's.
  const isOther = hasMobile(table, fromA, toA) && hasMobile(table, fromB, toB)
  if (isOwnLine) return isOther ? LEVEL.number.shared : LEVEL.number.same
  return isShared ? LEVEL.number.shared : isOther ? LEVEL.number.other : UNKNOWN
}

function holds(ids: Int32Array, from: number, to: number, wanted: number): boolean {
  for (let i = from; i < to; i++) if (ids[i] === wanted) return true
  return false
}

function hasMobile({ numbers, isMobile }: PairTable, from: number, to: number): boolean {
  for (let i = from; i < to; i++) if (isMobile(numbers.ids[i] as number)) return true
  return false
}

/** Both hold a mobile, and none is the other's. */
export function haveOtherMobiles(table: PairTable, a: number, b: number): boolean {
  const { starts } = table.numbers
  const isWithMobile = (at: number) => hasMobile(table, starts[at] as number, starts[at + 1] as number)
  return isWithMobile(a) && isWithMobile(b) && !shareMobile(table, a, b)
}

/** They hold one mobile number. */
export const shareMobile = (table: PairTable, a: number, b: number): boolean => share(table, a, b, table.isMobile)

/** They hold one mobile number that cannot be a line of a house. */
export const shareSureMobile = (table: PairTable, a: number, b: number): boolean =>
  share(table, a, b, table.isSurelyMobile)

function share(
  { numbers: { starts, ids } }: PairTable,
  a: number,
  b: number,
  isMobile: (number: number) => boolean,
): boolean {
  for (let i = starts[a] as number; i < (starts[a + 1] as number); i++) {
    const id = ids[i] as number
    if (isMobile(id) && holds(ids, starts[b] as number, starts[b + 1] as number, id)) return true
  }
  return false
}

/** The closest that two addresses of theirs are. */
export function compareEmails({ emails: { starts, ids }, addresses }: PairTable, a: number, b: number): number {
  let best = UNKNOWN
  for (let i = starts[a] as number; i < (starts[a + 1] as number); i++) {
    for (let j = starts[b] as number; j < (starts[b + 1] as number); j++) {
      const level = addresses.compare(ids[i] as number, ids[j] as number)
      if (level !== UNKNOWN && (best === UNKNOWN || level < best)) best = level
    }
  }
  return best
}

/** Two contacts of one country. */
export const areCompatriots = ({ country }: PairTable, a: number, b: number): boolean =>
  country[a] !== 0 && country[a] === country[b]

/** Two contacts of one company, told by its site or by its name. */
export function areOfOneCompany({ domain, company }: PairTable, a: number, b: number): boolean {
  if (domain[a] !== 0 && domain[a] === domain[b]) return true
  return company[a] !== 0 && company[a] === company[b] && (domain[a] === 0 || domain[b] === 0)
}

function compareCompanies(table: PairTable, a: number, b: number): number {
  const { company, companies } = table
  const { same, like, namesake, other } = LEVEL.company
  if (areOfOneCompany(table, a, b)) return same
  if (company[a] === 0 || company[b] === 0) return UNKNOWN
  if (company[a] === company[b]) return namesake
  return companies.areLike(company[a] as number, company[b] as number) ? like : other
}

function comparePlaces({ country, postalCode, city }: PairTable, a: number, b: number): number {
  const levels = LEVEL.place
  if (country[a] !== 0 && country[b] !== 0 && country[a] !== country[b]) return levels.country
  if (postalCode[a] !== 0 && postalCode[a] === postalCode[b]) return levels.postal
  if (city[a] !== 0 && city[b] !== 0) return city[a] === city[b] ? levels.city : levels.other
  return postalCode[a] !== 0 && postalCode[b] !== 0 ? levels.other : UNKNOWN
}

/** Birth dates, or years where one of them tells no more. */
export function compareBirths({ birth, births }: PairTable, a: number, b: number): number {
  return births.compare(birth[a] as number, birth[b] as number)
}

function compareStreets({ street, streets }: PairTable, a: number, b: number): number {
  return streets.compare(street[a] as number, street[b] as number)
}
