import type { PoolClient } from 'pg'
import type { Db } from '../db/database'
import { reproject } from '../projection/reproject'
import { sharersOf } from './sharers'

/** Projects contacts anew whose joins have changed, and everybody whose line may be shared now, or no longer. */
export async function refreshWithSharers(tx: Db, client: PoolClient, ids: readonly number[]): Promise<void> {
  await reproject(tx, client, { contacts: [...ids, ...(await sharersOf(tx, ids))], because: 'changed' })
}
