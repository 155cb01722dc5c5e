import { sql } from 'drizzle-orm'
import type { PoolClient } from 'pg'
import type { Db } from '../db/database'
import { readIds } from '../db/readRows'
import type { OnShare } from '../jobs/share'
import { reproject } from '../projection/reproject'
import { carrySent } from './carrySent'
import { sharersOf } from './sharers'

/**
 * Projects contacts anew that were just joined, and places everybody whose line may be shared now, or no longer.
 * @param ids of the contacts that something was joined to, and of those that were
 */
export async function refreshWithSharers(
  tx: Db,
  client: PoolClient,
  ids: readonly number[],
  onShare?: OnShare,
): Promise<void> {
  // Whoever stood for one row is still that row where it is joined to another.
  const made = new Set(
    await readIds(tx)`
      select id from contacts where id = any(${sql.param([...ids])}::bigint[]) and (joined_into is null or joined > 0) order by id`,
  )
  const toPlace = new Set([...ids, ...(await sharersOf(tx, ids))].filter((id) => !made.has(id)))
  await reproject(tx, client, { contacts: [...made], because: 'joined' }, { onShare })
  await reproject(tx, client, { contacts: [...toPlace], because: 'place' })
  await carrySent(tx, ids)
}
