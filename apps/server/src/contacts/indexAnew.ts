import { and, eq, sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { batches } from '../db/schema'
import { createJob } from '../jobs/store'

/**
 * Takes a list out of the index of the search and lets jobs put it back, batch by batch: to change the index row by row
 * would take longer than all other work on the list. Until a batch is back, the search looks through its contacts.
 */
export async function indexAnew(tx: Db, listId: string): Promise<void> {
  await tx.execute(sql`delete from contact_words where list_id = ${listId}`)
  const indexed = await tx
    .update(batches)
    .set({ isIndexed: false })
    .where(and(eq(batches.listId, listId), eq(batches.isIndexed, true)))
    .returning({ id: batches.id, rows: batches.rows, held: batches.held })
  for (const { id, rows, held } of indexed)
    await createJob(tx, { kind: 'index', listId, unit: 'contacts', total: rows - held, payload: { batchId: id } })
}
