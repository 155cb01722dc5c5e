import type { acts } from '../db/schema'
import { type JobRow, noteDone } from '../jobs/store'
import { ListBusy } from '../lists/listBusy'
import { withListLock } from '../lists/listLock'
import { findOpenList } from '../lists/routes'
import type { CallServices } from '../services'
import { makeChange } from './tidyAgain'

/**
 * Takes an act on some contacts back while its caller waits, and writes that down as a job that is done.
 * @returns null where somebody else has the list: then nothing was changed, and a job can wait for it
 */
export async function takeBackAtOnce(
  services: CallServices,
  act: Pick<typeof acts.$inferSelect, 'id' | 'listId'>,
  { takenBackBy, signal }: { readonly takenBackBy: string; readonly signal: AbortSignal },
): Promise<JobRow | null> {
  const change = { kind: 'take-back', actId: act.id } as const
  await findOpenList(services.db, act.listId)
  try {
    return await withListLock(services, act.listId, { work: 'tidy', patience: 0, signal }, async (tx, client) => {
      const { contacts } = await makeChange(tx, client, act.listId, change, takenBackBy)
      const job = { kind: 'tidy', listId: act.listId, unit: 'contacts', startedBy: takenBackBy } as const
      const result = { contacts, actId: act.id }
      return noteDone(tx, { ...job, payload: { change, madeBy: takenBackBy } }, result, new Date(services.now()))
    })
  } catch (error) {
    if (error instanceof ListBusy) return null
    throw error
  }
}
