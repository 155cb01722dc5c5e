import type { PoolClient } from 'pg'
import type { Db } from '../db/database'
import { reproject } from '../projection/reproject'
import { carrySent } from './carrySent'
import { sharersOf } from './sharers'

/**
 * Projects contacts anew whose joins have changed, and places everybody whose line may be shared now, or no longer.
 * @param ids of the contacts that something was joined to, or taken from, and of those that were
 */
export async function refreshWithSharers(tx: Db, client: PoolClient, ids: readonly number[]): Promise<void> {
  const own = new Set(ids)
  const others = (await sharersOf(tx, ids)).filter((id) => !own.has(id))
  await reproject(tx, client, { contacts: ids, because: 'changed' })
  await reproject(tx, client, { contacts: others, because: 'place' })
  await carrySent(tx, ids)
}
