import { eq, sql } from 'drizzle-orm'
import { type Db, transaction } from '../db/database'
import { batches } from '../db/schema'
import type { JobHandler, StepOutcome } from '../jobs/runner'
import { createJob, type JobRow, saveJob } from '../jobs/store'
import { tryToHoldQuietly } from '../lists/listLock'
import type { Services } from '../services'
import { indexWhole } from './indexWhole'
import { whileToldOf } from './tellOfBuilding'
import { addWords } from './words'

/** A page is held up by, and holds up, whoever changes the list: it takes a tenth of a second. */
const PAGE = 1000

/** Puts a batch into the index of the search, a page at a time, or builds the index of its whole list. */
export const indexJob: JobHandler = {
  async step(services, job): Promise<StepOutcome> {
    const { batchId = null } = job.payload as { batchId?: string }
    if (batchId === null) return takeWhole(services, job)
    const [batch] = await services.db.select().from(batches).where(eq(batches.id, batchId))
    // Its whole list was indexed meanwhile.
    if (batch?.isIndexed !== false) return { next: 'done' }
    if (job.done === 0 && (await isQuickerWhole(services.db, job.listId))) return takeWhole(services, job)
    return addPage(services, job, batchId)
  },
}

/** Lets the search of a list, or of one batch of it, be put into the index. */
export const startIndexing = (tx: Db, listId: string, contacts: number, batchId?: string): Promise<JobRow> =>
  createJob(tx, { kind: 'index', listId, unit: 'contacts', total: contacts, payload: batchId ? { batchId } : {} })

/** Fewer contacts than these are put into the index one by one. */
const FEW = 5000

/** Whether a list has so many contacts out of the index that to build it anew is quicker than to let it grow. */
async function isQuickerWhole(db: Db, listId: string): Promise<boolean> {
  const { rows } = await db.execute<{ inside: string; outside: string }>(sql`
    select coalesce(sum(rows - held) filter (where is_indexed), 0) as inside,
      coalesce(sum(rows - held) filter (where not is_indexed), 0) as outside
    from batches where list_id = ${listId} and state in ('ready', 'taken-back')`)
  const [inside, outside] = [Number(rows[0]?.inside ?? 0), Number(rows[0]?.outside ?? 0)]
  return outside >= FEW && outside > inside
}

/** How long is waited for a list that is being worked on, or was while its index was built, in seconds. */
const AGAIN = 1

async function takeWhole(services: Services, job: JobRow): Promise<StepOutcome> {
  await saveJob(services.db, job.id, { phase: 'indexing', done: 0 })
  return whileToldOf(services, job, (tx) => takeWholeIn(tx, job))
}

async function takeWholeIn(tx: Db, job: JobRow): Promise<StepOutcome> {
  const contacts = await indexWhole(tx, job.listId)
  if (contacts === null) return { next: 'later', seconds: AGAIN }
  await saveJob(tx, job.id, { phase: 'done', done: contacts, total: contacts })
  return { next: 'done' }
}

async function addPage({ pool }: Services, job: JobRow, batchId: string): Promise<StepOutcome> {
  const { after = 0 } = job.cursor as { after?: number }
  return transaction(pool, async (tx): Promise<StepOutcome> => {
    // Whoever changes a contact meanwhile would not find its words yet, and leave them as they are read here.
    if (!(await tryToHoldQuietly(tx, job.listId))) return { next: 'later', seconds: AGAIN }
    const { count, last } = await addWords(tx, { listId: job.listId, batchId, after, limit: PAGE })
    const done = job.done + count
    if (count === PAGE) {
      await saveJob(tx, job.id, { phase: 'indexing', done, cursor: { after: last } })
      return { next: 'step' }
    }
    await tx.update(batches).set({ isIndexed: true }).where(eq(batches.id, batchId))
    await saveJob(tx, job.id, { phase: 'done', done })
    return { next: 'done' }
  })
}
