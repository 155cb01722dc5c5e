import { transaction } from '../db/database'
import { num, readRows, text } from '../db/readRows'
import { isJobOver } from '../jobs/over'
import type { Services } from '../services'
import { startIndexing } from './indexJob'

/**
 * Finds batches that are shown, are not in the index of the search and have no job that puts them there, because it
 * failed or was stopped: each gets a job anew. Until then the search looks through them one by one, which is slow.
 * @returns how many there were
 */
export async function indexLeftOut({ pool }: Pick<Services, 'pool'>): Promise<number> {
  return transaction(pool, async (tx) => {
    const left = await readRows(tx, { id: text, listId: text, contacts: num })`
      select b.id, b.list_id, b.rows - b.held as contacts from batches b
      where b.state = 'ready' and not b.is_indexed and not exists (
        select 1 from jobs j where j.kind = 'index' and j.list_id = b.list_id
          and coalesce(j.payload->>'batchId', b.id::text) = b.id::text and not ${isJobOver('j')})
      for update of b skip locked`
    for (const { id, listId, contacts } of left) await startIndexing(tx, listId, contacts, id)
    return left.length
  })
}
