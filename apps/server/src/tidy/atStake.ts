import { type ChangeCode, codesAtStake, type Routine } from '@upper-field/core/tidy'
import { type SQL, sql } from 'drizzle-orm'
import type { TidyChange } from './acts'

/**
 * By what codes a contact must have been changed to come out otherwise by a change of its list.
 * @param routine of the list before that
 * @returns null where any may
 */
export function codesAtStakeOf(routine: Routine, change: TidyChange): readonly ChangeCode[] | null {
  if (change.kind === 'leave-out') return [change.code]
  return change.kind === 'routine' ? codesAtStake(routine, change.routine) : null
}

/** A condition on a contact `c`, by such codes. */
export const wasChangedBy = (codes: readonly ChangeCode[] | null): SQL =>
  codes === null ? sql`true` : sql`c.changes && ${sql.param(codes)}::text[]`
