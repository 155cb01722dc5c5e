import { createHash } from 'node:crypto'
import { FILE_PROBLEM_TEXT, type Format, judgeEncoding, recognise } from '@upper-field/core/table'
import { isContainer } from '@upper-field/files'
import { eq } from 'drizzle-orm'
import { transaction } from '../db/database'
import { batches, batchPieces } from '../db/schema'
import { Problem } from '../http/problem'
import { createJob } from '../jobs/store'
import type { BatchRow } from '../projection/rowCells'
import type { Services } from '../services'
import { inPieces } from './pieces'
import { tooLarge } from './tooLarge'

/**
 * Streams a file into the database, piece by piece, and starts the job that reads it, or leaves it waiting. What
 * arrives incomplete, too large or as no table is thrown away whole; the batch says why.
 */
export async function receiveContent(
  services: Services,
  batch: BatchRow,
  body: ReadableStream<Uint8Array>,
  { waits = false }: { waits?: boolean } = {},
): Promise<void> {
  const client = await services.pool.connect()
  try {
    const { rows } = await client.query<{ mine: boolean }>(
      'select pg_try_advisory_lock(hashtextextended($1, 7414)) as mine',
      [batch.id],
    )
    if (!rows[0]?.mine) throw new Problem(409, 'upload-under-way', 'This file is being received already.')
    try {
      await receiveLocked(services, batch, body, waits)
    } finally {
      await client.query('select pg_advisory_unlock(hashtextextended($1, 7414))', [batch.id])
    }
  } finally {
    client.release()
  }
}

async function receiveLocked(
  services: Services,
  batch: BatchRow,
  body: ReadableStream<Uint8Array>,
  waits: boolean,
): Promise<void> {
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
    const { bytes, sha256, fingerprint } = await storePieces(services, batch, body)
    await transaction(pool, async (tx) => {
      const job = await createJob(
        tx,
        {
          kind: 'bring-in',
          listId: batch.listId,
          unit: 'bytes',
          total: bytes,
          payload: { batchId: batch.id },
        },
        { isPaused: waits },
      )
      await tx
        .update(batches)
        .set({ state: 'queued', problem: null, bytes, sha256, fingerprint, jobId: job.id })
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
): Promise<{ bytes: number; sha256: string; fingerprint: string }> {
  const hash = createHash('sha256')
  let received = 0
  let first = ''
  for await (const piece of inPieces(body as unknown as AsyncIterable<Uint8Array>)) {
    if (received === 0) refuseWhatIsOff(piece, batch)
    if (received + piece.length > services.config.maxUploadBytes) throw tooLarge(services.config.maxUploadBytes)
    await services.db.insert(batchPieces).values({ batchId: batch.id, offset: received, bytes: piece })
    if (received === 0) first = createHash('sha256').update(piece).digest('hex')
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
  return { bytes: received, sha256: hash.digest('hex'), fingerprint: `${first}-${received}` }
}

/** A file that is refused at first sight, or is another kind than was announced, is not received. */
function refuseWhatIsOff(head: Uint8Array, batch: BatchRow): void {
  const found = recognise(head)
  if (found.kind === 'refused')
    throw new Problem(415, found.problem, `${FILE_PROBLEM_TEXT[found.problem]} Nothing was stored.`)
  const isAnnouncedAsText = !isContainer(batch.format as Format)
  const isWide = judgeEncoding(head.subarray(0, 65_536)).encoding.startsWith('utf-16')
  const isOtherEncoding = found.kind === 'text' && isWide && !batch.encoding.startsWith('utf-16')
  if ((found.kind === 'text') !== isAnnouncedAsText || isOtherEncoding) {
    throw new Problem(
      415,
      'format-off',
      `This is not the file that was announced as “${batch.format}”. Nothing was stored.`,
    )
  }
}
