import { type SQL, sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { LOCKS } from '../db/locks'
import { holdQuietly } from '../lists/listLock'
import { makeWordsBeside, takePlace, wordsOf } from './words'

/** So many contacts may have become others while the index was built: they are put into it one by one. */
const MOST_CHANGED = 5000

/**
 * Builds the index of a whole list beside the present one and puts it in its place. Everybody may search and change the
 * list meanwhile; for a moment at its end it is held.
 * @returns how many contacts were put there; null where nothing was done, since somebody else builds it or too many
 * contacts have changed meanwhile
 */
export async function indexWhole(tx: Db, listId: string): Promise<number | null> {
  if (!(await isOursToBuild(tx, listId))) return null
  const { rows: batches } = await tx.execute<{ id: string }>(
    sql`select id from batches where list_id = ${listId} and (state in ('ready', 'taken-back') or is_indexed)`,
  )
  const these = sql`any(${sql.param(batches.map(({ id }) => id))}::uuid[])`
  const beside = await makeWordsBeside(tx, listId, sql`batch_id = ${these}`)
  await holdQuietly(tx, listId)
  // Pages that are put into the present one.
  await tx.execute(sql`lock table ${wordsOf(listId)} in share row exclusive mode`)
  const changed = await changedSince(
    tx,
    beside,
    sql`(batch_id = ${these} or batch_id in (
    select id from batches where list_id = ${listId} and is_indexed))`,
  )
  if (changed.length > MOST_CHANGED) {
    await tx.execute(sql`drop table ${beside}`)
    return null
  }
  await tx.execute(sql`
    insert into ${beside} (contact_id, words)
    select id, search from contacts where id = any(${sql.param(changed)}::bigint[])
    on conflict (contact_id) do update set words = excluded.words`)
  await takePlace(tx, listId, beside)
  await tx.execute(sql`update batches set is_indexed = true where id = ${these}`)
  const { rows } = await tx.execute<{ n: string }>(sql`select count(*) as n from ${wordsOf(listId)}`)
  return Number(rows[0]?.n ?? 0)
}

async function isOursToBuild(tx: Db, listId: string): Promise<boolean> {
  const { rows } = await tx.execute<{ taken: boolean }>(
    sql`select pg_try_advisory_xact_lock(hashtextextended(${listId}::text, ${LOCKS.words})) as taken`,
  )
  return rows[0]?.taken === true
}

/** Contacts whose words are others than in a table of words, or that are not there; one more than may be, where there are more. */
async function changedSince(tx: Db, words: SQL, of: SQL): Promise<readonly number[]> {
  const { rows } = await tx.execute<{ id: string }>(sql`
    select c.id from contacts c left join ${words} w on w.contact_id = c.id
    where ${of} and w.words is distinct from c.search limit ${MOST_CHANGED + 1}`)
  return rows.map(({ id }) => Number(id))
}
