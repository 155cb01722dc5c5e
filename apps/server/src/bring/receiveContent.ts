import { createHash } from 'node:crypto'
import { judgeHead } from '@upper-field/core/table'
import { eq } from 'drizzle-orm'
import { transaction } from '../db/database'
import { batches, batchPieces } from '../db/schema'
import { Problem } from '../http/problem'
import { createJob } from '../jobs/store'
import type { BatchRow } from '../projection/rowCells'
import type { Services } from '../services'
import { tooLarge } from './tooLarge'

/** Pieces of the file are stored in this size, in bytes. */
export const PIECE = 1 << 20

/**
 * Streams a file into the database, piece by piece, and starts the job that reads it. What arrives incomplete, too
 * large or as no table of text is thrown away whole; the batch says why.
 */
export async function receiveContent(
  services: Services,
  batch: BatchRow,
  body: ReadableStream<Uint8Array>,
): Promise<void> {
  const client = await services.pool.connect()
  try {
    const { rows } = await client.query<{ mine: boolean }>(
      'select pg_try_advisory_lock(hashtextextended($1, 7414)) as mine',
      [batch.id],
    )
    if (!rows[0]?.mine) throw new Problem(409, 'upload-under-way', 'This file is being received already.')
    try {
      await receiveLocked(services, batch, body)
    } finally {
      await client.query('select pg_advisory_unlock(hashtextextended($1, 7414))', [batch.id])
    }
  } finally {
    client.release()
  }
}

async function receiveLocked(services: Services, batch: BatchRow, body: ReadableStream<Uint8Array>): Promise<void> {
  const { db, pool } = services
  const [now] = await db
    .select({ state: batches.state, jobId: batches.jobId })
    .from(batches)
    .where(eq(batches.id, batch.id))
  // A batch whose reading failed has a job, and goes on with it: its file is here already.
  if ((now?.state !== 'uploading' && now?.state !== 'failed') || now.jobId !== null)
    throw new Problem(409, 'already-received', 'The file of this batch has been received already.')
  await db.delete(batchPieces).where(eq(batchPieces.batchId, batch.id))
  try {
    const { bytes, sha256 } = await storePieces(services, batch, body)
    await transaction(pool, async (tx) => {
      const job = await createJob(tx, {
        kind: 'bring-in',
        listId: batch.listId,
        unit: 'bytes',
        total: bytes,
        payload: { batchId: batch.id },
      })
      await tx
        .update(batches)
        .set({ state: 'queued', problem: null, bytes, sha256, jobId: job.id })
        .where(eq(batches.id, batch.id))
    })
  } catch (error) {
    const problem =
      error instanceof Problem
        ? error
        : new Problem(
            400,
            'upload-broken',
            'The connection broke before the whole file had arrived. Nothing of it was kept: send it again.',
            { cause: error },
          )
    await db.delete(batchPieces).where(eq(batchPieces.batchId, batch.id))
    await db.update(batches).set({ state: 'failed', problem: problem.code }).where(eq(batches.id, batch.id))
    throw problem
  }
}

async function storePieces(
  services: Services,
  batch: BatchRow,
  body: ReadableStream<Uint8Array>,
): Promise<{ bytes: number; sha256: string }> {
  const hash = createHash('sha256')
  let received = 0
  for await (const piece of inPieces(body)) {
    if (received === 0) refuseWhatIsNoTable(piece, batch)
    if (received + piece.length > services.config.maxUploadBytes) throw tooLarge(services.config.maxUploadBytes)
    await services.db.insert(batchPieces).values({ batchId: batch.id, offset: received, bytes: piece })
    hash.update(piece)
    received += piece.length
  }
  if (received === 0) throw new Problem(400, 'empty-file', 'The file is empty: it has no bytes.')
  if (received !== batch.bytes) {
    throw new Problem(
      400,
      'upload-broken',
      `Only ${received.toLocaleString('en')} of ${batch.bytes.toLocaleString('en')} bytes arrived. Nothing of the file was kept: send it again.`,
    )
  }
  return { bytes: received, sha256: hash.digest('hex') }
}

const REFUSALS = {
  'empty-file': 'The file is empty.',
  'binary-file': 'This is not a table of text: it holds bytes that no text has. Export it as CSV and bring that in.',
  workbook: 'This is a workbook or an archive, whatever its name says. Save the sheet as CSV and bring that in.',
  'utf-16': 'This file is in UTF-16, which is not read yet. Save it as UTF-8 and bring that in.',
  'no-table': 'There are no rows in this file.',
} as const

function refuseWhatIsNoTable(head: Uint8Array, batch: BatchRow): void {
  const judged = judgeHead(head.subarray(0, 65_536), {
    encoding: batch.encoding as 'utf-8',
    delimiter: batch.delimiter,
  })
  if (judged.status === 'refused')
    throw new Problem(415, judged.problem, `${REFUSALS[judged.problem]} Nothing was stored.`)
}

/** The stream in pieces of equal size, whatever sizes arrive. */
async function* inPieces(body: ReadableStream<Uint8Array>): AsyncGenerator<Buffer> {
  let held: Buffer[] = []
  let size = 0
  for await (const chunk of body as unknown as AsyncIterable<Uint8Array>) {
    held.push(Buffer.from(chunk.buffer, chunk.byteOffset, chunk.byteLength))
    size += chunk.byteLength
    if (size < PIECE) continue
    const all = Buffer.concat(held)
    let at = 0
    for (; all.length - at >= PIECE; at += PIECE) yield all.subarray(at, at + PIECE)
    held = [Buffer.from(all.subarray(at))]
    size = all.length - at
  }
  if (size > 0) yield Buffer.concat(held)
}
