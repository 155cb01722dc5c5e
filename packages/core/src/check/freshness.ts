import type { LineType } from '../phone'
import type { Deliverability } from './addressFacts'
import type { LineStatus } from './lineFacts'

/** What answers age as: all of one kind keep equally long. */
export const AGES_AS = [
  'mobile',
  'other-line',
  'out-of-service',
  'unreachable',
  'deliverable',
  'accept-all',
  'undeliverable',
  'do-not-call',
] as const
export type AgesAs = (typeof AGES_AS)[number]

/** How long answers of each kind count as fresh, in days. */
export type FreshDays = Readonly<Record<AgesAs, number>>

/** What holds until somebody sets it otherwise: lines that are reached change hands, dead ones seldom come back soon. */
export const DEFAULT_FRESH_DAYS: FreshDays = {
  mobile: 60,
  'other-line': 120,
  'out-of-service': 60,
  unreachable: 14,
  deliverable: 60,
  'accept-all': 60,
  undeliverable: 180,
  // Registers are added to every day, and those who call are held to what stands there.
  'do-not-call': 28,
}

/** What the register's word on a line ages as. */
export function lineAgesAs(lineType: LineType | null, status: LineStatus | null): AgesAs {
  if (status === 'out-of-service' || status === 'unreachable') return status
  return lineType === 'mobile' || lineType === 'fixed-or-mobile' ? 'mobile' : 'other-line'
}

/** What the verifier's word on an address ages as; null where it told nothing. */
export const addressAgesAs = (deliverability: Deliverability): AgesAs | null =>
  deliverability === 'unknown' ? null : deliverability

const DAY = 86_400_000

/**
 * True for an answer that is still worth its price: only without one is a question paid again.
 * @param checkedAt when it was given, in milliseconds since 1970; null where there is none
 * @param now in milliseconds since 1970
 */
export const isFresh = (checkedAt: number | null, agesAs: AgesAs, now: number, days: FreshDays): boolean =>
  checkedAt !== null && now - checkedAt <= days[agesAs] * DAY

/** What the verifier has said of an address, and when, in milliseconds since 1970. */
export interface AddressFacts {
  readonly deliverability: Deliverability
  readonly checkedAt: number
}

/** True where the verifier's word on an address is too old, or there is none: only such addresses are worth paying for. */
export function needsVerifying(facts: AddressFacts | undefined, now: number, days: FreshDays): boolean {
  const agesAs = facts ? addressAgesAs(facts.deliverability) : null
  return !facts || agesAs === null || !isFresh(facts.checkedAt, agesAs, now, days)
}
