import { CELL, cellAt } from './cells'
import { hashOfTwo } from './hash'
import { int32List } from './int32List'
import type { PairTable } from './pairTable'
import { type PlacesOfContacts, placesOfContacts } from './placesOfContacts'
import { eachShared, keySorter } from './sortedKeys'

/** Reasons why two contacts are compared at all, as codes. */
export const PAIR_KEYS = [
  'number',
  'email',
  'profile',
  'name',
  'company',
  'domain-initial',
  'postal-initial',
  'name-part',
] as const
export type PairKey = (typeof PAIR_KEYS)[number]

/** Keys that many strangers have in common: whoever shares a number, an address or a profile came up for that. */
const WEAK: ReadonlySet<PairKey> = new Set(['company', 'domain-initial', 'postal-initial', 'name-part'])
export const isWeakKey = (key: PairKey): boolean => WEAK.has(key)

/** Contacts that are compared each with each when they have a key in common; more are parted by a second key. */
const MOST_IN_BLOCK = 60
/**
 * Of keys that are no person's own, fewer in a large list, so that the work grows with the list and not with its
 * square. Source: of the true pairs of the demo, 99.0 % come up with blocks of 60, 98.3 % with blocks of 12.
 */
const mostInBlock = (kind: PairKey, size: number): number =>
  kind === 'name-part'
    ? MOST_OF_NAME
    : EXACT.has(kind)
      ? MOST_IN_BLOCK
      : Math.max(12, Math.min(MOST_IN_BLOCK, Math.round(600_000 / size)))
/** Names that begin alike crowd on the common ones, which tell least. */
const MOST_OF_NAME = 10
const EXACT: ReadonlySet<PairKey> = new Set(['number', 'email', 'profile'])
/** How many neighbours are compared where even the second key leaves too many together. */
const NEIGHBOURS = 8

type KeysOf = (table: PairTable, at: number, tell: (key: number) => void) => void

/** Tells the keys of each kind that a contact has, 32 bits each. Contacts with a key in common are compared. */
const KEYS: Readonly<Record<PairKey, KeysOf>> = {
  number: (table, at, tell) => {
    const to = cellAt(table, at, CELL.numbersTo)
    for (let i = cellAt(table, at, CELL.numbersFrom); i < to; i++) tell(table.numberIds[i] as number)
  },
  email: (table, at, tell) => {
    const to = cellAt(table, at, CELL.emailsTo)
    for (let i = cellAt(table, at, CELL.emailsFrom); i < to; i++)
      tell(table.addresses.boxOf(table.emailIds[i] as number))
  },
  profile: (table, at, tell) => {
    const profile = cellAt(table, at, CELL.profile)
    if (profile !== 0) tell(profile)
  },
  name: (table, at, tell) => {
    if (table.names.wordCount(cellAt(table, at, CELL.name)) > 1) tell(cellAt(table, at, CELL.nameKey))
  },
  company: (table, at, tell) => {
    const company = cellAt(table, at, CELL.company)
    if (company === 0) return
    const hash = table.companies.hashOf(company)
    for (const cell of PLACES) {
      const place = cellAt(table, at, cell)
      if (place !== 0) tell(hashOfTwo(hash, table.hashOf(place)))
    }
  },
  'domain-initial': (table, at, tell) => {
    const id = cellAt(table, at, CELL.domain)
    if (id === 0 || cellAt(table, at, CELL.company) === 0) return
    const domain = table.hashOf(id)
    const { names } = table
    names.eachWord(cellAt(table, at, CELL.name), (word) => tell(hashOfTwo(domain, names.words.initialOf(word))))
  },
  'postal-initial': (table, at, tell) => {
    const id = cellAt(table, at, CELL.postalCode)
    if (id === 0) return
    const code = table.hashOf(id)
    const { words } = table.names
    eachTwoWords(table, at, (one, other) => {
      const [first, second] = [words.initialOf(one), words.initialOf(other)]
      if (first <= second) tell(hashOfTwo(code, hashOfTwo(first, second)))
    })
  },
  // A word as it is with the initial of another: the other may be short or hold a slip.
  'name-part': (table, at, tell) => {
    const { words } = table.names
    eachTwoWords(table, at, (one, other) => {
      if (!words.isInitial(one)) tell(hashOfTwo(words.hashOf(one), words.initialOf(other)))
    })
  },
}

/** The country too: some tell no nearer place. */
const PLACES = [CELL.postalCode, CELL.city, CELL.country] as const

/** Names of more words are no names. */
const MOST_WORDS = 5

/** Every word of a name with every other one. */
function eachTwoWords(table: PairTable, at: number, tell: (one: number, other: number) => void): void {
  const { names } = table
  const id = cellAt(table, at, CELL.name)
  const count = names.wordCount(id)
  if (count < 2 || count > MOST_WORDS) return
  names.eachWord(id, (one) =>
    names.eachWord(id, (other) => {
      if (one !== other) tell(one, other)
    }),
  )
}

/** The blocks of one kind of key, one behind another, and where each contact stands among their members. */
export interface Blocks extends PlacesOfContacts {
  readonly kind: PairKey
  /** Contacts in order of their keys, and in their own order under one key. */
  readonly members: Int32Array
  /** How many of the contacts behind each are compared with it. */
  readonly behind: Uint8Array
}

/** Who is compared with whom. */
export interface Candidates {
  /** Contacts with a key in common with a contact that stand behind it, each once, with the first kind of key that did. */
  of(at: number, tell: (other: number, key: PairKey) => void): void
}

/** Goes through blocks, kind by kind. */
export function candidatesIn(kinds: readonly Blocks[], size: number): Candidates {
  // Who was told already, by the number of the question.
  const toldIn = new Int32Array(size)
  let question = 0
  return {
    of: (at, tell) => {
      question++
      for (const { kind, members, behind, starts, places } of kinds) {
        for (let i = starts[at] as number; i < (starts[at + 1] as number); i++) {
          const place = places[i] as number
          const last = place + (behind[place] as number)
          for (let next = place + 1; next <= last; next++) {
            const other = members[next] as number
            if (toldIn[other] === question) continue
            toldIn[other] = question
            tell(other, kind)
          }
        }
      }
    },
  }
}

/**
 * Lays out the keys of one kind that contacts have. No block is compared each with each beyond a size: it is parted by
 * name, and what is still too large is compared among neighbours only.
 */
export function blocksOf(table: PairTable, kind: PairKey): Blocks {
  const sorter = keySorter(table.size * KEYS_EACH)
  for (let at = 0; at < table.size; at++) KEYS[kind](table, at, (key) => sorter.add(key, at))
  const sorted = sorter.sort()
  const most = mostInBlock(kind, table.size)
  const members = int32List(sorted.length)
  const behind = new Uint8Array(sorted.length)
  eachShared(sorted, (from, to) => {
    const block: number[] = []
    for (let i = from; i < to; i++) if (sorted.valueAt(i) !== block.at(-1)) block.push(sorted.valueAt(i))
    for (const part of partsOf(table, block, most)) {
      for (const [i, at] of part.entries()) {
        const left = part.length - i - 1
        behind[members.length] = part.length <= most ? left : Math.min(left, NEIGHBOURS - 1)
        members.push(at)
      }
    }
  })
  return {
    kind,
    behind: behind.subarray(0, members.length),
    ...placesOfContacts(table.size, members.length, members.at),
    members: members.take(),
  }
}

/** A contact has at most about so many keys of one kind. */
const KEYS_EACH = 3

/** A block as it is, or parted by name where it is too large. */
function partsOf(table: PairTable, block: readonly number[], most: number): Iterable<readonly number[]> {
  if (block.length < 2) return []
  if (block.length <= most) return [block]
  const byName = new Map<number, number[]>()
  for (const at of block) {
    const key = cellAt(table, at, CELL.nameKey)
    const part = byName.get(key)
    if (part) part.push(at)
    else byName.set(key, [at])
  }
  return [...byName.values()].filter(({ length }) => length > 1)
}
