import { isOver, type Job, type JobKind } from '@upper-field/contract'
import { and, desc, eq, inArray, sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { readRow, text } from '../db/readRows'
import { jobs } from '../db/schema'
import { notFound, Problem } from '../http/problem'
import { isJobOver } from './over'

export type JobRow = typeof jobs.$inferSelect

/** Channel on which every change of a job is told to all server processes. */
export const JOB_CHANNEL = 'upper_field_jobs'

export interface NewJob {
  readonly kind: JobKind
  readonly listId: string
  readonly unit: Job['unit']
  readonly total: number | null
  readonly payload: Record<string, unknown>
  /** Where it begins, where a part was done before. */
  readonly cursor?: Record<string, unknown>
  /** How much was done before it begins. */
  readonly before?: number
  /** Name of who asked for it. */
  readonly startedBy?: string
}

/**
 * Writes a job and hands it to the queue in the same transaction: never the one without the other. A paused one waits
 * until somebody lets it go on.
 */
export async function createJob(tx: Db, { before = 0, ...job }: NewJob, { isPaused = false } = {}): Promise<JobRow> {
  const state = isPaused ? 'paused' : 'queued'
  const [made] = await tx
    .insert(jobs)
    .values({ ...job, state, done: before, before })
    .returning()
  if (!made) throw new Error('insert returned nothing')
  if (!isPaused) await enqueue(tx, made.id)
  await announce(tx, made.id)
  return made
}

/**
 * Leaves contacts of a list that is being worked on to a job; one of the kind that waits already takes them along.
 * @param more what else the payload holds where there is none
 */
export async function leaveToJob(
  tx: Db,
  kind: 'mark' | 'facts',
  listId: string,
  contactIds: readonly number[],
  more: Record<string, unknown> = {},
): Promise<void> {
  const waiting = await readRow(tx, { id: text })`
    update jobs set total = total + ${contactIds.length},
      payload = jsonb_set(payload, '{contactIds}', payload->'contactIds' || ${JSON.stringify(contactIds)}::jsonb)
    where id = (
      select id from jobs where kind = ${kind} and list_id = ${listId} and state in ('queued', 'waiting')
      order by created_at limit 1 for update skip locked)
    returning id`
  if (waiting) return
  await createJob(tx, { kind, listId, unit: 'contacts', total: contactIds.length, payload: { ...more, contactIds } })
}

/** Writes down a job that was done while its caller waited, in the transaction that did it. It is told like any other. */
export async function noteDone(
  tx: Db,
  job: Omit<NewJob, 'total' | 'before'>,
  result: JobRow['result'],
  at: Date,
): Promise<JobRow> {
  const done = Number(result.contacts ?? 0)
  const ended = { state: 'done', phase: 'done', done, total: done, result, startedAt: at, finishedAt: at }
  const [made] = await tx
    .insert(jobs)
    .values({ ...job, ...ended })
    .returning()
  if (!made) throw new Error('insert returned nothing')
  await announce(tx, made.id)
  return made
}

/** Puts the job before the runners, once, however often it is asked for. */
export async function enqueue(tx: Db, jobId: string, { inSeconds = 0 }: { inSeconds?: number } = {}): Promise<void> {
  await tx.execute(sql`
    select graphile_worker.add_job('work', json_build_object('jobId', ${jobId}::text),
      job_key => ${jobId}::text, run_at => now() + make_interval(secs => ${inSeconds}), max_attempts => 20)`)
}

/** Told when the transaction commits, so that nobody reads a job before its effect. */
export async function announce(tx: Db, jobId: string): Promise<void> {
  await tx.execute(sql`select pg_notify(${JOB_CHANNEL}, ${jobId})`)
}

export type JobChange = Partial<
  Pick<
    JobRow,
    | 'state'
    | 'phase'
    | 'phaseShare'
    | 'done'
    | 'total'
    | 'problem'
    | 'cursor'
    | 'result'
    | 'startedAt'
    | 'finishedAt'
    | 'cutOffs'
  >
>

/** What is told of a phase is of that phase alone. */
const withShare = (change: JobChange): JobChange =>
  change.phase === undefined ? change : { phaseShare: null, ...change }

/** Records progress; called in the transaction of the step it tells of. */
export async function saveJob(tx: Db, jobId: string, change: JobChange): Promise<void> {
  await tx.update(jobs).set(withShare(change)).where(eq(jobs.id, jobId))
  await announce(tx, jobId)
}

/** The same, but only while the job is in one of these states: somebody may have asked it to stop meanwhile. */
export async function saveJobIf(db: Db, jobId: string, states: readonly string[], change: JobChange): Promise<void> {
  await db
    .update(jobs)
    .set(withShare(change))
    .where(and(eq(jobs.id, jobId), inArray(jobs.state, [...states])))
  await announce(db, jobId)
}

export async function findJob(db: Db, jobId: string): Promise<JobRow> {
  const [job] = await db.select().from(jobs).where(eq(jobs.id, jobId))
  if (!job) throw notFound('job')
  return job
}

/** Jobs of one kind that are told of after they ended. */
const OF_A_KIND = 10

/**
 * Jobs of a list, latest first: all that are not over, so that one that rests can be let go on however much was done
 * since, and of those that ended the latest of each kind.
 */
export const latestJobs = (db: Db, listId: string): Promise<JobRow[]> =>
  db
    .select()
    .from(jobs)
    .where(
      and(
        eq(jobs.listId, listId),
        sql`(not ${isJobOver()} or ${jobs.id} in (
          select id from (select id, row_number() over (partition by kind order by created_at desc) as place
            from jobs where list_id = ${listId}) ranked where place <= ${OF_A_KIND}))`,
      ),
    )
    .orderBy(desc(jobs.createdAt))

/** Asks a job to stop after its current step. */
export async function stopJob(tx: Db, jobId: string): Promise<JobRow> {
  const job = await findJob(tx, jobId)
  if (isOver(job)) throw new Problem(409, 'not-under-way', 'This job has ended already.')
  await saveJob(tx, jobId, { state: 'stopping' })
  await enqueue(tx, jobId)
  return findJob(tx, jobId)
}

/** Asks a job to rest after its current step; it keeps everything and goes on when asked. */
export async function pauseJob(tx: Db, jobId: string): Promise<JobRow> {
  const job = await findJob(tx, jobId)
  if (!['queued', 'running', 'waiting'].includes(job.state))
    throw new Problem(409, 'not-under-way', 'This job is not under way.')
  await saveJob(tx, jobId, { state: 'pausing' })
  await enqueue(tx, jobId)
  return findJob(tx, jobId)
}

/** Lets a paused, stopped or failed job go on from its last step. */
export async function resumeJob(tx: Db, jobId: string): Promise<JobRow> {
  const job = await findJob(tx, jobId)
  if (job.state !== 'paused' && job.state !== 'stopped' && job.state !== 'failed')
    throw new Problem(409, 'not-stopped', 'Only a paused or stopped job can go on.')
  await saveJob(tx, jobId, { state: 'queued', problem: null, finishedAt: null, cutOffs: 0 })
  await enqueue(tx, jobId)
  return findJob(tx, jobId)
}

export const asJob = (row: JobRow): Job => ({
  id: row.id,
  kind: row.kind as Job['kind'],
  listId: row.listId,
  state: row.state as Job['state'],
  phase: row.phase,
  phaseShare: row.phaseShare,
  done: row.done,
  total: row.total,
  before: row.before,
  unit: row.unit as Job['unit'],
  problem: row.problem,
  result: row.result,
  startedBy: row.startedBy,
  createdAt: row.createdAt.toISOString(),
  startedAt: row.startedAt?.toISOString() ?? null,
  finishedAt: row.finishedAt?.toISOString() ?? null,
})
