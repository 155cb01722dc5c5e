import { sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import type { JobHandler, StepOutcome } from '../jobs/runner'
import { createJob, findJob, saveJob } from '../jobs/store'
import { withListLock } from '../lists/listLock'
import { holdersByList, keysSince } from './entryHolders'
import { placeContacts } from './placeAnew'

interface Marking {
  readonly contactIds: readonly number[]
  /** Entries that came from here on: who holds their keys is looked up again once the list is free. */
  readonly since: string
}

/** Leaves contacts of a list that is being worked on to a job; one that waits already takes them along. */
export async function markLater(tx: Db, listId: string, contactIds: readonly number[]): Promise<void> {
  const { rows } = await tx.execute<{ id: string }>(sql`
    update jobs set total = total + ${contactIds.length},
      payload = jsonb_set(payload, '{contactIds}', payload->'contactIds' || ${JSON.stringify(contactIds)}::jsonb)
    where id = (
      select id from jobs where kind = 'mark' and list_id = ${listId} and state in ('queued', 'waiting')
      order by created_at limit 1 for update skip locked)
    returning id`)
  if (rows.length > 0) return
  const { rows: clock } = await tx.execute<{ now: string }>(sql`select now()::text as now`)
  const payload = { contactIds, since: new Date(clock[0]?.now ?? 0).toISOString() } satisfies Marking
  await createJob(tx, { kind: 'mark', listId, unit: 'contacts', total: contactIds.length, payload })
}

/** Marks whom entries hold that came while their list was being worked on. */
export const markJob: JobHandler = {
  async step(services, job): Promise<StepOutcome> {
    const holding = { work: 'mark' as const, jobId: job.id, patience: 0 }
    await withListLock(services, job.listId, holding, async (tx, client) => {
      // Others may have been added since the job was read.
      const { contactIds, since } = (await findJob(tx, job.id)).payload as unknown as Marking
      const holders = (await holdersByList(tx, await keysSince(tx, new Date(since)))).get(job.listId) ?? []
      const ids = [...new Set([...contactIds, ...holders])].sort((a, b) => a - b)
      const marked = await placeContacts(tx, client, job.listId, ids)
      await saveJob(tx, job.id, { phase: 'done', done: ids.length, total: ids.length, result: { marked } })
    })
    return { next: 'done' }
  },
}
