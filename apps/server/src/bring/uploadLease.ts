import { and, eq, sql } from 'drizzle-orm'
import { type Db, transaction } from '../db/database'
import { batches } from '../db/schema'
import { Problem } from '../http/problem'
import type { Services } from '../services'

/**
 * The right to send the file of a batch, written beside it with a time: no connection is held while bytes are waited
 * for, and whoever vanished loses it by itself.
 */
export interface UploadLease {
  readonly batchId: string
  readonly token: string
  /** Bytes that are here already, in whole pieces. */
  readonly received: number
}

type Store = Pick<Services, 'db' | 'pool' | 'config'>

const untilFor = ({ config }: Store) => sql`now() + make_interval(secs => ${config.limits.uploadIdleSeconds + 5})`
const isMine = ({ batchId, token }: UploadLease) => and(eq(batches.id, batchId), eq(batches.uploadLease, token))

/** Takes the lease. Throws a problem where somebody else sends the file now, or all of it is here. */
export async function takeLease(store: Store, batchId: string): Promise<UploadLease> {
  const token = crypto.randomUUID()
  const [taken] = await store.db
    .update(batches)
    .set({ uploadLease: token, uploadLeaseUntil: untilFor(store), state: 'uploading', problem: null })
    .where(
      sql`${batches.id} = ${batchId} and ${batches.state} in ('uploading', 'failed') and ${batches.jobId} is null
        and (${batches.uploadLease} is null or ${batches.uploadLeaseUntil} < now())`,
    )
    .returning({ received: batches.received })
  if (taken) return { batchId, token, received: taken.received }
  const [found] = await store.db
    .select({ lease: batches.uploadLease, jobId: batches.jobId })
    .from(batches)
    .where(eq(batches.id, batchId))
  // A batch whose reading failed has a job, and goes on with it: its file is here already.
  throw found?.lease && found.jobId === null
    ? new Problem(409, 'upload-under-way', 'This file is being received already.', { retryAfter: 2 })
    : new Problem(409, 'already-received', 'The file of this batch has been received already.')
}

/** Keeps the lease while bytes come that fill no piece yet. Throws a problem where it was lost. */
export async function renewLease(store: Store, lease: UploadLease): Promise<void> {
  const kept = await store.db
    .update(batches)
    .set({ uploadLeaseUntil: untilFor(store) })
    .where(isMine(lease))
    .returning({ id: batches.id })
  if (kept.length === 0) throw leaseLost()
}

/** Stores a piece and how far the file is, both or neither. Throws a problem where the lease was lost. */
export async function storePiece(store: Store, lease: UploadLease, offset: number, bytes: Buffer): Promise<void> {
  const { rows } = await store.db.execute(sql`
    with mine as (
      update batches set received = ${offset + bytes.length}, upload_lease_until = ${untilFor(store)}
      where id = ${lease.batchId} and upload_lease = ${lease.token} and received = ${offset} returning id)
    insert into batch_pieces (batch_id, byte_offset, bytes) select id, ${offset}, ${bytes} from mine returning byte_offset`)
  if (rows.length === 0) throw leaseLost()
}

/** Ends the lease with what became of the batch, in one transaction. Throws a problem where it was lost. */
export async function endLease(
  store: Store,
  lease: UploadLease,
  change: Partial<typeof batches.$inferInsert>,
  also: (tx: Db) => Promise<Partial<typeof batches.$inferInsert>> = async () => ({}),
): Promise<void> {
  await transaction(store.pool, async (tx) => {
    const more = await also(tx)
    const ended = await tx
      .update(batches)
      .set({ ...change, ...more, uploadLease: null, uploadLeaseUntil: null })
      .where(isMine(lease))
      .returning({ id: batches.id })
    if (ended.length === 0) throw leaseLost()
  })
}

const leaseLost = (): Problem =>
  new Problem(409, 'upload-taken-over', 'This file is being sent by somebody else now. What had arrived was kept.')
