import type { JobKind } from '@upper-field/contract'
import { and, eq, inArray, not, or, sql } from 'drizzle-orm'
import { Logger, parseCronItems, type Runner, run, type Task, type TaskList } from 'graphile-worker'
import type { PoolClient } from 'pg'
import { transaction } from '../db/database'
import { isDiskFull, isGivenWay, isLostConnection, isThereAlready } from '../db/errors'
import { LOCKS } from '../db/locks'
import { jobs } from '../db/schema'
import { logError } from '../http/problem'
import { ListBusy } from '../lists/listBusy'
import type { Services } from '../services'
import { JobProblem } from './jobProblem'
import { enqueue, findJob, type JobChange, type JobRow, saveJob, saveJobIf } from './store'

/** What a step leaves behind: more steps at once, a later look, or the end. */
export type StepOutcome =
  | { readonly next: 'step' }
  | { readonly next: 'later'; readonly seconds: number }
  | { readonly next: 'done' }

/** Work of one kind, in steps that can be repeated safely: each saves its progress in its own transaction. */
export interface JobHandler {
  step(services: Services, job: JobRow): Promise<StepOutcome>
  /**
   * Called where the job is to stop: what is left to be done first, so that nothing that was paid is lost. Null where it
   * may stop at once.
   */
  mayStop?(services: Services, job: JobRow): Promise<StepOutcome | null>
  /** Called once when the job was stopped or has failed. */
  ended?(services: Services, job: JobRow, state: 'stopped' | 'failed', problem: string | null): Promise<void>
}

export type JobHandlers = Readonly<Record<JobKind, JobHandler>>

/** How often jobs are looked for whose runner died, in milliseconds. */
const SWEEP = 3000

/** How long a job waits before it looks again whether its list is free, in seconds. */
const BUSY = 1

/** How long is waited before the queue is asked again after the database went away, in milliseconds. */
const PATIENCE = 1000

/**
 * Starts taking jobs from the queue. Several runners, on several machines, share the work. A queue that ends because
 * the database went away is started again until it is back.
 * @param tasks what else is put into the queue, by its name there: no job, since nobody is told of it
 */
export async function startRunner(
  services: Services,
  handlers: JobHandlers,
  tasks: Readonly<Record<string, Task>> = {},
): Promise<{ isIdle(): boolean; stop(): Promise<void> }> {
  let atWork = 0
  const counted =
    (task: Task): Task =>
    async (payload, helpers) => {
      atWork++
      try {
        return await task(payload, helpers)
      } finally {
        atWork--
      }
    }
  const work: Task = (payload) => workOn(services, handlers, (payload as { jobId: string }).jobId)
  const taskList = Object.fromEntries(Object.entries({ ...tasks, work }).map(([name, task]) => [name, counted(task)]))
  const start = () => startQueue(services, taskList).catch(leaveToLater)
  let isStopping = false
  let runner: Runner | null = await start()
  const watch = async (): Promise<void> => {
    while (!isStopping) {
      await runner?.promise.catch((error: unknown) => logError('queue', error))
      if (isStopping) return
      await new Promise((resolve) => setTimeout(resolve, PATIENCE))
      runner = await start()
    }
  }
  void watch()
  const sweeper = setInterval(() => void sweep(services).catch((error) => logError('sweep', error)), SWEEP)
  await sweep(services).catch(leaveToLater)
  return {
    isIdle: () => atWork === 0,
    stop: async () => {
      isStopping = true
      clearInterval(sweeper)
      await runner?.stop().catch(() => {})
    },
  }
}

/** The database is away for a moment, from the very start on: whoever looks again later goes on. */
function leaveToLater(error: unknown): null {
  if (!isLostConnection(error)) throw error
  return null
}

/**
 * One of the queue's takers ends where the database goes away just as it hands a job back: another takes its place.
 * Otherwise the whole queue would end, half of it without saying so.
 */
const REPLACE_LOST: GraphileConfig.Plugin = {
  name: 'replace-lost-takers',
  version: '1.0.0',
  worker: { middleware: { poolWorkerPrematureExit: (_next, { replaceWithNewWorker }) => replaceWithNewWorker() } },
}

const startQueue = (services: Services, taskList: TaskList): Promise<Runner> =>
  run({
    pgPool: services.pool,
    concurrency: 4,
    pollInterval: 1000,
    noHandleSignals: true,
    parsedCronItems: parseCronItems([]),
    logger: quietLogger(),
    preset: { plugins: [REPLACE_LOST] },
    taskList,
  })

/**
 * A job is held by a lock that PostgreSQL drops when the runner's connection dies. A job that claims to be running
 * while nobody holds its lock was cut off: it goes back into the queue. So does one that waits and will not be woken: whoever
 * died just after taking its wake-up from the queue has used it up, and the queue keeps it for them for hours.
 */
async function sweep({ db, pool }: Services): Promise<void> {
  const open = await db
    .select({ id: jobs.id })
    .from(jobs)
    .where(
      or(
        inArray(jobs.state, ['running', 'queued', 'stopping', 'pausing']),
        and(eq(jobs.state, 'waiting'), not(IS_TO_BE_WOKEN)),
      ),
    )
  for (const { id } of open) {
    const client = await pool.connect()
    try {
      if (await tryLock(client, id)) {
        await unlock(client, id)
        await enqueue(db, id)
      }
    } finally {
      client.release()
    }
  }
}

const IS_TO_BE_WOKEN = sql`exists (
  select 1 from graphile_worker.jobs w
  where w.key = ${jobs.id}::text and w.locked_at is null and w.attempts < w.max_attempts)`

async function tryLock(client: PoolClient, jobId: string): Promise<boolean> {
  const { rows } = await client.query<{ locked: boolean }>(
    'select pg_try_advisory_lock(hashtextextended($1, $2)) as locked',
    [jobId, LOCKS.job],
  )
  return rows[0]?.locked ?? false
}

const unlock = (client: PoolClient, jobId: string) =>
  client.query('select pg_advisory_unlock(hashtextextended($1, $2))', [jobId, LOCKS.job])

async function workOn(services: Services, handlers: JobHandlers, jobId: string): Promise<void> {
  const client = await services.pool.connect()
  let isMine = true
  const lose = () => {
    isMine = false
  }
  // The lock goes with its connection: whoever takes the job then must not meet us at work.
  client.on('error', lose)
  client.on('end', lose)
  try {
    if (!(await tryLock(client, jobId))) {
      // Whoever holds the job may be about to rest, with the wake-up that brought us here already used up.
      await enqueue(services.db, jobId, { inSeconds: 1 })
      return
    }
    await runSteps(services, handlers, jobId, () => isMine)
    await unlock(client, jobId)
  } catch (error) {
    lose()
    // The sweeper finds the job as soon as the database is back.
    if (!isLostConnection(error)) throw error
  } finally {
    client.off('error', lose)
    client.off('end', lose)
    client.release(!isMine)
  }
}

async function runSteps(
  services: Services,
  handlers: JobHandlers,
  jobId: string,
  isMine: () => boolean,
): Promise<void> {
  const first = await findJob(services.db, jobId)
  if (['done', 'stopped', 'paused', 'failed'].includes(first.state)) return
  const handler = handlers[first.kind as JobKind]
  if (first.state !== 'stopping' && first.state !== 'pausing') {
    // A job that was running and is taken up again was cut off: by a crash, which it may have caused itself.
    const cutOffs = first.state === 'running' ? first.cutOffs + 1 : first.cutOffs
    if (cutOffs > MOST_CUT_OFFS) return end(services, handler, first, 'failed', 'cut-off-often')
    const startedAt = first.startedAt ?? new Date(services.now())
    await saveJobIf(services.db, jobId, ['queued', 'waiting', 'running'], { state: 'running', startedAt, cutOffs })
  }
  while (isMine()) {
    const job = await findJob(services.db, jobId)
    if (job.state === 'pausing') return saveJob(services.db, jobId, { state: 'paused' })
    try {
      if (job.state === 'stopping') {
        const left = (await handler.mayStop?.(services, job)) ?? null
        if (left === null) return await end(services, handler, job, 'stopped', null)
        if (left.next === 'later') return await enqueue(services.db, jobId, { inSeconds: left.seconds })
        continue
      }
      const outcome = await handler.step(services, job)
      if (job.cutOffs > 0) await saveJob(services.db, jobId, { cutOffs: 0 })
      if (outcome.next === 'done')
        return saveJob(services.db, jobId, { state: 'done', finishedAt: new Date(services.now()) })
      if (outcome.next === 'later') return rest(services, jobId, outcome.seconds)
    } catch (error) {
      if (!isMine()) return
      return afterError(services, handler, job, error)
    }
  }
}

/** What becomes of a job whose step failed: it is tried again where the cause lies outside, or ends. */
async function afterError(services: Services, handler: JobHandler, job: JobRow, error: unknown): Promise<void> {
  if (isLostConnection(error)) {
    // Not a crash of its own making: it is not counted as one. The sweeper takes it up.
    await saveJobIf(services.db, job.id, ['running'], { state: 'queued' }).catch(() => {})
    throw error
  }
  if (error instanceof ListBusy || isGivenWay(error)) return rest(services, job.id, BUSY, { phase: 'list-busy' })
  // The same step was committed by a runner that had lost the job, or without our hearing of it: the next look tells.
  if (isThereAlready(error) && job.cutOffs < MOST_CUT_OFFS)
    return rest(services, job.id, BUSY, { cutOffs: job.cutOffs + 1 })
  if (!(error instanceof JobProblem)) logError(`job ${job.kind}`, error)
  return end(services, handler, job, 'failed', problemOf(error))
}

function problemOf(error: unknown): string {
  if (error instanceof JobProblem) return error.code
  return isDiskFull(error) ? 'disk-full' : 'unexpected'
}

async function rest({ pool }: Services, jobId: string, seconds: number, more: JobChange = {}): Promise<void> {
  await transaction(pool, async (tx) => {
    await saveJobIf(tx, jobId, ['running'], { state: 'waiting', ...more })
    await enqueue(tx, jobId, { inSeconds: seconds })
  })
}

async function end(
  services: Services,
  handler: JobHandler,
  job: JobRow,
  state: 'stopped' | 'failed',
  problem: string | null,
): Promise<void> {
  await handler.ended?.(services, job, state, problem)
  await saveJob(services.db, job.id, { state, problem, finishedAt: new Date(services.now()) })
}

/** A step that never comes to an end, because it ends the process, is not tried for ever. */
const MOST_CUT_OFFS = 5

const quietLogger = (): Logger => new Logger(() => () => {})
