import { isUsableMobile, type Sureness, surenessOf } from '@upper-field/core/check'
import { type Placed, placementOf, type Reach, type ReachNumber } from './placementOf'

export type NumberOrigin = 'row' | 'join' | 'fill'

/** A contact's numbers and addresses, with all that was told of them. */
interface ReachWithOrigins extends Omit<Reach, 'numbers' | 'hasEmail'> {
  readonly numbers: readonly (ReachNumber & { readonly origin: NumberOrigin })[]
  /** Whether a row of its own, or of whoever is joined to it, has an e-mail; and whether it has one at all. */
  readonly hasOwnEmail: boolean
  readonly hasEmail: boolean
  /** What the verifier has said of its best address. */
  readonly emailState: Parameters<typeof surenessOf>[1]
}

/** How a contact stands: where it belongs, and whether and how surely it can be reached. */
export interface Standing {
  readonly placed: Placed
  /** Its rows hold a readable number or e-mail. */
  readonly isReadable: boolean
  /** What its rows hold is known to be dead. */
  readonly isDead: boolean
  /** Reached by a filled value, where its rows alone would not do. */
  readonly isFilled: boolean
  /** Nothing that can be a mobile is in service: a provider may be asked for one. */
  readonly wantsMobile: boolean
  readonly sureness: Sureness
}

/** What was told of numbers and addresses → how their contact stands. Pure: the same reach gives the same standing. */
export function standingOf(reach: ReachWithOrigins): Standing {
  const { numbers, hasOwnEmail, hasEmail, emailState } = reach
  const placed = placementOf(reach)
  const isDeadLine = (e164: string): boolean => placed.lines.some((line) => line.e164 === e164 && line.isDead)
  const ofRows = numbers.filter(({ origin, valid }) => origin !== 'fill' && valid)
  // Contacts are counted, not rows: what a joined row holds can be read of this contact too.
  const isReadable = ofRows.length > 0 || hasOwnEmail
  const isGone = isReadable && !hasOwnEmail && ofRows.every(({ e164 }) => isDeadLine(e164))
  const isReachedByFill = numbers.some(({ origin, e164 }) => origin === 'fill' && !isDeadLine(e164)) || hasEmail
  return {
    placed,
    isReadable,
    isDead: isGone,
    isFilled: (!isReadable || isGone) && isReachedByFill,
    wantsMobile: !placed.lines.some(isUsableMobile),
    sureness: surenessOf(placed.lines, emailState),
  }
}
