import { needsUnpacking } from '@upper-field/files'
import { eq, sql } from 'drizzle-orm'
import { type Db, transaction } from '../db/database'
import { isLostConnection } from '../db/errors'
import { batches } from '../db/schema'
import { logError } from '../http/problem'
import { JobProblem } from '../jobs/jobProblem'
import type { NewJob } from '../jobs/store'
import { loadCopies } from '../projection/copyLines'
import { type BatchRow, fileSettingsOf } from '../projection/rowCells'
import type { Services } from '../services'
import { PIECE } from './pieces'
import { type PreparedStep, prepareStep } from './prepareStep'
import { cursorBehind, type ReadCursor, readCursor } from './readCursor'

/** How far a file is read that is still arriving, and what it holds so far. */
export type ReadAhead = NonNullable<BatchRow['readAhead']>

/** The queue's own name of this work: no job that anybody sees, since it ends where the file has. */
export const READ_AHEAD = 'read-ahead'

/** Smaller files have arrived before it would have begun, in bytes. */
const LARGE = 4 * PIECE

/** Whether a file is read while it arrives: whatever has to be unpacked is read when it is whole. */
export const isReadAhead = (batch: BatchRow): boolean => batch.bytes >= LARGE && !needsUnpacking(fileSettingsOf(batch))

/**
 * Lets the rows of a file be read that have arrived; asked for with every piece. One at a time reads a file: what is in
 * one of the queue's lines is worked off one after the other, and the lines are some hundred, since they stay.
 */
export async function askToReadAhead(db: Db, batchId: string): Promise<void> {
  await db.execute(sql`
    select graphile_worker.add_job(${READ_AHEAD}, json_build_object('batchId', ${batchId}::text),
      job_key => ${`${READ_AHEAD} ${batchId}`}::text, queue_name => ${`${READ_AHEAD} ${batchId.slice(0, 2)}`}::text, max_attempts => 1)`)
}

/** Reads what has arrived of a file. What it cannot read is left to the job that begins when the file is whole. */
export async function readAhead(services: Services, batchId: string): Promise<void> {
  try {
    while (await readNext(services, batchId));
  } catch (error) {
    // A row that is longer than what has arrived, or a problem that the job will meet too, and tell of.
    if (!(error instanceof JobProblem) && !(error instanceof Overtaken) && !isLostConnection(error))
      logError(READ_AHEAD, error)
  }
}

/** @returns whether there may be more to read */
async function readNext(services: Services, batchId: string): Promise<boolean> {
  const [batch] = await services.db.select().from(batches).where(eq(batches.id, batchId))
  if (batch?.state !== 'uploading' || batch.uploadLease === null) return false
  const before = readCursor(batch, batch.readAhead)
  // The last of a file is left to its job, which is at work on it then.
  if (before.offset + PIECE > Math.min(batch.received, batch.bytes - 1)) return false
  const step = await prepareStep(services, batch, before, () => {})
  await store(services, batch, aheadBehind(batch, before, step), step)
  return true
}

async function store(
  { pool }: Services,
  { id, uploadLease, readAhead: before }: BatchRow,
  behind: ReadAhead,
  { copies }: PreparedStep,
): Promise<void> {
  const isAsItWas = sql`${batches.id} = ${id} and ${batches.uploadLease} = ${uploadLease}
    and (${batches.readAhead}->>'offset') is not distinct from ${before?.offset.toString() ?? null}`
  await transaction(pool, async (tx, client) => {
    await client.query('set local synchronous_commit = off')
    await loadCopies(client, copies)
    const noted = await tx.update(batches).set({ readAhead: behind }).where(isAsItWas).returning({ id: batches.id })
    if (noted.length === 0) throw new Overtaken()
  })
}

/** The file is whole meanwhile, or is sent by somebody else, or anew: what was read is not stored. */
class Overtaken extends Error {}

function aheadBehind({ readAhead: so }: BatchRow, before: ReadCursor, step: PreparedStep): ReadAhead {
  return {
    ...cursorBehind(before, step),
    rows: (so?.rows ?? 0) + step.rows,
    held: (so?.held ?? 0) + step.held,
    withMobile: (so?.withMobile ?? 0) + step.withMobile,
  }
}

/** How far a file was read while it arrived. Until the transaction ends whoever reads it stores nothing more. */
export async function holdReadAhead(tx: Db, batchId: string): Promise<ReadAhead | null> {
  const [found] = await tx
    .select({ readAhead: batches.readAhead })
    .from(batches)
    .where(eq(batches.id, batchId))
    .for('update')
  return found?.readAhead ?? null
}

/** What the job of a whole file begins with, and what its batch holds already; held like that. */
export async function takeReadAhead(
  tx: Db,
  batchId: string,
): Promise<
  Pick<NewJob, 'cursor' | 'before'> & { readonly counts: Partial<Pick<ReadAhead, 'rows' | 'held' | 'withMobile'>> }
> {
  const found = await holdReadAhead(tx, batchId)
  if (found === null) return { counts: {} }
  const { rows, held, withMobile, ...cursor } = found
  return { counts: { rows, held, withMobile }, cursor: { ...cursor }, before: cursor.offset }
}
