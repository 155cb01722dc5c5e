import { sql } from 'drizzle-orm'
import { wasShown } from '../contacts/shown'
import type { Db } from '../db/database'
import { createJob, type JobRow } from '../jobs/store'
import { findOpenList } from '../lists/routes'
import type { TidyChange } from './acts'

interface AskedFor {
  readonly listId: string
  readonly change: TidyChange
  readonly startedBy: string
}

/** Starts a change of a whole list. */
export async function startTidy(tx: Db, { listId, change, startedBy }: AskedFor): Promise<JobRow> {
  await findOpenList(tx, listId)
  const { rows } = await tx.execute<{ n: string }>(
    sql`select coalesce(sum(rows), 0) as n from batches where list_id = ${listId} and ${wasShown()}`,
  )
  return createJob(tx, {
    kind: 'tidy',
    listId,
    unit: 'contacts',
    total: Number(rows[0]?.n ?? 0),
    payload: { change, madeBy: startedBy },
    startedBy,
  })
}
