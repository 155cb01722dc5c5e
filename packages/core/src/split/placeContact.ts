import type { LineType } from '../phone'
import { isClosed, type Scope } from './scopes'

export const LANES = ['text', 'call', 'ads-only', 'parked'] as const
export type Lane = (typeof LANES)[number]

export const LANE_REASONS = [
  'suppressed',
  'mobile',
  'line-to-call',
  'shared-mobile',
  'only-email',
  'not-by-phone',
  'no-way-to-reach',
  'out-of-service',
  'line-not-to-call',
  /** Where a list has rules of its own, or a person has decided. */
  'by-rule',
  'by-hand',
  'no-rule',
] as const
export type LaneReason = (typeof LANE_REASONS)[number]

/** A line as it is placed by. */
export interface PlacedLine {
  readonly valid: boolean
  readonly lineType: LineType
  readonly isDead: boolean
  readonly isShared: boolean
}

export interface PlacementInput {
  /** Lines of the contact, best first. */
  readonly lines: readonly PlacedLine[]
  readonly hasEmail: boolean
  /** What suppression lists keep them out of. */
  readonly suppressedFor?: readonly Scope[]
}

export interface Placement {
  readonly lane: Lane
  readonly reason: LaneReason
}

const CALLABLE: ReadonlySet<LineType> = new Set([
  'mobile',
  'fixed',
  'fixed-or-mobile',
  'voip',
  'personal',
  'uan',
  'unknown',
])

const isOfUse = (line: PlacedLine): boolean => line.valid && !line.isDead

/** The line to text: a mobile of their own. Null where there is none. */
export const lineToText = <L extends PlacedLine>(lines: readonly L[]): L | null =>
  lines.find((line) => isOfUse(line) && line.lineType === 'mobile' && !line.isShared) ?? null

/** The line to call: the best that can be called at all. Null where there is none. */
export const lineToCall = <L extends PlacedLine>(lines: readonly L[]): L | null =>
  lines.find((line) => isOfUse(line) && CALLABLE.has(line.lineType)) ?? null

/** A mobile of their own that may not be texted is a line to call. */
function reasonToCall(line: PlacedLine, own: PlacedLine | null): LaneReason {
  return line.lineType === 'mobile' && own === null ? 'shared-mobile' : 'line-to-call'
}

/** Fixed rules, read top to bottom; each contact goes to the first lane that takes it. */
export function placeContact({ lines, hasEmail, suppressedFor = [] }: PlacementInput): Placement {
  if (suppressedFor.includes('all')) return { lane: 'parked', reason: 'suppressed' }
  const own = lineToText(lines)
  if (own && !isClosed(suppressedFor, 'texts')) return { lane: 'text', reason: 'mobile' }
  const callable = lineToCall(lines)
  if (callable && !isClosed(suppressedFor, 'calls')) return { lane: 'call', reason: reasonToCall(callable, own) }
  if (hasEmail || callable) {
    if (isClosed(suppressedFor, 'ads')) return { lane: 'parked', reason: 'suppressed' }
    return { lane: 'ads-only', reason: callable ? 'not-by-phone' : 'only-email' }
  }
  if (lines.some(isOfUse)) return { lane: 'parked', reason: 'line-not-to-call' }
  if (lines.some((line) => line.valid && line.isDead)) return { lane: 'parked', reason: 'out-of-service' }
  return { lane: 'parked', reason: 'no-way-to-reach' }
}
