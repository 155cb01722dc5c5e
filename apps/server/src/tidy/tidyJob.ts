import { eq } from 'drizzle-orm'
import type { Db } from '../db/database'
import { acts } from '../db/schema'
import { inOneGo } from '../jobs/giveUp'
import type { JobHandler } from '../jobs/runner'
import { FEW_CHANGED } from '../projection/countedChanges'
import type { TidyChange } from './acts'
import { makeChange } from './tidyAgain'

/** A change of the whole list: the old state is shown until the new one is whole. */
export const tidyJob: JobHandler = {
  step: async (services, job) => {
    const { change, madeBy } = job.payload as { change: TidyChange; madeBy: string }
    const counting = (await isOfFew(services.db, change)) ? 'by-change' : 'whole'
    return inOneGo(services, job, {
      phase: 'tidying',
      counts: () => counting,
      work: async (tx, client, onPage) => {
        const { actId, contacts } = await makeChange(tx, client, job.listId, change, madeBy, { onPage })
        return { total: job.total ?? contacts, result: { contacts, actId } }
      },
    })
  },
}

async function isOfFew(db: Db, change: TidyChange): Promise<boolean> {
  if (change.kind !== 'take-back') return false
  const [act] = await db.select({ contacts: acts.contacts }).from(acts).where(eq(acts.id, change.actId))
  return act !== undefined && act.contacts !== null && act.contacts <= FEW_CHANGED
}
