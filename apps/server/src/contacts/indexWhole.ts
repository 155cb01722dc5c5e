import { type SQL, sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { tryLock } from '../db/locks'
import { readCount, readIds, readRows, text } from '../db/readRows'
import { holdQuietly, tryToHoldQuietly } from '../lists/listLock'
import { wasShown } from './shown'
import { makeWordsBeside, putTold, takePlace, type WordsBeside, wordsOf } from './words'
import { awaitWords, type WordsAhead } from './wordsAhead'

/** So many contacts may have become others in the end: they are put into the index one by one while the list is held. */
const MOST_CHANGED = 5000

/** So often those are put into it that have become others, before the list is held. */
const ROUNDS = 3

/**
 * Builds the index of a whole list beside the present one and puts it in its place. Everybody may search and change the
 * list meanwhile; for a moment at its end it is held.
 * @param coming a batch whose rows are all read, and whose duplicates are being joined: it is shown before the end
 * @returns how many contacts were put there; `not-now` where nothing was done, since somebody else builds it or too many
 * contacts have changed meanwhile; `not-come` where nothing was done, since nobody is at work on the coming batch
 */
export async function indexWhole(
  tx: Db,
  listId: string,
  coming: string | null = null,
): Promise<number | 'not-now' | 'not-come'> {
  if (!(await isOursToBuild(tx, listId))) return 'not-now'
  const batches = await readRows(tx, { id: text })`
    select id from batches where list_id = ${listId} and (${wasShown()} or is_indexed or id = ${coming})`
  const these = sql`any(${sql.param(batches.map(({ id }) => id))}::uuid[])`
  const beside = await buildBeside(tx, listId, sql`batch_id = ${these}`)
  await whenFree(tx, listId)
  const isThere = coming === null || (await isThereNow(tx, coming))
  const mayChange = sql`(batch_id = ${these} or batch_id in (select id from batches where list_id = ${listId} and is_indexed))`
  if (!isThere || !(await catchUp(tx, listId, beside, mayChange))) {
    await tx.execute(sql`drop table ${beside.table}`)
    return isThere ? 'not-now' : 'not-come'
  }
  await takePlace(tx, listId, beside.table)
  await tx.execute(sql`update batches set is_indexed = true where id = ${these}`)
  return readCount(tx)`select count(*) as n from ${wordsOf(listId)}`
}

/**
 * Puts those into an index that have become others while it was built, and holds the list.
 * @param mayChange a condition on those it may be
 * @returns whether it is held and all are there; false where it is quicker to build the index again
 */
async function catchUp(tx: Db, listId: string, beside: WordsBeside, mayChange: SQL): Promise<boolean> {
  const most = Math.max(MOST_CHANGED, beside.contacts / 2)
  for (let round = 0; round < ROUNDS; round++) {
    const changed = await putChanged(tx, beside.table, mayChange, most)
    if (changed > most) return false
    if (changed <= MOST_CHANGED) break
    await whenFree(tx, listId)
  }
  await holdQuietly(tx, listId)
  // Pages that are put into the present one.
  await tx.execute(sql`lock table ${wordsOf(listId)} in share row exclusive mode`)
  return (await putChanged(tx, beside.table, mayChange, MOST_CHANGED)) <= MOST_CHANGED
}

/** Builds the index of some contacts beside that of their list, with what others write of them meanwhile. */
async function buildBeside(tx: Db, listId: string, of: SQL): Promise<WordsBeside> {
  const ahead = awaitWords(listId)
  try {
    const beside = await makeWordsBeside(tx, listId, of)
    await putAhead(tx, listId, beside.table, ahead)
    return beside
  } finally {
    ahead.end()
  }
}

/** So many are put into an index at a time while others write more of them. */
const AHEAD = 2000
/** How long nobody has to write any until they are no longer waited for, and how often is looked, in milliseconds. */
const [PATIENCE, LOOK] = [1500, 50]

/** Puts those into an index whose words others are about to store, as long as somebody has the list and writes more. */
async function putAhead(tx: Db, listId: string, words: SQL, ahead: WordsAhead): Promise<void> {
  for (let waited = 0; waited < PATIENCE; waited += LOOK) {
    const told = ahead.take(AHEAD)
    if (told.size > 0) {
      await putTold(tx, words, told)
      waited = 0
    } else if (await isFree(tx, listId)) return
    else await new Promise((resolve) => setTimeout(resolve, LOOK))
  }
}

async function isFree(tx: Db, listId: string): Promise<boolean> {
  await tx.execute(sql`savepoint looking`)
  const isHeld = await tryToHoldQuietly(tx, listId)
  await tx.execute(sql`rollback to savepoint looking`)
  await tx.execute(sql`release savepoint looking`)
  return isHeld
}

/** Waits until nobody has the list: what was made of it is there to be read then, and it stays free. */
async function whenFree(tx: Db, listId: string): Promise<void> {
  await tx.execute(sql`savepoint waiting`)
  await holdQuietly(tx, listId)
  await tx.execute(sql`rollback to savepoint waiting`)
}

async function isThereNow(tx: Db, batchId: string): Promise<boolean> {
  const { rows } = await tx.execute(sql`select 1 from batches where id = ${batchId} and ${wasShown()}`)
  return rows.length > 0
}

const isOursToBuild = (tx: Db, listId: string): Promise<boolean> => tryLock(tx, 'words', listId)

/**
 * Puts contacts into a table of words that stand there with others than theirs, or not at all. Nothing is done where they
 * are more than may be.
 * @returns how many they are; one more than may be, where there are more
 */
async function putChanged(tx: Db, words: SQL, mayChange: SQL, most: number): Promise<number> {
  const ids = await readIds(tx)`
    select c.id from contacts c left join ${words} w on w.contact_id = c.id
    where ${mayChange} and w.words is distinct from c.search limit ${Math.floor(most) + 1}`
  if (ids.length === 0 || ids.length > most) return ids.length
  await tx.execute(sql`
    insert into ${words} (contact_id, words)
    select id, search from contacts where id = any(${sql.param(ids)}::bigint[])
    on conflict (contact_id) do update set words = excluded.words`)
  return ids.length
}
