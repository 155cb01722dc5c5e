import {
  type ByteSource,
  type Container,
  canOnlyBeReadWhole,
  FileRefusal,
  findingNotes,
  isContainer,
  noFindings,
  openContainer,
  transcode,
  unpackSheet,
} from '@upper-field/files'
import { and, eq } from 'drizzle-orm'
import { type Db, transaction } from '../db/database'
import { batches, batchPieces } from '../db/schema'
import { JobProblem } from '../jobs/jobProblem'
import type { StepOutcome } from '../jobs/runner'
import { findJob, type JobRow, saveJob } from '../jobs/store'
import { type BatchRow, fileSettingsOf } from '../projection/rowCells'
import type { Services } from '../services'
import { inPieces, storedFile } from './pieces'
import { spilledStrings } from './spilledStrings'
import { unpackApart } from './unpackApart'

/** Pieces stored between two looks at whether the job is to stop. */
const LOOK = 8

/**
 * Turns a stored file that is no plain text (workbook, cards, JSON, UTF-16) into one, piece by piece. A step of its
 * own: cut off, it starts again from the file, and no row has been stored yet.
 */
export async function unpackStep(services: Services, job: JobRow, batch: BatchRow): Promise<StepOutcome> {
  const { db } = services
  await db.delete(batchPieces).where(and(eq(batchPieces.batchId, batch.id), eq(batchPieces.part, 'table')))
  let read = 0
  const source = storedFile(db, batch.id, batch.bytes, (end) => {
    read = Math.max(read, end)
  })
  const findings = noFindings()
  let stored = 0
  let pieces = 0
  try {
    for await (const bytes of inPieces(await tableBytes(services, source, batch, findings))) {
      await db.insert(batchPieces).values({ batchId: batch.id, part: 'table', offset: stored, bytes })
      stored += bytes.length
      if (stored > services.config.limits.tableBytes) throw new FileRefusal('inflates-too-far')
      if (++pieces % LOOK !== 0) continue
      await saveJob(db, job.id, { phase: 'unpacking', done: Math.min(read, batch.bytes), total: batch.bytes })
      const { state } = await findJob(db, job.id)
      if (state === 'stopping' || state === 'pausing') return { next: 'step' }
    }
  } catch (error) {
    if (error instanceof FileRefusal) throw new JobProblem(error.problem)
    throw error
  }
  await transaction(services.pool, async (tx) => {
    const told = findingNotes(findings)
    const notes = [...batch.notes.filter(({ code }) => !told.some((note) => note.code === code)), ...told]
    await tx.update(batches).set({ tableBytes: stored, notes }).where(eq(batches.id, batch.id))
    await saveJob(tx, job.id, { phase: 'reading', done: 0, total: stored })
  })
  return { next: 'step' }
}

type Findings = ReturnType<typeof noFindings>

async function tableBytes(
  { db, config }: Services,
  source: ByteSource,
  batch: BatchRow,
  findings: Findings,
): Promise<AsyncIterable<Uint8Array>> {
  const settings = fileSettingsOf(batch)
  if (!isContainer(settings.format)) return transcode(source, settings)
  if (canOnlyBeReadWhole(settings.format)) {
    const bytes = await source.read(0, source.size)
    return unpackApart({ bytes, sheet: batch.sheet ?? '', settings, findings }, config.limits)
  }
  const container = await openContainer(source, {
    strings: spilledStrings,
    isThorough: true,
    headings: batch.headings,
    ...(batch.sheet === null ? {} : { sheet: batch.sheet }),
  })
  if (!container) throw new JobProblem('format-off')
  await addColumns(db, container, batch)
  return unpackSheet(container, batch.sheet ?? '', settings, findings)
}

/** Items name their own columns: those that only later items have are kept as extras. */
async function addColumns(db: Db, { headings }: Container, batch: BatchRow): Promise<void> {
  const added = headings?.slice(batch.headings.length) ?? []
  if (added.length === 0) return
  await db
    .update(batches)
    .set({ headings: [...batch.headings, ...added], mapping: [...batch.mapping, ...added.map(() => null)] })
    .where(eq(batches.id, batch.id))
}
