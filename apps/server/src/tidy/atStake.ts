import { type ChangeCode, codesAtStake } from '@upper-field/core/tidy'
import { type SQL, sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { tidyingOf } from '../projection/tidying'
import type { TidyChange } from './acts'

/**
 * By what codes a contact must have been changed to come out otherwise by a change of its list, as it is before that.
 * @returns null where any may
 */
export async function codesAtStakeOf(
  tx: Db,
  listId: string,
  change: TidyChange,
): Promise<readonly ChangeCode[] | null> {
  if (change.kind === 'leave-out') return [change.code]
  if (change.kind !== 'routine') return null
  const { routine } = await tidyingOf(tx, listId)
  return codesAtStake(routine, change.routine)
}

/** Whatever comes out otherwise than before among some contacts. */
export interface WhateverDiffers {
  /** A condition on a contact `c`: nobody else can come out otherwise. */
  readonly among: SQL
}

/** @param codes what a contact must have been changed by; null where it need not */
export const differsAmong = (batchId: string | null, codes: readonly ChangeCode[] | null = null): WhateverDiffers => ({
  among: sql.join(
    [
      batchId === null ? sql`true` : sql`c.batch_id = ${batchId}`,
      codes === null ? sql`true` : sql`c.changes && ${sql.param(codes)}::text[]`,
    ],
    sql` and `,
  ),
})
