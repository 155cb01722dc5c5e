import { type ExactJoin, exactJoiner, type KeyHolder, type SharedKey } from '@upper-field/core/pair'
import { sql } from 'drizzle-orm'
import type { PoolClient } from 'pg'
import { isShown } from '../contacts/shown'
import type { Db } from '../db/database'
import { listOf, num, oneOf, type RowOf, readIds, readRows, text } from '../db/readRows'
import { type Reprojecting, reproject } from '../projection/reproject'
import { carrySent } from './carrySent'
import { keptApart } from './keptApart'
import { storeJoins } from './storeJoins'

/** The contacts that are new to a list: a whole batch, or some by their ids. */
export interface Added {
  readonly listId: string
  readonly added: { readonly batchId: string } | { readonly ids: readonly number[] }
}

/**
 * Joins added contacts to those of their list, and to each other, that share a number or a personal e-mail
 * and whose names agree. Numbers that different people hold are marked as shared lines.
 * @returns how many contacts were joined
 */
export async function joinExactDuplicates(
  tx: Db,
  client: PoolClient,
  added: Added,
  how: Reprojecting = {},
): Promise<number> {
  await findSharedKeys(tx, added)
  const joins = await joinsOf(tx, added.listId)
  await storeJoins(tx, client, added.listId, joins)
  const survivorOf = new Map(joins.map(({ member, survivor }) => [member, survivor]))
  const done = new Set(survivorOf.values())
  const changed = [...done, ...(await survivorsAmong(tx, [...survivorOf.keys()]))]
  await reproject(tx, client, { contacts: changed, because: 'joined' }, how)
  await carrySent(tx, changed)
  for await (const ids of sharers(tx, survivorOf, done))
    await reproject(tx, client, { contacts: ids, because: 'place' })
  await tx.execute(sql`drop table shared_keys`)
  return survivorOf.size
}

/** A function of its own: what a joiner knows of a large list is let go before contacts are projected again. */
async function joinsOf(tx: Db, listId: string): Promise<readonly ExactJoin[]> {
  const joiner = exactJoiner(await keptApart(tx, listId))
  for await (const key of sharedKeys(tx)) joiner.add(key)
  return joiner.joins()
}

/** Contacts that others were joined to before: from now on each is its own row alone. */
async function survivorsAmong(tx: Db, members: readonly number[]): Promise<readonly number[]> {
  return readIds(tx)`select id from contacts where id = any(${sql.param(members)}::bigint[]) and joined > 0`
}

/** Contacts are placed so many at a time. */
const PAGE = 10_000

/** Contacts that stand for themselves and hold a number that another such contact holds too, in pages, each once. */
async function* sharers(
  tx: Db,
  survivorOf: ReadonlyMap<number, number>,
  done: Set<number>,
): AsyncGenerator<readonly number[]> {
  let page: number[] = []
  for await (const { kind, holders } of sharedKeys(tx)) {
    const standing = new Set(holders.map(({ id }) => survivorOf.get(id) ?? id))
    if (kind !== 'number' || standing.size < 2) continue
    for (const id of standing) {
      if (done.has(id)) continue
      done.add(id)
      page.push(id)
    }
    if (page.length < PAGE) continue
    yield page
    page = []
  }
  if (page.length > 0) yield page
}

const SHARED = {
  number: { table: 'contact_numbers', key: 'e164', condition: 'n.is_valid' },
  email: { table: 'contact_emails', key: 'address', condition: "n.kind <> 'role'" },
} as const

/**
 * Writes down the keys of the added contacts that more than one contact of the list holds, joined contacts left out:
 * numbers first, each kind in order. They stay in the database and are read a page at a time.
 */
async function findSharedKeys(tx: Db, { listId, added }: Added): Promise<void> {
  const isAdded = 'batchId' in added ? sql`c.batch_id = ${added.batchId}` : sql`c.id in (select a.id from added_ids a)`
  if ('ids' in added) await keepIds(tx, added.ids)
  await tx.execute(sql`
    create temp table shared_keys (at bigint generated always as identity primary key, kind text, key text, ids bigint[], names text[], births text[], companies text[])
    on commit drop`)
  for (const kind of ['number', 'email'] as const) {
    const { table, key, condition } = SHARED[kind]
    // A few contacts share few keys: those alone are looked at, not the whole list.
    const isTheirs =
      'ids' in added
        ? sql`and n.${sql.raw(key)} in (select o.${sql.raw(key)} from ${sql.raw(table)} o join added_ids a on a.id = o.contact_id)`
        : sql``
    const held = sql`${sql.raw(table)} n where n.list_id = ${listId} and ${sql.raw(condition)} ${isTheirs}`
    // Most keys have one holder: what is known of contacts is read for the others alone.
    await tx.execute(sql`
      insert into shared_keys (kind, key, ids, names, births, companies)
      select ${kind}, s.key, array_agg(c.id order by c.id), array_agg(c.full_name order by c.id),
        array_agg(c.birth_date order by c.id), array_agg(case when c.full_name = '' then c.company else '' end order by c.id)
      from (select n.${sql.raw(key)} as key from ${held} group by 1 having min(n.contact_id) <> max(n.contact_id)) s
      join (select n.${sql.raw(key)} as key, n.contact_id from ${held}) h on h.key = s.key
      join contacts c on c.id = h.contact_id
      where c.joined_into is null and ${isShown('c')}
      group by 2
      having min(c.id) <> max(c.id) and bool_or(${isAdded})
      order by 2`)
  }
}

/** The added contacts as a table the planner knows the size of: thousands of ids in an array are looked through one by one. */
async function keepIds(tx: Db, ids: readonly number[]): Promise<void> {
  await tx.execute(sql`drop table if exists added_ids`)
  await tx.execute(sql`create temp table added_ids (id bigint primary key) on commit drop`)
  await tx.execute(sql`insert into added_ids select distinct unnest(${sql.param(ids)}::bigint[])`)
  await tx.execute(sql`analyze added_ids`)
}

/** So many shared keys are read at a time: each comes with all that is known of its holders. */
const KEYS = 2000

const KEY = {
  at: num,
  kind: oneOf(['number', 'email']),
  key: text,
  ids: listOf(num),
  names: listOf(text),
  births: listOf(text),
  companies: listOf(text),
}

async function* sharedKeys(tx: Db): AsyncGenerator<SharedKey> {
  for (let after = 0; ; ) {
    const found = await readRows(tx, KEY)`select * from shared_keys where at > ${after} order by at limit ${KEYS}`
    for (const { kind, key, ...of } of found) yield { kind, key, holders: holdersOf(of) }
    const last = found.at(-1)
    if (!last || found.length < KEYS) return
    after = last.at
  }
}

/** A contact that holds the key twice is one holder. */
function holdersOf({
  ids,
  names,
  births,
  companies,
}: Pick<RowOf<typeof KEY>, 'ids' | 'names' | 'births' | 'companies'>): KeyHolder[] {
  const holders = ids.map((id, i) => ({
    id,
    name: names[i] ?? '',
    birthDate: births[i] ?? '',
    company: companies[i] ?? '',
  }))
  return [...new Map(holders.map((holder) => [holder.id, holder])).values()]
}
