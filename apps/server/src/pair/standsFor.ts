import { type SQL, sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { readColumns } from '../db/readColumns'
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

/** So many rows are held at a time. */
export const ROWS_HELD = 20_000

/**
 * These contacts and all that are joined to them, in order; and those among them that somebody is joined to. One contact can
 * stand for a million: what is read of them is read so many at a time.
 */
export async function standingFor(
  tx: Db,
  ids: readonly number[],
): Promise<{ readonly all: readonly number[]; readonly survivors: readonly number[] }> {
  const these = sql`any(${sql.param(ids)}::bigint[])`
  const [all = [], joinedInto = []] = await readColumns(
    tx,
    ['id', 'joined_into'],
    sql`from contacts where id = ${these} or joined_into = ${these} order by id`,
  )
  const survivors = new Set(joinedInto)
  survivors.delete('')
  return { all: all.map(Number), survivors: [...survivors].map(Number) }
}
