import type { AddressState } from './addressFacts'
import { isDead, isUsableMobile, type Line } from './lineFacts'

/** How sure it is that a contact can be reached: the best of these that holds. */
export const SURENESS = [
  'mobile-in-service',
  'mobile-not-checked',
  'only-office',
  'sure-address',
  'risky-address',
  'address-not-checked',
  'nothing',
] as const
export type Sureness = (typeof SURENESS)[number]

const OF_ADDRESS: Readonly<Record<AddressState, Sureness>> = {
  deliverable: 'sure-address',
  'accept-all': 'risky-address',
  unknown: 'risky-address',
  'not-checked': 'address-not-checked',
  undeliverable: 'nothing',
  none: 'nothing',
}

/**
 * How sure a contact can be reached, by its lines and its best address. A mobile that was unreachable when the register
 * looked counts as not checked.
 */
export function surenessOf(lines: readonly Line[], address: AddressState): Sureness {
  const mobiles = lines.filter(isUsableMobile)
  if (mobiles.some(({ status }) => status === 'in-service')) return 'mobile-in-service'
  if (mobiles.length > 0) return 'mobile-not-checked'
  if (lines.some((line) => line.valid && !isDead(line))) return 'only-office'
  return OF_ADDRESS[address]
}
