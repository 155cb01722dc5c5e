import { eq, sql } from 'drizzle-orm'
import { type Db, transaction } from '../db/database'
import { batches } from '../db/schema'
import type { JobHandler, StepOutcome } from '../jobs/runner'
import { saveJob } from '../jobs/store'

const PAGE = 4000

/** Puts the contacts of a batch into the index of the search, page by page. They can be worked on meanwhile. */
export const indexJob: JobHandler = {
  async step({ pool }, job): Promise<StepOutcome> {
    const { batchId } = job.payload as { batchId: string }
    const { after = 0 } = job.cursor as { after?: number }
    return transaction(pool, async (tx): Promise<StepOutcome> => {
      const { count, last } = await indexContacts(tx, { batchId, after, limit: PAGE })
      const done = job.done + count
      if (count === PAGE) {
        await saveJob(tx, job.id, { phase: 'indexing', done, cursor: { after: last } })
        return { next: 'step' }
      }
      await tx.update(batches).set({ isIndexed: true }).where(eq(batches.id, batchId))
      await saveJob(tx, job.id, { phase: 'done', done })
      return { next: 'done' }
    })
  },
}

interface IndexPage {
  readonly batchId: string
  readonly after: number
  readonly limit?: number
}

/** Indexes the contacts of a batch behind an id. @returns how many, and the last of them */
export async function indexContacts(
  tx: Db,
  { batchId, after, limit }: IndexPage,
): Promise<{ count: number; last: number }> {
  const { rows } = await tx.execute<{ n: string; last: string | null }>(sql`
    with page as (
      select id, list_id, search from contacts where batch_id = ${batchId} and id > ${after} order by id limit ${limit ?? null}
    ), stored as (
      insert into contact_words (contact_id, list_id, words) select id, list_id, search from page
      on conflict (contact_id) do update set words = excluded.words)
    select count(*) as n, max(id) as last from page`)
  return { count: Number(rows[0]?.n ?? 0), last: Number(rows[0]?.last ?? after) }
}
