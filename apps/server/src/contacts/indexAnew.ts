import { and, eq, inArray, sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { batches, jobs } from '../db/schema'
import { createJob } from '../jobs/store'

/**
 * Takes a list out of the index of the search and lets jobs put it back, batch by batch: to change the index row by row
 * would take longer than all other work on the list. Until a batch is back, the search looks through its contacts.
 */
export async function indexAnew(tx: Db, listId: string): Promise<void> {
  // What indexes the list as it was has nothing more to do.
  await tx
    .update(jobs)
    .set({ state: 'stopping' })
    .where(and(eq(jobs.listId, listId), eq(jobs.kind, 'index'), inArray(jobs.state, ['queued', 'running', 'waiting'])))
  await tx.execute(sql`delete from contact_words where list_id = ${listId}`)
  // Those too whose first indexing was still under way.
  const whole = await tx
    .update(batches)
    .set({ isIndexed: false })
    .where(and(eq(batches.listId, listId), inArray(batches.state, ['ready', 'taken-back'])))
    .returning({ id: batches.id, rows: batches.rows, held: batches.held })
  for (const { id, rows, held } of whole)
    await createJob(tx, { kind: 'index', listId, unit: 'contacts', total: rows - held, payload: { batchId: id } })
}
