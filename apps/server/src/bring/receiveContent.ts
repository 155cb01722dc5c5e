import { createHash } from 'node:crypto'
import { FILE_PROBLEM_TEXT, type Format, judgeEncoding, recognise } from '@upper-field/core/table'
import { isContainer } from '@upper-field/files'
import { eq } from 'drizzle-orm'
import type { Db } from '../db/database'
import { type batches, batchPieces } from '../db/schema'
import { readWithin } from '../http/body'
import { Problem } from '../http/problem'
import { createJob } from '../jobs/store'
import type { BatchRow } from '../projection/rowCells'
import type { Services } from '../services'
import { dropRows } from './dropRows'
import { inPieces, loadBytes, PIECE } from './pieces'
import { askToReadAhead, holdReadAhead, isReadAhead, takeReadAhead } from './readAhead'
import { endLease, renewLease, storePiece, takeLease, type UploadLease } from './uploadLease'

export interface Sending {
  /** Where in the file the body begins: 0, or where an earlier sending broke off. */
  readonly offset?: number
  /** The file is kept, and read once its job is told to go on. */
  readonly waits?: boolean
  readonly startedBy?: string
}

/** Files that arrive at this process now. */
let underWay = 0

/**
 * Streams a file into the database, piece by piece, and starts the job that reads it, or leaves it waiting; a large one
 * is read while it arrives. What is no table, too large or empty is thrown away whole; what breaks off keeps its whole
 * pieces and goes on behind them when the rest is sent. No connection to the database is held while bytes are waited for.
 */
export async function receiveContent(
  services: Services,
  batch: BatchRow,
  body: ReadableStream<Uint8Array>,
  sending: Sending = {},
): Promise<void> {
  if (underWay >= services.config.limits.uploads)
    throw new Problem(503, 'too-many-uploads', 'Too many files are arriving at once. Send this one in a moment.', {
      retryAfter: 5,
    })
  underWay++
  try {
    await receiveLeased(services, batch, body, sending)
  } finally {
    underWay--
  }
}

async function receiveLeased(
  services: Services,
  batch: BatchRow,
  body: ReadableStream<Uint8Array>,
  { offset = 0, waits = false, startedBy }: Sending,
): Promise<void> {
  const lease = await startAt(services, await takeLease(services, batch.id), offset)
  try {
    const { sha256, fingerprint } =
      (await receivePieces(services, batch, lease, body, !waits && isReadAhead(batch))) ??
      (await digestsOfStored(services, batch))
    const of = { kind: 'bring-in' as const, listId: batch.listId, unit: 'bytes' as const, total: batch.bytes }
    const by = startedBy === undefined ? {} : { startedBy }
    await endLease(services, lease, { state: 'queued', problem: null, sha256, fingerprint }, async (tx) => {
      const { counts, ...read } = await takeReadAhead(tx, batch.id)
      const job = await createJob(tx, { ...of, ...by, ...read, payload: { batchId: batch.id } }, { isPaused: waits })
      return { ...counts, jobId: job.id, readAhead: null }
    })
  } catch (error) {
    throw await giveBack(services, lease, error)
  }
}

/** Where the next byte belongs. A sending from the start throws away what an earlier one left. */
async function startAt(services: Services, lease: UploadLease, offset: number): Promise<UploadLease> {
  if (offset === lease.received) return lease
  if (offset === 0) {
    await endLease(services, lease, {}, (tx) => dropAll(tx, lease.batchId))
    return startAt(services, await takeLease(services, lease.batchId), 0)
  }
  const where = lease.received.toLocaleString('en')
  await endLease(services, lease, lease.received > 0 ? BROKEN : {})
  throw new Problem(409, 'offset-off', `This file goes on at byte ${where}. Nothing was changed.`)
}

/** Nothing of what has arrived is kept, nor of what was read of it. */
async function dropAll(tx: Db, batchId: string): Promise<Partial<typeof batches.$inferInsert>> {
  await holdReadAhead(tx, batchId)
  await tx.delete(batchPieces).where(eq(batchPieces.batchId, batchId))
  await dropRows(tx, batchId)
  return { received: 0, readAhead: null }
}

const BROKEN = { state: 'failed', problem: 'upload-broken' } as const

/** What is wrong with the file itself: nothing of it is kept. */
const THROWN_AWAY = new Set([400, 413, 415])

/** Writes down how a sending ended that did not reach the end. @returns the problem to be told */
async function giveBack(services: Services, lease: UploadLease, error: unknown): Promise<Problem> {
  const isRefused = error instanceof Problem && THROWN_AWAY.has(error.status)
  if (error instanceof Problem && error.code === 'upload-taken-over') return error
  if (isRefused) {
    await endLease(services, lease, { state: 'failed', problem: error.code }, (tx) => dropAll(tx, lease.batchId))
    return error
  }
  await endLease(services, lease, BROKEN)
  return new Problem(
    408,
    'upload-broken',
    'The connection broke before the whole file had arrived. What arrived is kept: send the rest, and it goes on there.',
    { cause: error },
  )
}

/** @returns the digests of the file, where all of it came in this sending; null where an earlier one left a part */
async function receivePieces(
  services: Services,
  batch: BatchRow,
  lease: UploadLease,
  body: ReadableStream<Uint8Array>,
  readsAhead: boolean,
): Promise<Digests | null> {
  let received = lease.received
  const digests = received === 0 ? digester() : null
  let hasAny = received > 0
  for await (const piece of inPieces(chunksOf(services, lease, body))) {
    hasAny = true
    if (received === 0) refuseWhatIsOff(piece, batch)
    if (received + piece.length > batch.bytes) throw moreThanAnnounced()
    // What fills no piece is at the end of the file, or of a sending that broke off: then it is sent again.
    if (piece.length < PIECE && received + piece.length < batch.bytes) break
    await storePiece(services, lease, received, piece)
    if (readsAhead) await askToReadAhead(services.db, batch.id)
    digests?.add(piece)
    received += piece.length
  }
  if (!hasAny) throw new Problem(400, 'empty-file', 'The file is empty: it has no bytes.')
  if (received !== batch.bytes) throw new Error('the body ended before the file did')
  return digests?.ended(batch.bytes) ?? null
}

const moreThanAnnounced = (): Problem =>
  new Problem(413, 'file-too-large', 'More bytes arrive than the file was announced with. Nothing was stored.')

/** The chunks of a body as they come. The lease is kept alive by bytes alone; who sends none loses it. */
async function* chunksOf(
  services: Services,
  lease: UploadLease,
  body: ReadableStream<Uint8Array>,
): AsyncGenerator<Uint8Array> {
  const idle = services.config.limits.uploadIdleSeconds * 1000
  const reader = body.getReader()
  let renewedAt = Date.now()
  try {
    for (;;) {
      const { done, value } = await readWithin(reader, idle)
      if (done) return
      yield value
      if (Date.now() - renewedAt < idle / 4) continue
      await renewLease(services, lease)
      renewedAt = Date.now()
    }
  } finally {
    await reader.cancel().catch(() => {})
  }
}

interface Digests {
  /** SHA-256 of the whole file. */
  readonly sha256: string
  /** SHA-256 of its first piece, with its size: known before a file is sent. */
  readonly fingerprint: string
}

/** Takes a file's pieces in, the first one first. */
function digester(): { add(piece: Buffer): void; ended(bytes: number): Digests } {
  const hash = createHash('sha256')
  let first: string | null = null
  return {
    add: (piece) => {
      first ??= createHash('sha256').update(piece).digest('hex')
      hash.update(piece)
    },
    ended: (bytes) => ({ sha256: hash.digest('hex'), fingerprint: `${first ?? ''}-${bytes}` }),
  }
}

/** Read back from what is stored, as it came in parts. */
async function digestsOfStored({ db }: Services, batch: BatchRow): Promise<Digests> {
  const digests = digester()
  for (let offset = 0; offset < batch.bytes; offset += PIECE)
    digests.add(await loadBytes(db, batch.id, 'file', offset, Math.min(offset + PIECE, batch.bytes)))
  return digests.ended(batch.bytes)
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
