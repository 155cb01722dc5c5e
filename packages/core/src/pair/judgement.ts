import {
  areDifferentNames,
  areOfOneCompany,
  compareEmails,
  compareNames,
  compareProfiles,
  shareMobile,
} from './compare'
import { type Comparison, FIELD, LEVEL, levelOf } from './fields'
import type { PairTable } from './pairTable'

/** They hold what only one person holds. */
export const isPersonal = (table: PairTable, comparison: Comparison, a: number, b: number): boolean =>
  levelOf(comparison, FIELD.profile) === LEVEL.profile.same ||
  levelOf(comparison, FIELD.email) === LEVEL.email.same ||
  (levelOf(comparison, FIELD.number) === LEVEL.number.same && shareMobile(table, a, b))

/**
 * Whether two contacts may be joined without a person: their names agree, or what only one person holds. A given name
 * with a slip may be a sister's: then the names do not count as agreeing.
 */
export function isSure(table: PairTable, comparison: Comparison, a: number, b: number): boolean {
  const name = levelOf(comparison, FIELD.name)
  if (name === LEVEL.name.same || name === LEVEL.name.like) return true
  return !areDifferentNames(name) && isPersonal(table, comparison, a, b)
}

/** Pairs of people with different names are not looked at, unless they share what seldom two people share. */
export const isWorthKeeping = (byKeys: Comparison): boolean =>
  !areStrangers(levelOf(byKeys, FIELD.name)) || holdSameKey(byKeys)

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

/** Names that cannot be one person's, two profiles, or two addresses with one host. */
export const contradict = (table: PairTable, a: number, b: number): boolean =>
  areDifferentNames(compareNames(table, a, b)) ||
  compareProfiles(table, a, b) === LEVEL.profile.other ||
  compareEmails(table, a, b) === LEVEL.email.rival
