import { type SQL, sql } from 'drizzle-orm'
import { transaction } from '../db/database'
import { GATHERED } from '../jobs/gathered'
import { type JobRow, saveJob } from '../jobs/store'
import type { Services } from '../services'
import type { Run } from './run'
import { fillForOf, lacksAll, wantingOf } from './wanting'

/** So many searches make the statistics of before useless. */
const MANY = 5000

/** Opens a search for each contact that wants something, or for so many of them at random. @returns how many */
export async function openSearches(services: Services, job: JobRow, run: Run): Promise<number> {
  await saveJob(services.db, job.id, { phase: 'gathering' })
  const { contactId = null } = job.payload as { contactId?: number | null }
  const meant = fillForOf({ ...run, contactId })
  return transaction(services.pool, async (tx) => {
    const { rowCount } = await tx.execute(sql`
      insert into fill_searches (job_id, contact_id, state, wants)
      select ${job.id}::uuid, id, 'open', ${lacksAll(meant)} from contacts where ${wantingOf(meant)} ${inOrder(run)}`)
    const searches = rowCount ?? 0
    if (searches > MANY) await tx.execute(sql`analyze fill_searches`)
    await saveJob(tx, job.id, { phase: 'asking', total: searches, cursor: GATHERED })
    return searches
  })
}

/** Of a sample anybody may be; of all the order does not matter. */
const inOrder = ({ jobId, sample }: Run): SQL =>
  sample === null ? sql`` : sql`order by md5(${jobId} || id) limit ${sample}`
