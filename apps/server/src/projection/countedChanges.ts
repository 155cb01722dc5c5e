import { sql } from 'drizzle-orm'
import type { PoolClient } from 'pg'
import type { Db } from '../db/database'
import { bool, orNull, readCount, readRow } from '../db/readRows'
import { DIMENSIONS } from './cubeDimensions'

/** The setting by which the trigger on contacts knows that it is to count. */
const SETTING = 'upper_field.counting'
const BY_CHANGE = 'by-change'
/** Work that changes no more contacts counts them by change: a whole list takes seconds. */
export const FEW_CHANGED = 1000

/** So many changes are added to the counts before they are summed up. */
const MOST_UNSUMMED = 5000

/**
 * From here to the end of the transaction every change of a contact is counted as it is made: a line with the group it
 * left and one with the group it came to are added to the cube, and its id is noted. For work on some contacts; what
 * touches most of a list is counted whole, after it.
 */
export async function countByChange(client: PoolClient): Promise<void> {
  await client.query('create temp table if not exists touched_contacts (list_id uuid, id bigint) on commit delete rows')
  await client.query('select set_config($1, $2, true)', [SETTING, BY_CHANGE])
}

export async function isCountedByChange(tx: Db): Promise<boolean> {
  const counting = await readRow(tx, { is: orNull(bool) })`
    select current_setting(${SETTING}, true) = ${BY_CHANGE} as is`
  return counting?.is === true
}

/** Forgets who was touched; sums the counts of a list up where many changes stand in them one by one. */
export async function endOfChanges(tx: Db, listId: string): Promise<void> {
  const unsummed = await readCount(tx)`
    update lists set unsummed = unsummed + (select count(*) from touched_contacts t where t.list_id = ${listId}) where id = ${listId} returning unsummed as n`
  await tx.execute(sql`delete from touched_contacts where list_id = ${listId}`)
  if (unsummed <= MOST_UNSUMMED) return
  await sumUp(tx, listId, 'contact_cube', DIMENSIONS)
  await sumUp(tx, listId, 'tidy_counts', 'batch_id, code')
  await tx.execute(sql`update lists set unsummed = 0 where id = ${listId}`)
}

async function sumUp(tx: Db, listId: string, table: string, group: string): Promise<void> {
  const [into, by] = [sql.raw(table), sql.raw(group)]
  await tx.execute(sql`
    with lines as (delete from ${into} where list_id = ${listId} returning *)
    insert into ${into} (list_id, ${by}, contacts)
    select ${listId}::uuid, ${by}, sum(contacts) from lines group by ${by} having sum(contacts) <> 0`)
}
