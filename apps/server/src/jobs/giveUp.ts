import type { PoolClient } from 'pg'
import { type Db, transaction } from '../db/database'
import type { Services } from '../services'
import type { StepOutcome } from './runner'
import { findJob, type JobRow, saveJob } from './store'

/** Thrown between two pages to give up what somebody wants to stop or to rest. */
class GivenUp extends Error {}

/** Tells how far the work has come, and in what phase it is; throws where it is to be given up. */
export type OnPage = (done: number, phase?: string) => Promise<void>

/**
 * Work on a whole list in one transaction: told page by page as it goes, given up whole when somebody stops it or lets
 * it rest. Until it is committed, the list is what it was.
 * @param work returns what the job has to tell in the end, by name
 */
export async function inOneGo(
  services: Services,
  job: JobRow,
  phase: string,
  work: (tx: Db, client: PoolClient, onPage: OnPage) => Promise<{ total: number; result: JobRow['result'] }>,
): Promise<StepOutcome> {
  const tell: OnPage = async (done, now = phase) => {
    await saveJob(services.db, job.id, { phase: now, done: Math.min(done, job.total ?? done) })
    const { state } = await findJob(services.db, job.id)
    if (state !== 'running') throw new GivenUp()
  }
  try {
    await transaction(services.pool, async (tx, client) => {
      const { total, result } = await work(tx, client, tell)
      // Until it is committed, it can be given up.
      await tell(total)
      await saveJob(tx, job.id, { phase: 'done', done: total, result })
    })
    return { next: 'done' }
  } catch (error) {
    if (!(error instanceof GivenUp)) throw error
    await saveJob(services.db, job.id, { phase: 'waiting', done: 0 })
    return { next: 'step' }
  }
}
