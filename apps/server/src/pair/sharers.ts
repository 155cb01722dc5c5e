import { sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { readIds } from '../db/readRows'

/** Other contacts of the same list that hold a number of these: whether it is shared may change with them. */
export async function sharersOf(tx: Db, ids: readonly number[]): Promise<number[]> {
  if (ids.length === 0) return []
  return readIds(tx)`
    select distinct o.contact_id as id from contact_numbers n
    join contact_numbers o on o.e164 = n.e164 and o.list_id = n.list_id and o.contact_id <> n.contact_id
    where n.contact_id = any(${sql.param(ids)}::bigint[])`
}
