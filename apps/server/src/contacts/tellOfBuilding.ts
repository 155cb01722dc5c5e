import { sql } from 'drizzle-orm'
import { type Db, transaction } from '../db/database'
import { isStatementTimeout } from '../db/errors'
import type { StepOutcome } from '../jobs/runner'
import { announce, findJob, type JobRow } from '../jobs/store'
import { nameOf } from '../lists/listLock'
import type { Services } from '../services'

/** How often is looked how far an index is, in milliseconds. */
const LOOK = 1000

/**
 * Does work in a transaction that builds an index, and tells meanwhile how far that is: the statement itself says nothing
 * until it ends. It is given up where somebody wants the job to stop or to rest.
 */
export async function whileToldOf(
  { pool, db }: Pick<Services, 'pool' | 'db'>,
  job: JobRow,
  work: (tx: Db) => Promise<StepOutcome>,
): Promise<StepOutcome> {
  let clock: NodeJS.Timeout | undefined
  try {
    return await transaction(pool, async (tx) => {
      await tx.execute(sql`select set_config('application_name', ${nameOfWork(job)}, true)`)
      clock = setInterval(() => void look(db, job).catch(() => {}), LOOK)
      return work(tx)
    })
  } catch (error) {
    if (!isStatementTimeout(error)) throw error
    const { state } = await findJob(db, job.id)
    if (state === 'running') throw error
    return { next: 'step' }
  } finally {
    clearInterval(clock)
  }
}

const nameOfWork = (job: JobRow): string => nameOf({ work: 'index', jobId: job.id })

async function look(db: Db, job: JobRow): Promise<void> {
  const mine = sql`(select pid from pg_stat_activity where datname = current_database() and application_name = ${nameOfWork(job)})`
  const { state } = await findJob(db, job.id)
  if (state !== 'running') {
    await db.execute(sql`select pg_cancel_backend(pid) from ${mine} mine`)
    return
  }
  const { rows } = await db.execute(sql`
    update jobs j set done = j.total * p.blocks_done / p.blocks_total
    from pg_stat_progress_create_index p
    where j.id = ${job.id} and j.phase = 'indexing' and p.pid in ${mine} and p.blocks_total > 0 returning j.id`)
  if (rows.length > 0) await announce(db, job.id)
}
