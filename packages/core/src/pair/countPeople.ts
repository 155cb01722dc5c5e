import { CELL, cellAt } from './cells'
import { areSame, compareEmails, compareProfiles, shareMobile } from './compare'
import { createCounter } from './counter'
import { LEVEL } from './fields'
import type { PairTable } from './pairTable'
import { eachShared, keySorter } from './sortedKeys'

/** Of more contacts than these each counts as a person: nobody is there so often. */
const MOST_OF_ONE = 24

/**
 * How many people hold each key: contacts that also share a mobile, an address or a profile, or are written alike, count
 * once, so that somebody who is there three times does not make a name common.
 * @param keyAt key of a contact below 2 ** 32; 0 where it has none
 * @returns tells it for a key that a contact has, and 0 for 0
 */
export function countPeople(table: PairTable, keyAt: (at: number) => number): (key: number) => number {
  const sorter = keySorter(table.size)
  for (let at = 0; at < table.size; at++) {
    const key = keyAt(at)
    if (key !== 0) sorter.add(key, at)
  }
  const sorted = sorter.sort()
  // Most keys are one person's: that needs no place.
  const several = createCounter()
  eachShared(sorted, (from, to) => {
    const contacts = Array.from({ length: to - from }, (_, i) => sorted.valueAt(from + i))
    const people = contacts.length > MOST_OF_ONE ? contacts.length : countApart(table, contacts)
    if (people > 1) several.set(sorted.keyAt(from), 0, people)
  })
  return (key) => (key === 0 ? 0 : several.of(key, 0) || 1)
}

/** How many of these contacts have nothing personal in common with one before them. */
function countApart(table: PairTable, contacts: readonly number[]): number {
  return contacts.filter((at, i) => !contacts.slice(0, i).some((before) => areLinked(table, at, before))).length
}

const areLinked = (table: PairTable, a: number, b: number): boolean =>
  shareMobile(table, a, b) ||
  compareEmails(table, a, b) === LEVEL.email.same ||
  compareProfiles(table, a, b) === LEVEL.profile.same ||
  (cellAt(table, a, CELL.nameKey) === cellAt(table, b, CELL.nameKey) && areAtOnePlace(table, a, b))

/** The same house, or the same street: written twice, most likely. */
const areAtOnePlace = (table: PairTable, a: number, b: number): boolean =>
  areSame(table, a, b, CELL.company) || areSame(table, a, b, CELL.street)
