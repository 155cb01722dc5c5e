import type { PoolClient } from 'pg'

/** Fewer contacts are quickly looked through, whatever the planner takes them for. */
const MANY = 10_000

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

/**
 * Statistics of lanes, once joining has decided them: until they follow by themselves, minutes later, whoever opens the call
 * sheet of a million has all of them read and put in order.
 * @param written how many contacts were
 */
export async function renewLaneStatistics(client: PoolClient, written: number): Promise<void> {
  if (written >= MANY) await client.query('analyze contacts (joined_into, lane, call_from)')
}
