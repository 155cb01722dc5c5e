import { and, eq, inArray } from 'drizzle-orm'
import type { Db } from '../db/database'
import { batches, jobs } from '../db/schema'
import { startIndexing } from './indexJob'
import { wasShown } from './shown'
import { emptyWords } from './words'

/**
 * Takes a list out of the index of the search and lets a job build it anew: to change it contact by contact would take
 * longer than all other work on the list. Until then the search looks through the contacts. The last thing that a
 * transaction does, since whoever searches the list waits for its end.
 */
export async function indexAnew(tx: Db, listId: string): Promise<void> {
  // What indexes the list as it was has nothing more to do.
  await tx
    .update(jobs)
    .set({ state: 'stopping' })
    .where(and(eq(jobs.listId, listId), eq(jobs.kind, 'index'), inArray(jobs.state, ['queued', 'running', 'waiting'])))
  await emptyWords(tx, listId)
  // Those too whose first indexing was still under way.
  const whole = await tx
    .update(batches)
    .set({ isIndexed: false })
    .where(and(eq(batches.listId, listId), wasShown()))
    .returning({ rows: batches.rows, held: batches.held })
  await startIndexing(
    tx,
    listId,
    whole.reduce((sum, { rows, held }) => sum + rows - held, 0),
  )
}
