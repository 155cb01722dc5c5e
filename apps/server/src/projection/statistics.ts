import type { PoolClient } from 'pg'

/**
 * Statistics of what was just written: without them the planner takes a table it has just filled for an empty one, or
 * loops over what is new to it for minutes. Of the columns by which contacts are found and joined: those people filter by
 * follow by themselves, and looking at all takes seconds. Of the batches too: how many there are decides how everybody's
 * contacts are read.
 */
export async function renewStatistics(client: PoolClient): Promise<void> {
  await client.query(
    `analyze contacts (id, list_id, batch_id, joined_into), contact_numbers (contact_id, list_id, e164),
      contact_emails (contact_id, list_id, address), batches`,
  )
}
