import { eq } from 'drizzle-orm'
import { batches, batchPieces } from '../db/schema'
import { Problem } from '../http/problem'
import { withListLock } from '../lists/listLock'
import type { BatchRow } from '../projection/rowCells'
import type { Services } from '../services'
import { dropRows } from './dropRows'

/** States in which nothing of a batch was ever shown. */
const NEVER_SHOWN = ['uploading', 'stopped', 'failed']

/** Throws away a batch that was stopped or failed before it was shown. One that was shown is taken back instead. */
export async function throwAway(services: Services, batch: BatchRow, signal?: AbortSignal): Promise<void> {
  await withListLock(services, batch.listId, { work: 'take-back', ...(signal ? { signal } : {}) }, async (tx) => {
    const [found] = await tx
      .select({ state: batches.state })
      .from(batches)
      .where(eq(batches.id, batch.id))
      .for('update')
    if (!found || !NEVER_SHOWN.includes(found.state))
      throw new Problem(409, 'batch-in-use', 'This batch is shown or being read. Stop it first, or take it back.')
    await dropRows(tx, batch.id)
    await tx.delete(batchPieces).where(eq(batchPieces.batchId, batch.id))
    await tx.delete(batches).where(eq(batches.id, batch.id))
  })
}
