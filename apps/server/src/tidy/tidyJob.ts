import { transaction } from '../db/database'
import type { JobHandler, StepOutcome } from '../jobs/runner'
import { findJob, saveJob } from '../jobs/store'
import type { TidyChange } from './acts'
import { makeChange } from './tidyAgain'

/** Thrown between two pages to give up a change that somebody wants to stop or to rest. */
class GivenUp extends Error {}

/** A change of the whole list: all of it in one transaction, told page by page, given up whole when it is stopped. */
export const tidyJob: JobHandler = {
  async step(services, job): Promise<StepOutcome> {
    const { change, madeBy } = job.payload as { change: TidyChange; madeBy: string }
    const onPage = async (done: number): Promise<void> => {
      await saveJob(services.db, job.id, { phase: 'tidying', done: Math.min(done, job.total ?? done) })
      const { state } = await findJob(services.db, job.id)
      if (state !== 'running') throw new GivenUp()
    }
    try {
      await transaction(services.pool, async (tx, client) => {
        const { actId, contacts } = await makeChange(tx, client, job.listId, change, madeBy, { onPage })
        // Until it is committed, it can be given up.
        await onPage(job.total ?? contacts)
        await saveJob(tx, job.id, { phase: 'done', done: job.total ?? contacts, result: { contacts, actId } })
      })
      return { next: 'done' }
    } catch (error) {
      if (!(error instanceof GivenUp)) throw error
      await saveJob(services.db, job.id, { phase: 'waiting', done: 0 })
      return { next: 'step' }
    }
  },
}
