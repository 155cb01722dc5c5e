import { type SQL, sql } from 'drizzle-orm'
import { wasShown } from '../contacts/shown'
import type { Db } from '../db/database'
import { readCount } from '../db/readRows'
import { createJob, type JobRow } from '../jobs/store'
import { findOpenList } from '../lists/routes'
import { tidyingOf } from '../projection/tidying'
import type { TidyChange } from './acts'
import { codesAtStakeOf } from './atStake'

interface AskedFor {
  readonly listId: string
  readonly change: TidyChange
  readonly startedBy: string
}

/** How many contacts are looked at, as far as that is known before. */
async function toLookAt(tx: Db, listId: string, change: TidyChange): Promise<number> {
  const batchId = 'batchId' in change ? change.batchId : null
  const isIts = (column: SQL) => (batchId === null ? sql`true` : sql`${column} = ${batchId}`)
  const all = await readCount(tx)`
    select coalesce(sum(rows), 0) as n from batches where list_id = ${listId} and ${wasShown()} and ${isIts(sql`id`)}`
  const { routine } = await tidyingOf(tx, listId)
  const codes = codesAtStakeOf(routine, change)
  if (codes === null) return all
  const touched = await readCount(tx)`
    select coalesce(sum(contacts), 0) as n from tidy_counts
    where list_id = ${listId} and code = any(${sql.param(codes)}::text[]) and ${isIts(sql`batch_id`)}`
  return Math.min(all, touched)
}

/** Starts a change of a whole list. */
export async function startTidy(tx: Db, { listId, change, startedBy }: AskedFor): Promise<JobRow> {
  await findOpenList(tx, listId)
  const total = await toLookAt(tx, listId, change)
  return createJob(tx, {
    kind: 'tidy',
    listId,
    unit: 'contacts',
    total,
    payload: { change, madeBy: startedBy },
    startedBy,
  })
}
