import { sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { readCount } from '../db/readRows'

/** How many contacts were brought into these lists, whatever became of them. */
export async function contactsIn(tx: Db, listIds: readonly string[]): Promise<number> {
  return readCount(tx)`
    select coalesce(sum(rows - held), 0) as n from batches where list_id = any(${sql.param(listIds)}::uuid[])`
}
