import type { PoolClient } from 'pg'
import type { Db } from '../db/database'
import { rootsOf } from '../pair/standsFor'
import { countContacts } from '../projection/cube'
import { reproject } from '../projection/reproject'

/**
 * Projects contacts of a list anew for whom something was found, or from whom it was taken, and whoever they are joined to:
 * what was found is that one's. The list is held, and counted.
 */
export async function projectFound(
  tx: Db,
  client: PoolClient,
  listId: string,
  contacts: readonly number[],
): Promise<void> {
  await reproject(tx, client, { contacts: [...contacts, ...(await rootsOf(tx, contacts))], because: 'changed' })
  await countContacts(tx, listId)
}
