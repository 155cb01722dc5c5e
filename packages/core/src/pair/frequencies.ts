import { compareNames } from './compare'
import type { PairRecord } from './record'

/** How often the values of a list stand in it: what many hold says little about who they are. */
export interface Frequencies {
  readonly size: number
  /** How many contacts have this name, number, address, or company (alone, or with its place behind a slash). */
  names(key: string): number
  numbers(e164: string): number
  emails(address: string): number
  companies(key: string): number
  /** True for a number that people of different names hold. */
  isSharedLine(e164: string): boolean
}

/** A line that more people hold is shared, whoever they are. */
const MOST_HOLDERS = 40

/** Counts the values of all contacts, once. */
export function countValues(records: readonly PairRecord[]): Frequencies {
  const names = new Map<string, number>()
  const emails = new Map<string, number>()
  const companies = new Map<string, number>()
  const holders = new Map<string, PairRecord[]>()
  const add = (counts: Map<string, number>, key: string) => counts.set(key, (counts.get(key) ?? 0) + 1)
  for (const record of records) {
    if (record.nameKey !== '') add(names, record.nameKey)
    for (const { address } of record.emails) add(emails, address)
    if (record.company !== '') {
      add(companies, record.company)
      if (record.postalCode !== '') add(companies, `${record.company}/${record.postalCode}`)
      if (record.city !== '') add(companies, `${record.company}/${record.city}`)
    }
    for (const { e164 } of record.numbers) {
      const held = holders.get(e164)
      if (held) held.push(record)
      else holders.set(e164, [record])
    }
  }
  const shared = new Set<string>()
  for (const [e164, held] of holders) if (areDifferentPeople(held)) shared.add(e164)
  return {
    size: records.length,
    names: (key) => names.get(key) ?? 0,
    numbers: (e164) => holders.get(e164)?.length ?? 0,
    emails: (address) => emails.get(address) ?? 0,
    companies: (key) => companies.get(key) ?? 0,
    isSharedLine: (e164) => shared.has(e164),
  }
}

function areDifferentPeople(held: readonly PairRecord[]): boolean {
  if (held.length < 2) return false
  const named = [...new Map(held.filter(({ nameKey }) => nameKey !== '').map((one) => [one.nameKey, one])).values()]
  if (named.length > MOST_HOLDERS) return true
  return named.some((a, i) => named.slice(i + 1).some((b) => DIFFERENT.has(compareNames(a, b) ?? '')))
}

const DIFFERENT: ReadonlySet<string> = new Set(['family', 'given', 'other'])
