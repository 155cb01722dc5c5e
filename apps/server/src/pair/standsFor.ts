import { type SQL, sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { readIds } from '../db/readRows'

/** The contacts that stand for these, at the end of whatever chain of joins: themselves where they are joined to nobody. */
export async function rootsOf(tx: Db, ids: readonly number[]): Promise<number[]> {
  return readIds(tx)`
    select distinct coalesce(joined_into, id) as id from contacts where id = any(${sql.param([...ids])}::bigint[])`
}

/**
 * These contacts and all that are joined to them, as a table `(id, root)`: what was found for any of them, whoever it is
 * joined to now, is known of the root.
 */
export const withJoined = (ids: readonly number[]): SQL => {
  const these = sql`any(${sql.param([...ids])}::bigint[])`
  return sql`(select id, id as root from contacts where id = ${these}
    union all select id, joined_into as root from contacts where joined_into = ${these})`
}
