import { type SQL, sql } from 'drizzle-orm'
import { gather } from '../jobs/gathered'
import type { JobRow } from '../jobs/store'
import type { Services } from '../services'
import type { Run } from './run'
import { fillForOf, lacksAll, wantingOf } from './wanting'

/** Opens a search for each contact that wants something, or for so many of them at random. @returns how many */
export function openSearches(services: Services, job: JobRow, run: Run): Promise<number> {
  const { contactId = null } = job.payload as { contactId?: number | null }
  const meant = fillForOf({ ...run, contactId })
  return gather(services, job, 'fill_searches', async (tx) => {
    const { rowCount } = await tx.execute(sql`
      insert into fill_searches (job_id, contact_id, state, wants)
      select ${job.id}::uuid, id, 'open', ${lacksAll(meant)} from contacts where ${wantingOf(meant)} ${inOrder(run)}`)
    return rowCount ?? 0
  })
}

/** Of a sample anybody may be; of all the order does not matter. */
const inOrder = ({ jobId, sample }: Run): SQL =>
  sample === null ? sql`` : sql`order by md5(${jobId} || id) limit ${sample}`
