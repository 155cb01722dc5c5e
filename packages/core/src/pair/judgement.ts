import { CELL, cellAt } from './cells'
import {
  areDifferentNames,
  areOfOneCompany,
  compareBirths,
  compareEmails,
  compareNames,
  compareProfiles,
  haveOtherMobiles,
  shareMobile,
  shareSureMobile,
} from './compare'
import { type Comparison, FIELD, LEVEL, levelOf, UNKNOWN } from './fields'
import type { PairTable } from './pairTable'

/** They hold what only one person holds; a line that may be a house's only where both are named. */
export const isPersonal = (table: PairTable, comparison: Comparison, a: number, b: number): boolean =>
  levelOf(comparison, FIELD.profile) === LEVEL.profile.same ||
  levelOf(comparison, FIELD.email) === LEVEL.email.same ||
  (levelOf(comparison, FIELD.number) === LEVEL.number.same &&
    (levelOf(comparison, FIELD.name) === UNKNOWN ? shareSureMobile : shareMobile)(table, a, b))

/**
 * Whether two contacts may be joined without a person: their names agree, or what only one person holds. A given name
 * with a slip may be a sister's: then the names do not count as agreeing.
 */
export function isSure(table: PairTable, comparison: Comparison, a: number, b: number): boolean {
  if (levelOf(comparison, FIELD.birth) === LEVEL.birth.other) return false
  const name = levelOf(comparison, FIELD.name)
  const isTheirs = isPersonal(table, comparison, a, b)
  // Namesakes at one address are often father and son: two mobiles and two letter boxes tell them apart.
  if (name === LEVEL.name.same || name === LEVEL.name.like)
    return (
      isTheirs || (!haveOtherKeys(comparison) && (isSupported(comparison) || areNeighbours(table, comparison, a, b)))
    )
  // A family name changes with marriage; who bears the given name and holds what is one person's is that person.
  return (!areDifferentNames(name) || name === LEVEL.name.given) && isTheirs
}

/** A name alone is a namesake's as well: something else has to agree. */
function isSupported(comparison: Comparison): boolean {
  const { number, email, company, birth, street } = LEVEL
  const agrees = (field: number, ...levels: readonly number[]) => levels.includes(levelOf(comparison, field))
  return (
    agrees(FIELD.number, number.same, number.shared) ||
    agrees(FIELD.email, email.same, email.like) ||
    agrees(FIELD.company, company.same, company.like) ||
    agrees(FIELD.birth, birth.same, birth.year) ||
    agrees(FIELD.street, street.same, street.like)
  )
}

/** Of one town, where neither tells a company: who works there and who lives there may be namesakes. */
function areNeighbours(table: PairTable, comparison: Comparison, a: number, b: number): boolean {
  const level = levelOf(comparison, FIELD.place)
  const hasCompany = (at: number) => cellAt(table, at, CELL.company) !== 0
  return !hasCompany(a) && !hasCompany(b) && (level === LEVEL.place.postal || level === LEVEL.place.city)
}

/** Each has a mobile and a letter box of their own. */
const haveOtherKeys = (comparison: Comparison): boolean =>
  levelOf(comparison, FIELD.number) === LEVEL.number.other && levelOf(comparison, FIELD.email) >= LEVEL.email.other

/**
 * Pairs of people with different names are not looked at, unless they share what seldom two people share. Who has only
 * a family name in common is a relative, unless they work together: one of the given names may be wrong there.
 */
export function isWorthKeeping(table: PairTable, byKeys: Comparison, a: number, b: number): boolean {
  const name = levelOf(byKeys, FIELD.name)
  if (holdSameKey(byKeys)) return true
  return name === LEVEL.name.family ? areOfOneCompany(table, a, b) : !areStrangers(name)
}

/** A mobile that is one person's stands at two names: however unlikely, a person looks at it. */
export const holdOneMobile = (table: PairTable, comparison: Comparison, a: number, b: number): boolean =>
  areDifferentNames(levelOf(comparison, FIELD.name)) &&
  levelOf(comparison, FIELD.number) === LEVEL.number.same &&
  shareMobile(table, a, b)

/** Names with no family name in common. */
export const areStrangers = (name: number): boolean => name === LEVEL.name.other || name === LEVEL.name.given

/** They have a number, an address or a profile in common. */
export const holdSameKey = (byKeys: Comparison): boolean =>
  levelOf(byKeys, FIELD.number) === LEVEL.number.same ||
  levelOf(byKeys, FIELD.email) === LEVEL.email.same ||
  levelOf(byKeys, FIELD.profile) === LEVEL.profile.same

/** Two people of one company: their names say so. */
export const areColleagues = (table: PairTable, byKeys: Comparison, a: number, b: number): boolean =>
  areDifferentNames(levelOf(byKeys, FIELD.name)) && areOfOneCompany(table, a, b)

/**
 * What cannot be one person's: names with nothing in common or a family name alone, two birth dates, or two values of
 * more than one personal key. One value that differs is evidence, and is weighed.
 */
export function contradict(table: PairTable, a: number, b: number): boolean {
  const name = compareNames(table, a, b)
  if (areDifferentNames(name) && name !== LEVEL.name.given) return true
  if (compareBirths(table, a, b) === LEVEL.birth.other) return true
  return (
    compareProfiles(table, a, b) === LEVEL.profile.other &&
    (compareEmails(table, a, b) === LEVEL.email.rival || haveOtherMobiles(table, a, b))
  )
}
