import type { LineType } from '../phone'
import { type FreshDays, isFresh, lineAgesAs } from './freshness'

export const LINE_STATUSES = ['in-service', 'out-of-service', 'unreachable', 'unknown'] as const
export type LineStatus = (typeof LINE_STATUSES)[number]

/** What the line register has told about a number. Belongs to the number, not to a list. */
export interface RegisterFacts {
  readonly lineType: LineType | null
  readonly status: LineStatus | null
  /** Milliseconds since 1970; null where the register was never asked. */
  readonly checkedAt: number | null
}

/** A line as it is treated: the register's word where there is one, else the plan's. */
export interface Line {
  readonly e164: string
  readonly valid: boolean
  readonly lineType: LineType
  readonly status: LineStatus
  readonly knownFrom: 'plan' | 'register'
}

/** Puts the plan's and the register's knowledge of one number together. */
export function describeLine(
  number: { e164: string; valid: boolean; lineType: LineType },
  facts: RegisterFacts | undefined,
): Line {
  const registered = facts?.checkedAt != null && facts.lineType !== null && facts.lineType !== 'unknown'
  return {
    e164: number.e164,
    valid: number.valid,
    lineType: registered ? (facts.lineType ?? number.lineType) : number.lineType,
    status: facts?.status ?? 'unknown',
    knownFrom: registered ? 'register' : 'plan',
  }
}

/** True where the register's answer is too old, or there is none: only such numbers are worth paying for. */
export function needsCheck(facts: RegisterFacts | undefined, now: number, days: FreshDays): boolean {
  if (!facts) return true
  return !isFresh(facts.checkedAt, lineAgesAs(facts.lineType, facts.status), now, days)
}

/** Lines that are of use, best first: mobiles before what may be one, in service before unknown. */
export function rankLines(lines: readonly Line[]): readonly Line[] {
  return [...lines].sort((a, b) => rankOf(a) - rankOf(b))
}

const TYPE_ORDER: readonly LineType[] = [
  'mobile',
  'fixed-or-mobile',
  'fixed',
  'voip',
  'personal',
  'uan',
  'toll-free',
  'shared-cost',
  'unknown',
  'pager',
  'voicemail',
  'premium',
]

function rankOf(line: Line): number {
  const dead = line.status === 'out-of-service' ? 100 : 0
  const invalid = line.valid ? 0 : 1000
  return invalid + dead + TYPE_ORDER.indexOf(line.lineType)
}

/** A line that can be texted as far as is known. A number that may be either counts until the register has told. */
export const isUsableMobile = (line: Line): boolean =>
  line.valid && !isDead(line) && (line.lineType === 'mobile' || line.lineType === 'fixed-or-mobile')

export const isDead = (line: Line): boolean => line.status === 'out-of-service'
