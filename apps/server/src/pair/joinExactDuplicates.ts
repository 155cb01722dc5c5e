import { type ExactJoin, exactJoiner, type KeyHolder, type SharedKey } from '@upper-field/core/pair'
import { sql } from 'drizzle-orm'
import type { PoolClient } from 'pg'
import { isShown } from '../contacts/shown'
import type { Db } from '../db/database'
import { readColumns } from '../db/readColumns'
import { readIds } from '../db/readRows'
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
  const survivors = new Set(joins.map(({ survivor }) => survivor))
  const alone = await survivorsAmong(
    tx,
    joins.map(({ member }) => member),
  )
  const changed = [...survivors, ...alone]
  await reproject(tx, client, { contacts: changed, because: 'joined' }, how)
  await carrySent(tx, changed)
  const sharing = await sharers(tx)
  await reproject(tx, client, { contacts: sharing.filter((id) => !survivors.has(id)), because: 'place' })
  await tx.execute(sql`drop table shared_keys`)
  return joins.length
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

/** Contacts that stand for themselves and hold a number that another such contact holds too. */
async function sharers(tx: Db): Promise<readonly number[]> {
  const [ids = []] = await readColumns(
    tx,
    ['id'],
    sql`from (
      select distinct standing as id from (
        select coalesce(c.joined_into, c.id) as standing,
          min(coalesce(c.joined_into, c.id)) over held <> max(coalesce(c.joined_into, c.id)) over held as is_shared
        from shared_keys s join contacts c on c.id = s.id where s.kind = 'number'
        window held as (partition by s.key)) held
      where is_shared order by 1) sharers`,
  )
  return ids.map(Number)
}

const SHARED = {
  number: { table: 'contact_numbers', key: 'e164', condition: 'n.is_valid' },
  email: { table: 'contact_emails', key: 'address', condition: "n.kind <> 'role'" },
} as const

/**
 * Writes down who holds the keys of the added contacts, as far as more than one contact of the list does, joined contacts
 * left out: numbers first, each kind in order, its holders by their ids. They stay in the database and are read a page at a
 * time: a million may hold one key.
 */
async function findSharedKeys(tx: Db, { listId, added }: Added): Promise<void> {
  const isAdded = 'batchId' in added ? sql`c.batch_id = ${added.batchId}` : sql`c.id in (select a.id from added_ids a)`
  if ('ids' in added) await keepIds(tx, added.ids)
  await tx.execute(sql`
    create temp table shared_keys (at bigint generated always as identity primary key, kind text, key text, id bigint, name text, birth text, company text)
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
      insert into shared_keys (kind, key, id, name, birth, company)
      select ${kind}, key, id, name, birth, company from (
        select held.*, min(id) over by_key <> max(id) over by_key and bool_or(is_added) over by_key as is_shared
        from (
          select distinct h.key, c.id, c.full_name as name, c.birth_date as birth,
            case when c.full_name = '' then c.company else '' end as company, ${isAdded} as is_added
          from (select n.${sql.raw(key)} as key from ${held} group by 1 having min(n.contact_id) <> max(n.contact_id)) s
          join (select n.${sql.raw(key)} as key, n.contact_id from ${held}) h on h.key = s.key
          join contacts c on c.id = h.contact_id
          where c.joined_into is null and ${isShown('c')}) held
        window by_key as (partition by key)) held
      where is_shared order by key, id`)
  }
}

/** The added contacts as a table the planner knows the size of: thousands of ids in an array are looked through one by one. */
async function keepIds(tx: Db, ids: readonly number[]): Promise<void> {
  await tx.execute(sql`drop table if exists added_ids`)
  await tx.execute(sql`create temp table added_ids (id bigint primary key) on commit drop`)
  await tx.execute(sql`insert into added_ids select distinct unnest(${sql.param(ids)}::bigint[])`)
  await tx.execute(sql`analyze added_ids`)
}

/** So many holders are read at a time. */
const HOLDERS = 20_000

const COLUMNS = ['at', 'kind', 'key', 'id', 'name', 'birth', 'company'] as const

/** Shared keys with their holders; one that very many hold comes in pieces. */
async function* sharedKeys(tx: Db): AsyncGenerator<SharedKey> {
  for (let after = 0; ; ) {
    const page = sql`from shared_keys where at > ${after} order by at limit ${HOLDERS}`
    const [at = [], kinds = [], keys = [], ids = [], names = [], births = [], companies = []] = await readColumns(
      tx,
      COLUMNS,
      page,
    )
    const holderAt = (i: number): KeyHolder => ({
      id: Number(ids[i]),
      name: names[i] ?? '',
      birthDate: births[i] ?? '',
      company: companies[i] ?? '',
    })
    for (let from = 0; from < at.length; ) {
      const isSame = (i: number) => keys[i] === keys[from] && kinds[i] === kinds[from]
      const holders = [holderAt(from)]
      while (from + holders.length < at.length && isSame(from + holders.length))
        holders.push(holderAt(from + holders.length))
      yield { kind: kinds[from] as SharedKey['kind'], key: keys[from] ?? '', holders }
      from += holders.length
    }
    if (at.length < HOLDERS) return
    after = Number(at.at(-1))
  }
}
