import type { SuppressionAdded } from '@upper-field/contract'
import { type SuppressionKey, suppressionKey } from '@upper-field/core/pair'
import { sql } from 'drizzle-orm'
import type { PoolClient } from 'pg'
import type { Db } from '../db/database'
import { lockList } from '../lists/lock'
import { countContacts } from '../projection/cube'
import { replaceContacts } from '../projection/refresh'
import { sha256Hex } from '../sha256'

const MOST_UNREAD_SHOWN = 50

export interface NewEntries {
  readonly suppressionListId: string
  readonly text: string
  readonly country: string | null
  readonly reason: string
  readonly asHashes: boolean
  readonly expiresAt: string | null
  readonly who: string
}

/** Adds the keys of a text, a line each, and marks whoever they are in every list. Lines that hold no key are told. */
export async function addEntries(tx: Db, client: PoolClient, entries: NewEntries): Promise<SuppressionAdded> {
  const lines = entries.text.split(/\r\n|\r|\n/).map((text, i) => ({ line: i + 1, text: text.trim() }))
  const filled = lines.filter(({ text }) => text !== '')
  const read = filled.map((line) => ({ ...line, key: suppressionKey(line.text, entries.country) }))
  const unread = read.filter(({ key }) => key === null)
  const keys = read.flatMap(({ key }) => key ?? [])
  const { added, marked } = await addKeys(tx, client, entries, keys)
  return {
    added,
    known: keys.length - added,
    unread: unread.slice(0, MOST_UNREAD_SHOWN).map(({ line, text }) => ({ line, text: text.slice(0, 80) })),
    unreadTotal: unread.length,
    marked,
  }
}

type Facts = Pick<NewEntries, 'suppressionListId' | 'reason' | 'asHashes' | 'expiresAt' | 'who'>

/** @returns how many keys were new to the list, and how many contacts they marked */
export async function addKeys(
  tx: Db,
  client: PoolClient,
  { suppressionListId, reason, asHashes, expiresAt, who }: Facts,
  keys: readonly SuppressionKey[],
): Promise<{ added: number; marked: number }> {
  const rows = keys.map(({ kind, key }) => ({
    kind,
    hash: kind === 'hash' ? key : sha256Hex(key),
    key: asHashes || kind === 'hash' ? null : key,
  }))
  const { rows: stored } = await tx.execute<{ hash: string }>(sql`
    insert into suppression_entries (suppression_list_id, kind, hash, key, reason, added_by, expires_at)
    select ${suppressionListId}::uuid, e.kind, e.hash, e.key, ${reason}, ${who}, ${expiresAt}::timestamptz
    from unnest(${sql.param(rows.map(({ kind }) => kind))}::text[], ${sql.param(rows.map(({ hash }) => hash))}::text[],
      ${sql.param(rows.map(({ key }) => key))}::text[]) as e (kind, hash, key)
    on conflict (suppression_list_id, hash) do nothing returning hash`)
  const before = await countMarked(tx)
  await placeAnew(
    tx,
    client,
    stored.map(({ hash }) => hash),
  )
  return { added: stored.length, marked: (await countMarked(tx)) - before }
}

async function countMarked(tx: Db): Promise<number> {
  const { rows } = await tx.execute<{ n: string }>(
    sql`select count(*) as n from contacts where lane_reason = 'suppressed' and joined_into is null`,
  )
  return Number(rows[0]?.n ?? 0)
}

/** Decides anew where contacts belong that hold a key with one of these hashes, in every list. */
export async function placeAnew(tx: Db, client: PoolClient, hashes: readonly string[]): Promise<void> {
  if (hashes.length === 0) return
  const { rows } = await tx.execute<{ id: string; list_id: string }>(sql`
    with wanted as materialized (select unnest(${sql.param(hashes)}::text[]) as hash), hit as (
      select n.contact_id as id from contact_numbers n where encode(sha256(n.e164::bytea), 'hex') in (select hash from wanted)
      union
      select e.contact_id from contact_emails e
      where encode(sha256(convert_to(e.address, 'UTF8')), 'hex') in (select hash from wanted)
        or ${domainHit(sql`split_part(e.address, '@', 2)`)}
      union
      select c.id from contacts c where c.domain <> '' and ${domainHit(sql`c.domain`)})
    select distinct c.id, c.list_id from contacts h join hit on hit.id = h.id
    join contacts c on c.id in (h.id, h.joined_into) order by c.id`)
  const listIds = [...new Set(rows.map((row) => row.list_id))].sort()
  for (const listId of listIds) await lockList(tx, listId)
  await replaceContacts(
    tx,
    client,
    rows.map(({ id }) => Number(id)),
  )
  for (const listId of listIds) await countContacts(tx, listId)
}

/** A domain, or one above it, is wanted. */
const domainHit = (domain: ReturnType<typeof sql>) => sql`exists (
  select 1 from generate_series(1, array_length(string_to_array(${domain}, '.'), 1) - 1) as s (i)
  where encode(sha256(convert_to(array_to_string((string_to_array(${domain}, '.'))[s.i:], '.'), 'UTF8')), 'hex') in (select hash from wanted))`
