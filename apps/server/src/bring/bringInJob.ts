import { eq, sql } from 'drizzle-orm'
import type { PoolClient } from 'pg'
import { copyInto } from '../db/copy'
import { type Db, transaction } from '../db/database'
import { batches, batchPieces } from '../db/schema'
import { type JobHandler, JobProblem, type StepOutcome } from '../jobs/runner'
import { type JobRow, saveJob } from '../jobs/store'
import { joinExactDuplicates } from '../pair/joinExactDuplicates'
import { linesOf } from '../projection/columns'
import { copyContacts, copyNumbersAndEmails } from '../projection/copyLines'
import { countContacts } from '../projection/cube'
import { factsOfNumbers } from '../projection/facts'
import type { BatchRow } from '../projection/rowCells'
import { viewOf } from '../projection/viewOf'
import type { Services } from '../services'
import { type ReadPiece, readPiece } from './readPiece'
import { PIECE } from './receiveContent'

/** Bytes read in one step; twice as many where a single row is longer. */
const STEP = PIECE
const LONGEST_STEP = 16 * PIECE

interface Cursor {
  readonly offset: number
  readonly row: number
}

/** Reads a batch's file in steps, then joins exact duplicates and shows the batch, whole or not at all. */
export const bringInJob: JobHandler = {
  async step(services, job): Promise<StepOutcome> {
    const batch = await findBatch(services.db, job)
    const cursor = { offset: batch.bom, row: 1, ...(job.cursor as Partial<Cursor>) }
    if (cursor.offset < batch.bytes) return readStep(services, job, batch, cursor)
    return finish(services, job, batch)
  },

  async ended({ pool }, job, state) {
    const { batchId } = job.payload as { batchId: string }
    await transaction(pool, async (tx) => {
      const problem = state === 'failed' ? 'reading-failed' : null
      await tx.update(batches).set({ state, problem }).where(eq(batches.id, batchId))
    })
  },
}

async function findBatch(db: Db, job: JobRow): Promise<BatchRow> {
  const { batchId } = job.payload as { batchId: string }
  const [batch] = await db.select().from(batches).where(eq(batches.id, batchId))
  if (!batch) throw new JobProblem('batch-gone')
  return batch
}

async function readStep(services: Services, job: JobRow, batch: BatchRow, cursor: Cursor): Promise<StepOutcome> {
  const piece = await nextPiece(services.db, batch, cursor)
  const ids = await takeContactIds(services, piece.read.length)
  const e164s = [...new Set(piece.read.flatMap(({ own }) => own.numbers.map(({ e164 }) => e164)))]
  const facts = await factsOfNumbers(services.db, e164s)
  const lines = piece.read.map(({ row, own }, i) => {
    const key = { id: ids + i, listId: batch.listId, batchId: batch.id, row }
    return linesOf(
      key,
      viewOf({ own, members: [], fills: [], factsOf: (e164) => facts.get(e164), isShared: () => false }),
      0,
    )
  })
  const withMobile = piece.read.filter(({ own }) =>
    own.numbers.some(({ valid, lineType }) => valid && lineType === 'mobile'),
  ).length
  await transaction(services.pool, async (tx, client) => {
    // A step that a crash takes back is simply done again, so it need not wait for the disk.
    await client.query('set local synchronous_commit = off')
    await storeRows(client, batch, piece)
    await copyContacts(client, 'contacts', lines)
    await copyNumbersAndEmails(client, lines)
    const stored = piece.read.length + piece.held.length
    await tx
      .update(batches)
      .set({
        state: 'reading',
        rows: sql`${batches.rows} + ${stored}`,
        held: sql`${batches.held} + ${piece.held.length}`,
        withMobile: sql`${batches.withMobile} + ${withMobile}`,
      })
      .where(eq(batches.id, batch.id))
    const offset = cursor.offset + piece.consumed
    await saveJob(tx, job.id, { phase: 'reading', done: offset, cursor: { offset, row: piece.nextRow } })
  })
  return { next: 'step' }
}

/** The next rows of the file. A row that does not fit into one step is given a longer one. */
async function nextPiece(db: Db, batch: BatchRow, { offset, row }: Cursor): Promise<ReadPiece> {
  for (let length = STEP; ; length *= 2) {
    const end = Math.min(offset + length, batch.bytes)
    const bytes = await loadBytes(db, batch.id, offset, end)
    if (bytes.length !== end - offset) throw new JobProblem('file-incomplete')
    const piece = readPiece(bytes, batch, { firstRow: row, isLast: end === batch.bytes })
    if (piece.consumed > 0 || length >= LONGEST_STEP) return piece
  }
}

async function loadBytes(db: Db, batchId: string, start: number, end: number): Promise<Buffer> {
  const found = await db
    .select()
    .from(batchPieces)
    .where(
      sql`${batchPieces.batchId} = ${batchId} and ${batchPieces.offset} > ${start - PIECE} and ${batchPieces.offset} < ${end}`,
    )
    .orderBy(batchPieces.offset)
  const first = found[0]
  return first
    ? Buffer.concat(found.map(({ bytes }) => bytes)).subarray(start - first.offset, end - first.offset)
    : Buffer.alloc(0)
}

/** Reserves a run of ids, so that contacts stand in the order of their rows. */
async function takeContactIds({ pool }: Services, count: number): Promise<number> {
  if (count === 0) return 0
  return transaction(pool, async (tx) => {
    await tx.execute(sql`select pg_advisory_xact_lock(7415)`)
    const { rows: taken } = await tx.execute<{ last: string }>(
      sql`select setval('contact_ids', nextval('contact_ids') + ${count - 1}) as last`,
    )
    return Number(taken[0]?.last) - count + 1
  })
}

async function storeRows(client: PoolClient, batch: BatchRow, piece: ReadPiece): Promise<void> {
  await copyInto(
    client,
    'rows',
    ['batch_id', 'row', 'text'],
    piece.read.map(({ row, text }) => [batch.id, row, text]),
  )
  await copyInto(
    client,
    'held_rows',
    ['batch_id', 'row', 'reason', 'bytes'],
    piece.held.map(({ row, reason, bytes }) => [batch.id, row, reason, bytes]),
  )
}

async function finish(services: Services, job: JobRow, batch: BatchRow): Promise<StepOutcome> {
  await transaction(services.pool, (tx) => saveJob(tx, job.id, { phase: 'joining' }))
  await transaction(services.pool, async (tx, client) => {
    // Only one batch of a list is joined at a time: each must see the contacts of the one before.
    await tx.execute(sql`select pg_advisory_xact_lock(hashtextextended(${batch.listId}::text, 7416))`)
    await tx.update(batches).set({ state: 'ready' }).where(eq(batches.id, batch.id))
    // Without fresh statistics the planner takes a just loaded table for an empty one, and loops for minutes.
    await client.query('analyze contacts, contact_numbers, contact_emails')
    const joined = await joinExactDuplicates(tx, client, batch)
    await countContacts(tx, batch.listId)
    await tx.delete(batchPieces).where(eq(batchPieces.batchId, batch.id))
    const [counts] = await tx
      .select({ rows: batches.rows, held: batches.held })
      .from(batches)
      .where(eq(batches.id, batch.id))
    await saveJob(tx, job.id, {
      phase: 'done',
      done: batch.bytes,
      result: { rows: counts?.rows ?? 0, held: counts?.held ?? 0, joined },
    })
  })
  return { next: 'done' }
}
