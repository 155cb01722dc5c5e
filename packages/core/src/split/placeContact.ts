import type { LineType } from '../phone'

export const LANES = ['text', 'call', 'ads-only', 'parked'] as const
export type Lane = (typeof LANES)[number]

export const LANE_REASONS = [
  'suppressed',
  'mobile',
  'line-to-call',
  'shared-mobile',
  'only-email',
  'no-way-to-reach',
  'out-of-service',
  'line-not-to-call',
] as const
export type LaneReason = (typeof LANE_REASONS)[number]

export interface PlacementInput {
  /** Lines of the contact, best first. */
  readonly lines: readonly {
    readonly valid: boolean
    readonly lineType: LineType
    readonly isDead: boolean
    readonly isShared: boolean
  }[]
  readonly hasEmail: boolean
  /** A suppression list says that they must not be contacted. */
  readonly isSuppressed?: boolean
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

/** Fixed rules, read top to bottom; each contact goes to the first lane that takes it. */
export function placeContact({ lines, hasEmail, isSuppressed = false }: PlacementInput): Placement {
  if (isSuppressed) return { lane: 'parked', reason: 'suppressed' }
  const usable = lines.filter((line) => line.valid && !line.isDead)
  if (usable.some((line) => line.lineType === 'mobile' && !line.isShared)) return { lane: 'text', reason: 'mobile' }
  const callable = usable.find((line) => CALLABLE.has(line.lineType))
  if (callable) return { lane: 'call', reason: callable.lineType === 'mobile' ? 'shared-mobile' : 'line-to-call' }
  if (hasEmail) return { lane: 'ads-only', reason: 'only-email' }
  if (usable.length > 0) return { lane: 'parked', reason: 'line-not-to-call' }
  if (lines.some((line) => line.valid && line.isDead)) return { lane: 'parked', reason: 'out-of-service' }
  return { lane: 'parked', reason: 'no-way-to-reach' }
}
