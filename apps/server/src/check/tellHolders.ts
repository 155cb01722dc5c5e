import type { PoolClient } from 'pg'
import type { Db } from '../db/database'
import { groupBy } from '../db/groupBy'
import type { JobHandler, StepOutcome } from '../jobs/runner'
import { findJob, leaveToJob, saveJob } from '../jobs/store'
import { tryListLock, withListLock } from '../lists/listLock'
import { countContacts } from '../projection/cube'
import { reproject } from '../projection/reproject'
import { holdersOf } from './storeAnswers'
import type { Subject } from './subjects'

/** What was told of: numbers or addresses, of a kind. */
export interface Learnt {
  readonly about: Pick<Subject<never>, 'holders' | 'column'>
  readonly subjects: readonly string[]
}

/** Nobody is kept waiting for more contacts of a list than these: they take a second. */
const MOST_AT_ONCE = 500

/**
 * Projects whoever holds what was told of anew, in every list: what is known of a number holds wherever it stands. No list
 * is waited for: one that is being worked on, or of which many are concerned, gets a job, in the same transaction.
 * @param heldId a list that the transaction holds already
 * @returns contacts of that list: whoever holds it projects them
 */
export async function tellHolders(
  tx: Db,
  client: PoolClient,
  learnt: readonly Learnt[],
  heldId: string | null = null,
): Promise<readonly number[]> {
  const found: { readonly id: number; readonly listId: string }[] = []
  for (const { about, subjects } of learnt)
    if (subjects.length > 0) found.push(...(await holdersOf(tx, about, subjects)))
  const byList = groupBy(found, ({ listId }) => listId)
  for (const listId of [...byList.keys()].sort()) {
    if (listId === heldId) continue
    const ids = [...new Set((byList.get(listId) ?? []).map(({ id }) => id))]
    const isTaken = ids.length <= MOST_AT_ONCE && (await tryListLock(tx, client, listId))
    if (isTaken) await takeOver(tx, client, listId, ids)
    else await leaveToJob(tx, 'facts', listId, ids)
  }
  return (byList.get(heldId ?? '') ?? []).map(({ id }) => id)
}

/** Projects contacts of a list anew that hold something new was learnt of. The list is held. */
export async function takeOver(tx: Db, client: PoolClient, listId: string, contacts: readonly number[]): Promise<void> {
  await reproject(tx, client, { contacts, because: 'learnt' })
  await countContacts(tx, listId)
}

/** Takes over what was told while a list was being worked on. */
export const factsJob: JobHandler = {
  async step(services, job): Promise<StepOutcome> {
    await withListLock(services, job.listId, { work: 'check', jobId: job.id, patience: 0 }, async (tx, client) => {
      // Others may have been added since the job was read.
      const { contactIds } = (await findJob(tx, job.id)).payload as { contactIds: readonly number[] }
      await takeOver(tx, client, job.listId, contactIds)
      await saveJob(tx, job.id, { phase: 'done', done: contactIds.length, total: contactIds.length })
    })
    return { next: 'done' }
  },
}
