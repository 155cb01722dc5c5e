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

/** The keys of a contact, each with its kind. Contacts with a key in common are compared. */
export function* keysOf(record: PairRecord): Generator<readonly [kind: PairKey, key: string]> {
  for (const { e164 } of record.numbers) yield ['number', e164]
  for (const { address, isRole } of record.emails) {
    yield ['email', address]
    const local = address.slice(0, address.lastIndexOf('@'))
    if (!isRole && local.length >= LEAST_LOCAL) yield ['local-part', local]
  }
  if (record.profile !== '') yield ['profile', record.profile]
  if (record.words.length > 1) yield ['name', record.nameKey]
  if (record.sound !== '' && record.city !== '') yield ['sound-place', `${record.sound}/${record.city}`]
  if (record.company === '') return
  const first = record.words[0] ?? ''
  if (first !== '') for (const word of record.words) yield ['company-given', `${record.company}/${word.slice(0, 3)}`]
  if (record.postalCode !== '') yield ['company', `${record.company}/${record.postalCode}`]
  if (record.city !== '') yield ['company', `${record.company}/${record.city}`]
  if (record.domain !== '' && first !== '')
    for (const word of record.words) yield ['domain-initial', `${record.domain}/${word[0]}`]
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
    for (const [its, key] of keysOf(record)) {
      if (its !== kind) continue
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
