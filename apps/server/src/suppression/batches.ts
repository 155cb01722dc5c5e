import type { SuppressionBatch, SuppressionRowsAdded } from '@upper-field/contract'
import { type SuppressionRow, suppressionRowKeys } from '@upper-field/core/pair'
import { eq, sql } from 'drizzle-orm'
import type { PoolClient } from 'pg'
import type { Db } from '../db/database'
import { num, orNull, readRows, text, when } from '../db/readRows'
import { suppressionBatches } from '../db/schema'
import { notFound, Problem } from '../http/problem'
import { addKeys } from './entries'
import { ENTRY_KEY } from './entryHolders'
import { placeAnew } from './placeAnew'

/** Files of a suppression list, newest first. */
export const batchesOf = (db: Db, suppressionListId: string): Promise<SuppressionBatch[]> =>
  describe(db, sql`b.suppression_list_id = ${suppressionListId}`)

export async function findBatch(db: Db, id: string): Promise<SuppressionBatch> {
  const [batch] = await describe(db, sql`b.id = ${id}`)
  if (!batch) throw notFound('file')
  return batch
}

async function describe(db: Db, which: ReturnType<typeof sql>): Promise<SuppressionBatch[]> {
  const batches = await readRows(db, BATCH)`
    select b.*, (select count(*) from suppression_entries e where e.batch_id = b.id) as entries
    from suppression_batches b where ${which} order by b.added_at desc, b.id`
  return batches.map((batch) => ({
    ...batch,
    addedAt: batch.addedAt.toISOString(),
    expiresAt: batch.expiresAt?.toISOString() ?? null,
    takenBackAt: batch.takenBackAt?.toISOString() ?? null,
  }))
}

const BATCH = {
  id: text,
  name: text,
  sha256: text,
  reason: text,
  rows: num,
  unread: num,
  entries: num,
  addedBy: text,
  addedAt: when,
  expiresAt: orNull(when),
  takenBackAt: orNull(when),
}

interface FileRow extends SuppressionRow {
  readonly row: number
}

/** Adds the keys of some rows of a file and marks whoever they are in every list. Rows that hold no key are told. */
export async function addRows(
  tx: Db,
  client: PoolClient,
  { batchId, hashesAmong }: { readonly batchId: string; readonly hashesAmong: number },
  rows: readonly FileRow[],
): Promise<SuppressionRowsAdded> {
  const [batch] = await tx.select().from(suppressionBatches).where(eq(suppressionBatches.id, batchId)).for('update')
  if (!batch) throw notFound('file')
  if (batch.takenBackAt)
    throw new Problem(409, 'taken-back', 'This file was taken back. Bring it in anew to add its rows.')
  const read = rows.map((row) => ({ row: row.row, keys: suppressionRowKeys(row, batch.country) }))
  const keys = read.flatMap((one) => one.keys)
  const facts = {
    suppressionListId: batch.suppressionListId,
    reason: batch.reason,
    asHashes: batch.asHashes,
    expiresAt: batch.expiresAt?.toISOString() ?? null,
    who: batch.addedBy,
    batchId,
    hashesAmong,
  }
  const { added, ...placed } = await addKeys(tx, client, facts, keys)
  const unread = read.flatMap((one) => (one.keys.length === 0 ? one.row : []))
  await tx
    .update(suppressionBatches)
    .set({ rows: batch.rows + rows.length, unread: batch.unread + unread.length })
    .where(eq(suppressionBatches.id, batchId))
  return { added, known: keys.length - added, ...placed, unread }
}

/** Takes a file back whole: its entries are gone, and whom nothing else holds is let go. */
export async function takeBatchBack(tx: Db, client: PoolClient, batchId: string, at: Date): Promise<SuppressionBatch> {
  const [batch] = await tx.select().from(suppressionBatches).where(eq(suppressionBatches.id, batchId)).for('update')
  if (!batch) throw notFound('file')
  if (batch.takenBackAt) throw new Problem(409, 'taken-back-already', 'This file was taken back already.')
  const keys = await readRows(tx, ENTRY_KEY)`
    delete from suppression_entries where batch_id = ${batchId} returning kind, hash, key`
  await placeAnew(tx, client, keys)
  await tx.update(suppressionBatches).set({ takenBackAt: at }).where(eq(suppressionBatches.id, batchId))
  return findBatch(tx, batchId)
}
