import type { Batch } from '@upper-field/contract'
import { asc, eq } from 'drizzle-orm'
import type { Db } from '../db/database'
import { batches } from '../db/schema'
import type { BatchRow } from '../projection/rowCells'
import { sameFilesOf } from './sameFiles'

const batchesOf = (db: Db, listId: string): Promise<BatchRow[]> =>
  db.select().from(batches).where(eq(batches.listId, listId)).orderBy(asc(batches.createdAt))

export const asBatch = (batch: BatchRow, sameFile: Batch['sameFile'] = []): Batch => ({
  id: batch.id,
  listId: batch.listId,
  name: batch.name,
  fileName: batch.fileName,
  bytes: batch.bytes,
  received: batch.received,
  format: batch.format as Batch['format'],
  sheet: batch.sheet,
  encoding: batch.encoding as Batch['encoding'],
  delimiter: batch.delimiter,
  bom: batch.bom,
  firstRow: batch.firstRow,
  headingsRow: batch.headingsRow,
  headings: batch.headings,
  mapping: batch.mapping as Batch['mapping'],
  merged: batch.merged as Batch['merged'],
  takesHidden: batch.takesHidden,
  notes: batch.notes as Batch['notes'],
  defaultCountry: batch.defaultCountry,
  publicHosts: batch.publicHosts,
  sourceKind: batch.sourceKind as Batch['sourceKind'],
  gatheredOn: batch.gatheredOn,
  lawfulBasis: batch.lawfulBasis as Batch['lawfulBasis'],
  note: batch.note,
  price: batch.price,
  state: batch.state as Batch['state'],
  problem: batch.problem,
  sha256: batch.sha256,
  rows: batch.rows,
  held: batch.held,
  withMobile: batch.withMobile,
  sameFile,
  createdAt: batch.createdAt.toISOString(),
  jobId: batch.jobId,
})

/** The batches of a list as they are told, in the order in which they came. */
export async function describeBatches(db: Db, listId: string): Promise<Batch[]> {
  const same = await sameFilesOf(db, listId)
  return (await batchesOf(db, listId)).map((batch) => asBatch(batch, same.get(batch.id)))
}
