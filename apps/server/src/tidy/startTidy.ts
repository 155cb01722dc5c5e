import { wasShown } from '../contacts/shown'
import type { Db } from '../db/database'
import { readCount } from '../db/readRows'
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
  const total = await readCount(tx)`
    select coalesce(sum(rows), 0) as n from batches where list_id = ${listId} and ${wasShown()}`
  return createJob(tx, {
    kind: 'tidy',
    listId,
    unit: 'contacts',
    total,
    payload: { change, madeBy: startedBy },
    startedBy,
  })
}
