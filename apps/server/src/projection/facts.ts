import type { AddressFacts, RegisterFacts } from '@upper-field/core/check'
import type { Db } from '../db/database'
import { isOneOf } from '../db/isOneOf'
import { addresses, numbers } from '../db/schema'

/** What the register has told about these numbers, for those it was ever asked about. */
export async function factsOfNumbers(tx: Db, e164s: readonly string[]): Promise<Map<string, RegisterFacts>> {
  if (e164s.length === 0) return new Map()
  const { e164, lineType, status, checkedAt } = numbers
  const told = await tx.select({ e164, lineType, status, checkedAt }).from(numbers).where(isOneOf(e164, e164s))
  return new Map(told.map(({ e164, ...facts }) => [e164, { ...facts, checkedAt: facts.checkedAt?.getTime() ?? null }]))
}

/** What the verifier has said about these addresses, for those it ever told something of. */
export async function factsOfAddresses(tx: Db, asked: readonly string[]): Promise<Map<string, AddressFacts>> {
  if (asked.length === 0) return new Map()
  const { address, deliverability, checkedAt } = addresses
  const told = await tx.select({ address, deliverability, checkedAt }).from(addresses).where(isOneOf(address, asked))
  return new Map(told.map(({ address, ...facts }) => [address, { ...facts, checkedAt: facts.checkedAt.getTime() }]))
}
