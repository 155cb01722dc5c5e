import type { Batch } from '@upper-field/contract'
import { asc, eq } from 'drizzle-orm'
import type { Db } from '../db/database'
import { batches } from '../db/schema'
import type { BatchRow } from '../projection/rowCells'

export const batchesOf = (db: Db, listId: string): Promise<BatchRow[]> =>
  db.select().from(batches).where(eq(batches.listId, listId)).orderBy(asc(batches.createdAt))

export const asBatch = (batch: BatchRow): Batch => ({
  id: batch.id,
  listId: batch.listId,
  name: batch.name,
  fileName: batch.fileName,
  bytes: batch.bytes,
  encoding: batch.encoding as Batch['encoding'],
  delimiter: batch.delimiter,
  bom: batch.bom,
  hasHeadings: batch.hasHeadings,
  headings: batch.headings,
  mapping: batch.mapping as Batch['mapping'],
  defaultCountry: batch.defaultCountry,
  sourceKind: batch.sourceKind as Batch['sourceKind'],
  gatheredOn: batch.gatheredOn,
  lawfulBasis: batch.lawfulBasis as Batch['lawfulBasis'],
  note: batch.note,
  state: batch.state as Batch['state'],
  problem: batch.problem,
  sha256: batch.sha256,
  rows: batch.rows,
  held: batch.held,
  withMobile: batch.withMobile,
  createdAt: batch.createdAt.toISOString(),
  jobId: batch.jobId,
})
