import { type SQL, sql } from 'drizzle-orm'
import { type Database, type Db, transaction } from '../db/database'
import { num, orNull, readRow, readRows, text } from '../db/readRows'

/**
 * What the search looks in, with its trigram index: a table for each list, made with it. A large list is indexed when all
 * its words are there, which takes less than to keep the index up meanwhile, and its new table takes the place of the old
 * one; nothing of other lists is touched.
 * @param listId of a list, as the database tells it
 */
export const wordsOf = (listId: string): SQL => sql`words.${sql.identifier(nameOf(listId))}`

const UUID = /^[\da-f]{8}(?:-[\da-f]{4}){3}-[\da-f]{12}$/

/** Ids of lists come with calls, and an identifier cannot be a parameter. */
function nameOf(listId: string): string {
  const name = listId.toLowerCase()
  if (!UUID.test(name)) throw new Error('This is no id of a list.')
  return name
}

/** Makes the table of a list that has no words yet. */
export async function makeWords(tx: Db, listId: string): Promise<void> {
  await fillTable(tx, wordsOf(listId), sql`false`)
}

/** Makes a table of words with those of some contacts: indexed when all are there. @returns how many */
async function fillTable(tx: Db, words: SQL, of: SQL): Promise<number> {
  await tx.execute(sql`create table ${words} (contact_id bigint not null, words text not null)`)
  const { rowCount } = await tx.execute(
    sql`insert into ${words} select id, search from contacts where ${of} order by id`,
  )
  await tx.execute(sql`alter table ${words} add primary key (contact_id)`)
  await tx.execute(sql`create index on ${words} using gin (words gin_trgm_ops)`)
  await tx.execute(sql`analyze ${words}`)
  return rowCount ?? 0
}

/** A table of words beside that of its list, as it is named in a statement, and how many contacts were put there. */
export interface WordsBeside {
  readonly table: SQL
  readonly contacts: number
}

/** Makes a table with the words of some contacts beside that of their list. */
export async function makeWordsBeside(tx: Db, listId: string, of: SQL): Promise<WordsBeside> {
  const table = sql`words.${sql.identifier(`${nameOf(listId)} new`)}`
  return { table, contacts: await fillTable(tx, table, of) }
}

/** Puts the table that was made beside that of a list in its place. Whoever searches the list waits for that moment. */
export async function takePlace(tx: Db, listId: string, beside: SQL): Promise<void> {
  await tx.execute(sql`drop table ${wordsOf(listId)}`)
  await tx.execute(sql`alter table ${beside} rename to ${sql.identifier(nameOf(listId))}`)
}

/** Makes the tables of lists that have none: of those that are older than this way of keeping words. */
export async function makeMissingWords({ db, pool }: Database): Promise<void> {
  const without = await readRows(db, { id: text })`
    select id from lists where to_regclass(format('words.%I', id)) is null`
  // Each by itself: a transaction holds a lock for every table it makes, and there is room for some thousands.
  for (const { id } of without) await transaction(pool, (tx) => makeWords(tx, id))
}

/** Contacts of a batch, in the order of their ids. */
export interface WordsPage {
  readonly listId: string
  readonly batchId: string
  readonly after: number
  readonly limit?: number
}

/** Puts contacts of a batch behind an id into the index, one by one. @returns how many, and the last of them */
export async function addWords(
  tx: Db,
  { listId, batchId, after, limit }: WordsPage,
): Promise<{ readonly count: number; readonly last: number }> {
  const put = await readRow(tx, { n: num, last: orNull(num) })`
    with page as (
      select id, search from contacts where batch_id = ${batchId} and id > ${after} order by id limit ${limit ?? null}
    ), stored as (
      insert into ${wordsOf(listId)} (contact_id, words) select id, search from page
      on conflict (contact_id) do update set words = excluded.words)
    select count(*) as n, max(id) as last from page`
  return { count: put?.n ?? 0, last: put?.last ?? after }
}

/** Puts contacts into a table of words with what is said of them, by their ids. */
export async function putTold(tx: Db, words: SQL, told: ReadonlyMap<number, string>): Promise<void> {
  await tx.execute(sql`
    insert into ${words} (contact_id, words)
    select * from unnest(${sql.param([...told.keys()])}::bigint[], ${sql.param([...told.values()])}::text[])
    on conflict (contact_id) do update set words = excluded.words`)
}

/** Brings the words of contacts up to date that have been written. Those that are not in the index stay out of it. */
export async function renewWords(tx: Db, listId: string, ids: readonly number[]): Promise<void> {
  const words = wordsOf(listId)
  await tx.execute(sql`
    update ${words} w set words = c.search from contacts c
    where c.id = w.contact_id and w.words <> c.search and w.contact_id = any(${sql.param(ids)}::bigint[])`)
}

/** Takes all words of a list out of the index. Whoever searches the list waits for the end of the transaction. */
export async function emptyWords(tx: Db, listId: string): Promise<void> {
  await tx.execute(sql`truncate ${wordsOf(listId)}`)
}
