import { inOneGo } from '../jobs/giveUp'
import type { JobHandler } from '../jobs/runner'
import type { TidyChange } from './acts'
import { makeChange } from './tidyAgain'

/** A change of the whole list: the old state is shown until the new one is whole. */
export const tidyJob: JobHandler = {
  step: (services, job) =>
    inOneGo(services, job, {
      phase: 'tidying',
      work: async (tx, client, onPage) => {
        const { change, madeBy } = job.payload as { change: TidyChange; madeBy: string }
        const { actId, contacts } = await makeChange(tx, client, job.listId, change, madeBy, { onPage })
        return { total: job.total ?? contacts, result: { contacts, actId } }
      },
    }),
}
