import type { PairRecord } from './record'

/** Reasons why two contacts are compared at all, as codes. */
export const PAIR_KEYS = [
  'number',
  'email',
  'profile',
  'local-part',
  'name',
  'sound-place',
  'company-given',
  'company',
  'domain-initial',
] as const
export type PairKey = (typeof PAIR_KEYS)[number]

/** Contacts that are compared each with each when they have a key in common; more are parted by a second key. */
const MOST_IN_BLOCK = 60
/** Shorter local parts (`anna`) stand before many a domain. */
const LEAST_LOCAL = 6
/** How many neighbours are compared where even the second key leaves too many together. */
const NEIGHBOURS = 8

/** The keys of one kind that a contact has. Contacts with a key in common are compared. */
function keysOf(record: PairRecord, kind: PairKey): readonly string[] {
  const { company, city, domain, words } = record
  switch (kind) {
    case 'number':
      return record.numbers.map(({ e164 }) => e164)
    case 'email':
      return record.emails.map(({ address }) => address)
    case 'profile':
      return record.profile === '' ? [] : [record.profile]
    case 'local-part':
      return record.emails.flatMap(({ address, isRole }) => {
        const local = address.slice(0, address.lastIndexOf('@'))
        return !isRole && local.length >= LEAST_LOCAL ? [local] : []
      })
    case 'name':
      return words.length > 1 ? [record.nameKey] : []
    case 'sound-place':
      return record.sound === '' || city === '' ? [] : [`${record.sound}/${city}`]
    case 'company-given':
      return company === '' ? [] : words.map((word) => `${company}/${word.slice(0, 3)}`)
    case 'company':
      return company === '' ? [] : [record.postalCode, city].filter(Boolean).map((place) => `${company}/${place}`)
    case 'domain-initial':
      return company === '' || domain === '' ? [] : words.map((word) => `${domain}/${word[0]}`)
  }
}

/** Two positions and the kind of key that brought them together; the first kind that did. */
export type CandidateSink = (a: number, b: number, key: PairKey) => void

/**
 * Goes through all pairs that have a key in common, each once, kind by kind. No block is compared each with each beyond
 * a size: it is parted by name, and what is still too large is compared among neighbours only.
 */
export function eachCandidate(records: readonly PairRecord[], sink: CandidateSink): void {
  const seen = new Set<number>()
  const size = records.length
  const take = (a: number, b: number, kind: PairKey): void => {
    const pair = a < b ? a * size + b : b * size + a
    if (a === b || seen.has(pair)) return
    seen.add(pair)
    sink(Math.min(a, b), Math.max(a, b), kind)
  }
  for (const kind of PAIR_KEYS) {
    for (const block of blocksOf(records, kind)) pairUp(block, records, (a, b) => take(a, b, kind))
  }
}

function blocksOf(records: readonly PairRecord[], kind: PairKey): Iterable<readonly number[]> {
  const blocks = new Map<string, number[]>()
  for (const record of records) {
    for (const key of keysOf(record, kind)) {
      const block = blocks.get(key)
      if (!block) blocks.set(key, [record.at])
      else if (block.at(-1) !== record.at) block.push(record.at)
    }
  }
  return [...blocks.values()].filter(({ length }) => length > 1)
}

function pairUp(block: readonly number[], records: readonly PairRecord[], take: (a: number, b: number) => void): void {
  if (block.length <= MOST_IN_BLOCK) {
    allPairs(block, take)
    return
  }
  const byName = new Map<string, number[]>()
  for (const at of block) {
    const key = records[at]?.nameKey ?? ''
    const part = byName.get(key)
    if (part) part.push(at)
    else byName.set(key, [at])
  }
  for (const part of byName.values()) {
    if (part.length <= MOST_IN_BLOCK) allPairs(part, take)
    else for (let i = 0; i < part.length; i++) allPairs(part.slice(i, i + NEIGHBOURS), take)
  }
}

function allPairs(block: readonly number[], take: (a: number, b: number) => void): void {
  for (let i = 0; i < block.length; i++)
    for (let j = i + 1; j < block.length; j++) take(block[i] as number, block[j] as number)
}
