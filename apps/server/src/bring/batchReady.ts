import { beginAutomations } from '../automations/begin'
import type { Db } from '../db/database'
import { fillNewBatch, type StandingStarted } from '../fill/standingFill'
import { tellWebhooks } from '../webhooks/tell'

/**
 * What follows by itself once all rows of a batch are there, whatever they came from: other programs are told,
 * automations begin, and the plan that stands for new batches is begun.
 */
export async function batchIsReady(
  tx: Db,
  batch: { readonly id: string; readonly listId: string },
  { rows, held }: { readonly rows: number; readonly held: number },
): Promise<StandingStarted | null> {
  await tellWebhooks(tx, batch.listId, 'batch.ready', [{ batchId: batch.id, rows, held }])
  await beginAutomations(tx, batch.listId, 'batch-ready', batch.id)
  return fillNewBatch(tx, batch)
}
