import type { PoolClient } from 'pg'
import type { Db } from '../db/database'
import { refreshContacts } from '../projection/refresh'
import { sharersOf } from './sharers'

/** Projects contacts anew whose joins have changed, and everybody whose line may be shared now, or no longer. */
export async function refreshWithSharers(tx: Db, client: PoolClient, ids: readonly number[]): Promise<void> {
  await refreshContacts(tx, client, [...ids, ...(await sharersOf(tx, ids))])
}
