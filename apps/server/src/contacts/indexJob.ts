import { eq, sql } from 'drizzle-orm'
import { type Db, transaction } from '../db/database'
import { num, readRow } from '../db/readRows'
import { batches } from '../db/schema'
import { isJobOver } from '../jobs/over'
import type { JobHandler, StepOutcome } from '../jobs/runner'
import { createJob, type JobRow, saveJob } from '../jobs/store'
import { tryToHoldQuietly } from '../lists/listLock'
import type { Services } from '../services'
import { indexWhole } from './indexWhole'
import { SHOWN_ONCE, wasShown } from './shown'
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
    // Its whole list was indexed meanwhile, or it is gone.
    if (batch?.isIndexed !== false) return { next: 'done' }
    const isComing = batch.state === COMING
    if (!isComing && !SHOWN_ONCE.includes(batch.state)) return { next: 'done' }
    const hasBegun = (job.cursor as PageCursor).after !== undefined
    if (!hasBegun && (await isQuickerWhole(services.db, batch)))
      return takeWhole(services, job, isComing ? batchId : null)
    return isComing ? { next: 'done' } : addPage(services, job, batchId)
  },
}

/** All rows of such a batch are read when its indexing begins: their duplicates are being joined. */
const COMING = 'reading'

/** Behind which contact a batch goes on that is put into the index a page at a time. */
interface PageCursor {
  readonly after?: number
}

type Indexed = Pick<typeof batches.$inferSelect, 'id' | 'listId' | 'rows' | 'held'>

/**
 * Lets the index of a list be built while the duplicates of a batch are joined whose rows are all read, where the whole
 * list is to be indexed: what joining makes of them is put there afterwards.
 */
export async function startIndexingAhead(tx: Db, batch: Indexed): Promise<void> {
  if (await isQuickerWhole(tx, batch)) await startIndexingOnce(tx, batch)
}

/** Lets a batch be put into the index, unless a job for that is under way. */
export async function startIndexingOnce(tx: Db, { id, listId, rows, held }: Indexed): Promise<void> {
  const { rows: found } = await tx.execute(
    sql`select 1 from jobs where kind = 'index' and list_id = ${listId} and payload->>'batchId' = ${id} and not ${isJobOver()}`,
  )
  if (found.length === 0) await startIndexing(tx, listId, rows - held, id)
}

/** Lets the search of a list, or of one batch of it, be put into the index. */
export const startIndexing = (tx: Db, listId: string, contacts: number, batchId?: string): Promise<JobRow> =>
  createJob(tx, { kind: 'index', listId, unit: 'contacts', total: contacts, payload: batchId ? { batchId } : {} })

/** Fewer contacts than these are put into the index one by one. */
const FEW = 5000

/** Whether a list has so many contacts out of the index that to build it anew is quicker than to let it grow. */
async function isQuickerWhole(db: Db, { id, listId }: Pick<Indexed, 'id' | 'listId'>): Promise<boolean> {
  const counted = await readRow(db, { inside: num, outside: num })`
    select coalesce(sum(rows - held) filter (where is_indexed), 0) as inside,
      coalesce(sum(rows - held) filter (where not is_indexed), 0) as outside
    from batches where list_id = ${listId} and (${wasShown()} or id = ${id})`
  return counted !== undefined && counted.outside >= FEW && counted.outside > counted.inside
}

/** How long is waited for a list that is being worked on, or was while its index was built, in seconds. */
const AGAIN = 1

async function takeWhole(services: Services, job: JobRow, coming: string | null = null): Promise<StepOutcome> {
  await saveJob(services.db, job.id, { phase: 'indexing', done: 0 })
  return whileToldOf(services, job, (tx) => takeWholeIn(tx, job, coming))
}

async function takeWholeIn(tx: Db, job: JobRow, coming: string | null): Promise<StepOutcome> {
  const built = await indexWhole(tx, job.listId, coming)
  if (built === 'not-now') return { next: 'later', seconds: AGAIN }
  // Whoever brings it in lets it be indexed in the end.
  if (built === 'not-come') return { next: 'done' }
  await saveJob(tx, job.id, { phase: 'done', done: built, total: built })
  return { next: 'done' }
}

async function addPage({ pool }: Services, job: JobRow, batchId: string): Promise<StepOutcome> {
  const { after = 0 } = job.cursor as PageCursor
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
