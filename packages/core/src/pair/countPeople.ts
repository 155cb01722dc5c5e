import { compareEmails, compareProfiles, shareMobile } from './compare'
import { LEVEL } from './fields'
import { nameKeyAt, type PairTable } from './pairTable'
import { eachRun, keySorter } from './sortedKeys'

/** Of more contacts than these each counts as a person: nobody is there so often. */
const MOST_OF_ONE = 24

/**
 * How many people hold each key: contacts that also share a mobile, an address or a profile, or are written alike, count
 * once, so that somebody who is there three times does not make a name common.
 * @param keyAt key of a contact below 2 ** 32; 0 where it has none
 */
export function countPeople(table: PairTable, keyAt: (at: number) => number): Map<number, number> {
  const sorter = keySorter()
  for (let at = 0; at < table.size; at++) {
    const key = keyAt(at)
    if (key !== 0) sorter.add(key, at)
  }
  const sorted = sorter.sort()
  const counts = new Map<number, number>()
  eachRun(sorted, (from, to) => {
    const contacts = Array.from({ length: to - from }, (_, i) => sorted.valueAt(from + i))
    counts.set(sorted.keyAt(from), contacts.length > MOST_OF_ONE ? contacts.length : countApart(table, contacts))
  })
  return counts
}

/** How many of these contacts have nothing personal in common with one before them. */
function countApart(table: PairTable, contacts: readonly number[]): number {
  return contacts.filter((at, i) => !contacts.slice(0, i).some((before) => areLinked(table, at, before))).length
}

const areLinked = (table: PairTable, a: number, b: number): boolean =>
  shareMobile(table, a, b) ||
  compareEmails(table, a, b) === LEVEL.email.same ||
  compareProfiles(table, a, b) === LEVEL.profile.same ||
  (nameKeyAt(table, a) === nameKeyAt(table, b) && areAtOnePlace(table, a, b))

/** The same house, or the same street: written twice, most likely. */
const areAtOnePlace = ({ company, street }: PairTable, a: number, b: number): boolean =>
  (company[a] !== 0 && company[a] === company[b]) || (street[a] !== 0 && street[a] === street[b])
