/** What came of a call. */
export const OUTCOMES = ['reached', 'no-answer', 'wrong-number', 'asked-not-to', 'later'] as const
export type Outcome = (typeof OUTCOMES)[number]

/** How long a contact that nobody answered for rests before it is called again, in hours. */
export const REST_HOURS = 3

/** What was noted of a contact's calls, as far as it decides whether it is called again. */
export interface CalledBefore {
  readonly outcome: Outcome
  /** Milliseconds since 1970. */
  readonly at: number
  /** When it is to be called again, where that was said. */
  readonly againAt: number | null
}

/**
 * When a contact is to be called again, in milliseconds since 1970; null for never.
 * @param last the last outcome that stands; undefined where nobody has called yet
 */
export function callAgainAt(last: CalledBefore | undefined): number | null {
  if (!last) return 0
  switch (last.outcome) {
    case 'no-answer':
      return last.at + REST_HOURS * 3_600_000
    case 'later':
      return last.againAt ?? last.at
    default:
      return null
  }
}

/** A contact as it stands in the order of a call sheet. */
export interface Callable {
  readonly id: number
  /** Whether it may be called at this moment. */
  readonly isNow: boolean
  /** Its line is known to ring and is its own; its own, or known to ring; neither. */
  readonly sureness: 0 | 1 | 2
  /** Minutes until the hours for calls end there; null where it may not be called now. */
  readonly minutesLeft: number | null
}

/** Who is called first: who may be called now, the surest line, whoever's day ends soonest, then the order of the rows. */
export function compareCallable(a: Callable, b: Callable): number {
  if (a.isNow !== b.isNow) return a.isNow ? -1 : 1
  if (a.sureness !== b.sureness) return a.sureness - b.sureness
  const [left, right] = [a.minutesLeft ?? Number.POSITIVE_INFINITY, b.minutesLeft ?? Number.POSITIVE_INFINITY]
  return left === right ? a.id - b.id : left - right
}
