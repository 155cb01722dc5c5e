import { mendNotes } from '@upper-field/core/table'
import { needsUnpacking } from '@upper-field/files'
import { eq, sql } from 'drizzle-orm'
import { learntSince } from '../check/learntSince'
import { startIndexingAhead, startIndexingOnce } from '../contacts/indexJob'
import { type Db, transaction } from '../db/database'
import { batches, batchPieces, contacts } from '../db/schema'
import { inOneGo, type WholeList } from '../jobs/giveUp'
import { JobProblem } from '../jobs/jobProblem'
import type { JobHandler, StepOutcome } from '../jobs/runner'
import { beginStep, createStepsAhead, type Preparing } from '../jobs/stepsAhead'
import { type JobRow, saveJob } from '../jobs/store'
import { joinExactDuplicates } from '../pair/joinExactDuplicates'
import { loadCopies } from '../projection/copyLines'
import { countContacts } from '../projection/cube'
import { reproject } from '../projection/reproject'
import { type BatchRow, fileSettingsOf } from '../projection/rowCells'
import { renewLaneStatistics, renewStatistics } from '../projection/statistics'
import { tidyingKey, tidyingOf } from '../projection/tidying'
import type { Services } from '../services'
import { holdersByList, keysSince } from '../suppression/entryHolders'
import { batchIsReady } from './batchReady'
import { PIECE } from './pieces'
import { type PreparedStep, prepareStep, type StepPlace } from './prepareStep'
import { cursorBehind, type ReadCursor, readCursor } from './readCursor'
import { readingOf } from './readingOf'
import { unpackStep } from './unpackStep'

/** Reads a batch's file in steps, then joins exact duplicates and shows the batch, whole or not at all. */
export const bringInJob: JobHandler = {
  async step(services, job): Promise<StepOutcome> {
    const batch = await findBatch(services.db, job)
    if (batch.tableBytes === null && needsUnpacking(fileSettingsOf(batch))) return unpackStep(services, job, batch)
    const cursor = readCursor(batch, job.cursor as Partial<ReadCursor>)
    if (cursor.offset < readingOf(batch).bytes) return readStep(services, job, batch, cursor)
    return finish(services, job, batch, cursor)
  },

  async ended({ pool }, job, state, code) {
    ahead.drop(job.id)
    const { batchId } = job.payload as { batchId: string }
    await transaction(pool, async (tx) => {
      const problem = state === 'failed' ? (code ?? 'reading-failed') : null
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

async function readStep(services: Services, job: JobRow, batch: BatchRow, cursor: ReadCursor): Promise<StepOutcome> {
  const step = await ahead.take(job.id, cursor, preparing(services, batch)).prepared
  const next = cursorBehind(cursor, step)
  await transaction(services.pool, async (tx, client) => {
    // A step that a crash takes back is simply done again, so it need not wait for the disk.
    await client.query('set local synchronous_commit = off')
    await loadCopies(client, step.copies)
    await tx
      .update(batches)
      .set({
        state: 'reading',
        rows: sql`${batches.rows} + ${step.rows}`,
        held: sql`${batches.held} + ${step.held}`,
        withMobile: sql`${batches.withMobile} + ${step.withMobile}`,
      })
      .where(eq(batches.id, batch.id))
    await saveJob(tx, job.id, { phase: 'reading', done: next.offset, cursor: { ...next } })
  })
  return { next: 'step' }
}

const ahead = createStepsAhead<StepPlace, PreparedStep>(({ offset }) => offset)

/** Smaller tables are read before a thread of their own has begun, in bytes. */
const LARGE = 4 * PIECE

/**
 * Steps behind the one that is stored: one is ready while each reader is at another. Without readers this thread is at one
 * at a time: where it ends is not told before it is ready.
 */
function preparing(services: Services, batch: BatchRow): Preparing<StepPlace, PreparedStep> {
  const { bytes } = readingOf(batch)
  const readers = bytes < LARGE ? null : services.readers
  return {
    depth: readers === null ? 1 : readers.threads + 1,
    hasMore: ({ offset }) => offset < bytes,
    begin: (at) =>
      beginStep(at, (from, onEnd) =>
        readers ? readers.prepare(batch, from, onEnd) : prepareStep(services, batch, from, () => {}),
      ),
  }
}

async function finish(
  services: Services,
  job: JobRow,
  batch: BatchRow,
  { mends, tidiedBy }: ReadCursor,
): Promise<StepOutcome> {
  ahead.drop(job.id)
  // It was committed, and only the word of it was lost.
  if (batch.state === 'ready') return { next: 'done' }
  const { bytes } = readingOf(batch)
  await transaction(services.pool, async (tx) => {
    await saveJob(tx, job.id, { phase: 'joining', phaseShare: 0 })
    await startIndexingAhead(tx, batch)
  })
  const work: WholeList<null>['work'] = async (tx, client, onPage) => {
    await tx
      .update(batches)
      .set({ state: 'ready', notes: [...batch.notes, ...mendNotes(mends)] })
      .where(eq(batches.id, batch.id))
    await renewStatistics(client)
    const isTidiedAsNow = tidiedBy === '' || tidiedBy === tidyingKey(await tidyingOf(tx, batch.listId), batch.id)
    if (!isTidiedAsNow) await reproject(tx, client, { contacts: await contactsOf(tx, batch.id), because: 'changed' })
    const added = { listId: batch.listId, added: { batchId: batch.id } }
    const joined = await joinExactDuplicates(tx, client, added, { onShare: (share) => onPage(bytes, 'joining', share) })
    // Entries that came while its rows were read were not asked about for those read before.
    const heldSince = await holdersByList(tx, await keysSince(tx, batch.createdAt))
    await reproject(tx, client, { contacts: heldSince.get(batch.listId) ?? [], because: 'place' })
    // Nor does what was learnt of numbers meanwhile reach rows that were being stored.
    const learnt = await learntSince(tx, batch.id, batch.createdAt)
    await reproject(tx, client, { contacts: learnt, because: 'learnt' })
    await onPage(bytes, 'counting')
    await countContacts(tx, batch.listId)
    await renewLaneStatistics(client, batch.rows)
    await tx.delete(batchPieces).where(eq(batchPieces.batchId, batch.id))
    await startIndexingOnce(tx, batch)
    const [counts] = await tx
      .select({ rows: batches.rows, held: batches.held })
      .from(batches)
      .where(eq(batches.id, batch.id))
    const filled = await batchIsReady(tx, batch, { rows: counts?.rows ?? 0, held: counts?.held ?? 0 })
    return { total: bytes, result: { rows: counts?.rows ?? 0, held: counts?.held ?? 0, joined, ...filled } }
  }
  return inOneGo<null>(services, job, { phase: 'joining', before: bytes, work })
}

async function contactsOf(tx: Db, batchId: string): Promise<readonly number[]> {
  const found = await tx
    .select({ id: contacts.id })
    .from(contacts)
    .where(eq(contacts.batchId, batchId))
    .orderBy(contacts.id)
  return found.map(({ id }) => id)
}
