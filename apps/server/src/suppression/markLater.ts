import type { Db } from '../db/database'
import { readRow, when } from '../db/readRows'
import type { JobHandler, StepOutcome } from '../jobs/runner'
import { findJob, leaveToJob, saveJob } from '../jobs/store'
import { withListLock } from '../lists/listLock'
import { holdersByList, keysSince } from './entryHolders'
import { placeContacts } from './placeAnew'

interface Marking {
  readonly contactIds: readonly number[]
  /** Entries that came from here on: who holds their keys is looked up again once the list is free. */
  readonly since: string
}

/**
 * Leaves contacts of a list that is being worked on to a job; one that waits already takes them along, and looks for whoever
 * else holds a key of an entry that comes in this transaction, or later.
 */
export async function markLater(tx: Db, listId: string, contactIds: readonly number[]): Promise<void> {
  const begun = await readRow(tx, { now: when })`select now() as now`
  await leaveToJob(tx, 'mark', listId, contactIds, { since: (begun?.now ?? new Date(0)).toISOString() })
}

/** Marks whom entries hold that came while their list was being worked on. */
export const markJob: JobHandler = {
  async step(services, job): Promise<StepOutcome> {
    const holding = { work: 'mark' as const, jobId: job.id, patience: 0 }
    await withListLock(services, job.listId, holding, async (tx, client) => {
      // Others may have been added since the job was read.
      const { contactIds, since } = (await findJob(tx, job.id)).payload as unknown as Marking
      const found = await holdersByList(tx, await keysSince(tx, new Date(since)), job.listId)
      const holders = found.get(job.listId) ?? []
      const ids = [...new Set([...contactIds, ...holders])].sort((a, b) => a - b)
      const marked = await placeContacts(tx, client, job.listId, ids)
      await saveJob(tx, job.id, { phase: 'done', done: ids.length, total: ids.length, result: { marked } })
    })
    return { next: 'done' }
  },
}
