import { type ExactJoin, joinExact, type KeyHolder, type SharedKey } from '@upper-field/core/pair'
import { sql } from 'drizzle-orm'
import type { PoolClient } from 'pg'
import { copyInto } from '../db/copy'
import type { Db } from '../db/database'
import { refreshContacts, replaceContacts } from '../projection/refresh'
import { pointToSurvivors } from './pointToSurvivors'

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
export async function joinExactDuplicates(tx: Db, client: PoolClient, batch: Added): Promise<number> {
  const keys = [...(await sharedKeys(tx, batch, 'number')), ...(await sharedKeys(tx, batch, 'email'))]
  const apart = await keptApart(tx, batch.listId)
  const joins = joinExact(keys, (a, b) => apart.has(pairOf(a, b)))
  await copyInto(
    client,
    'joins',
    ['list_id', 'survivor_id', 'member_id', 'key_kind', 'key'],
    joins.map((join) => [batch.listId, join.survivor, join.member, join.kind, join.key]),
  )
  await pointToSurvivors(
    tx,
    joins.map(({ survivor }) => survivor),
  )
  const survivors = new Set(joins.map(({ survivor }) => survivor))
  await refreshContacts(tx, client, [...survivors])
  await replaceContacts(
    tx,
    client,
    sharers(keys, joins).filter((id) => !survivors.has(id)),
  )
  return joins.length
}

/** Contacts that stand for themselves and hold a number that another such contact holds too. */
function sharers(keys: readonly SharedKey[], joins: readonly ExactJoin[]): number[] {
  const survivorOf = new Map(joins.map(({ member, survivor }) => [member, survivor]))
  return keys.flatMap(({ kind, holders }) => {
    const standing = new Set(holders.map(({ id }) => survivorOf.get(id) ?? id))
    return kind === 'number' && standing.size > 1 ? [...standing] : []
  })
}

const SHARED = {
  number: { table: 'contact_numbers', key: 'e164', condition: 'n.is_valid' },
  email: { table: 'contact_emails', key: 'address', condition: "n.kind <> 'role'" },
} as const

/** Keys of the added contacts that more than one contact of the list holds, joined contacts left out. */
async function sharedKeys(tx: Db, { listId, added }: Added, kind: 'number' | 'email'): Promise<SharedKey[]> {
  const { table, key, condition } = SHARED[kind]
  const source = sql.raw(table)
  const isAdded =
    'batchId' in added ? sql`c.batch_id = ${added.batchId}` : sql`c.id = any(${sql.param(added.ids)}::bigint[])`
  const { rows } = await tx.execute<{ key: string; ids: string[]; names: string[] }>(sql`
    select n.${sql.raw(key)} as key, array_agg(c.id order by c.id) as ids, array_agg(c.full_name order by c.id) as names
    from ${source} n join contacts c on c.id = n.contact_id
    where n.list_id = ${listId} and ${sql.raw(condition)} and c.joined_into is null
      and exists (select 1 from batches b where b.id = c.batch_id and b.state = 'ready')
    group by 1
    having count(distinct c.id) > 1 and bool_or(${isAdded})
    order by 1`)
  return rows.map((row) => ({ kind, key: row.key, holders: holdersOf(row.ids, row.names) }))
}

function holdersOf(ids: readonly string[], names: readonly string[]): KeyHolder[] {
  const byId = new Map(ids.map((id, i) => [Number(id), names[i] ?? '']))
  return [...byId].map(([id, name]) => ({ id, name }))
}

const pairOf = (a: number, b: number): string => (a < b ? `${a}/${b}` : `${b}/${a}`)

/** Pairs that a person has taken apart: they stay apart. */
async function keptApart(tx: Db, listId: string): Promise<Set<string>> {
  const { rows } = await tx.execute<{ survivor_id: string; member_id: string }>(
    sql`select survivor_id, member_id from joins where list_id = ${listId} and undone_at is not null`,
  )
  return new Set(rows.map((row) => pairOf(Number(row.survivor_id), Number(row.member_id))))
}
