import { CELL, type Cell, cellAt } from './cells'
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
  table.names.compare(
    cellAt(table, a, CELL.name),
    cellAt(table, b, CELL.name),
    cellAt(table, a, CELL.nameKey),
    cellAt(table, b, CELL.nameKey),
  )

/** Both tell it. */
export const areKnown = (table: PairTable, a: number, b: number, cell: Cell): boolean =>
  cellAt(table, a, cell) !== 0 && cellAt(table, b, cell) !== 0

/** Both tell it, and the same. */
export const areSame = (table: PairTable, a: number, b: number, cell: Cell): boolean =>
  cellAt(table, a, cell) !== 0 && cellAt(table, a, cell) === cellAt(table, b, cell)

/** Names that cannot be one person's. */
export const areDifferentNames = (level: number): boolean => level >= LEVEL.name.family

export function compareProfiles(table: PairTable, a: number, b: number): number {
  if (!areKnown(table, a, b, CELL.profile)) return UNKNOWN
  return areSame(table, a, b, CELL.profile) ? LEVEL.profile.same : LEVEL.profile.other
}

function compareNumbers(table: PairTable, a: number, b: number, isSharedLine: (number: number) => boolean): number {
  const ids = table.numberIds
  const [fromA, toA] = [cellAt(table, a, CELL.numbersFrom), cellAt(table, a, CELL.numbersTo)]
  const [fromB, toB] = [cellAt(table, b, CELL.numbersFrom), cellAt(table, b, CELL.numbersTo)]
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

function hasMobile({ numberIds, isMobile }: PairTable, from: number, to: number): boolean {
  for (let i = from; i < to; i++) if (isMobile(numberIds[i] as number)) return true
  return false
}

/** Both hold a mobile, and none is the other's. */
export function haveOtherMobiles(table: PairTable, a: number, b: number): boolean {
  const isWithMobile = (at: number) =>
    hasMobile(table, cellAt(table, at, CELL.numbersFrom), cellAt(table, at, CELL.numbersTo))
  return isWithMobile(a) && isWithMobile(b) && !shareMobile(table, a, b)
}

/** They hold one mobile number. */
export const shareMobile = (table: PairTable, a: number, b: number): boolean => share(table, a, b, table.isMobile)

/** They hold one mobile number that cannot be a line of a house. */
export const shareSureMobile = (table: PairTable, a: number, b: number): boolean =>
  share(table, a, b, table.isSurelyMobile)

function share(table: PairTable, a: number, b: number, isMobile: (number: number) => boolean): boolean {
  const ids = table.numberIds
  const [fromB, toB] = [cellAt(table, b, CELL.numbersFrom), cellAt(table, b, CELL.numbersTo)]
  for (let i = cellAt(table, a, CELL.numbersFrom); i < cellAt(table, a, CELL.numbersTo); i++) {
    const id = ids[i] as number
    if (isMobile(id) && holds(ids, fromB, toB, id)) return true
  }
  return false
}

/** The closest that two addresses of theirs are. */
export function compareEmails(table: PairTable, a: number, b: number): number {
  const { addresses, emailIds } = table
  const [toA, toB] = [cellAt(table, a, CELL.emailsTo), cellAt(table, b, CELL.emailsTo)]
  let best = UNKNOWN
  for (let i = cellAt(table, a, CELL.emailsFrom); i < toA; i++) {
    for (let j = cellAt(table, b, CELL.emailsFrom); j < toB; j++) {
      const level = addresses.compare(emailIds[i] as number, emailIds[j] as number)
      if (level !== UNKNOWN && (best === UNKNOWN || level < best)) best = level
    }
  }
  return best
}

/** Two contacts of one country. */
export const areCompatriots = (table: PairTable, a: number, b: number): boolean => areSame(table, a, b, CELL.country)

/** Two contacts of one company, told by its site or by its name. */
export const areOfOneCompany = (table: PairTable, a: number, b: number): boolean =>
  areSame(table, a, b, CELL.domain) || (areSame(table, a, b, CELL.company) && !areKnown(table, a, b, CELL.domain))

function compareCompanies(table: PairTable, a: number, b: number): number {
  const { same, like, namesake, other } = LEVEL.company
  if (areOfOneCompany(table, a, b)) return same
  if (!areKnown(table, a, b, CELL.company)) return UNKNOWN
  if (areSame(table, a, b, CELL.company)) return namesake
  return table.companies.areLike(cellAt(table, a, CELL.company), cellAt(table, b, CELL.company)) ? like : other
}

function comparePlaces(table: PairTable, a: number, b: number): number {
  const levels = LEVEL.place
  if (areKnown(table, a, b, CELL.country) && !areCompatriots(table, a, b)) return levels.country
  if (areSame(table, a, b, CELL.postalCode)) return levels.postal
  if (areKnown(table, a, b, CELL.city)) return areSame(table, a, b, CELL.city) ? levels.city : levels.other
  return areKnown(table, a, b, CELL.postalCode) ? levels.other : UNKNOWN
}

/** Birth dates, or years where one of them tells no more. */
export const compareBirths = (table: PairTable, a: number, b: number): number =>
  table.births.compare(cellAt(table, a, CELL.birth), cellAt(table, b, CELL.birth))

const compareStreets = (table: PairTable, a: number, b: number): number =>
  table.streets.compare(cellAt(table, a, CELL.street), cellAt(table, b, CELL.street))
