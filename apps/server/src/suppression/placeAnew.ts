import type { SuppressionKey } from '@upper-field/core/pair'
import { type SQL, sql } from 'drizzle-orm'
import type { PoolClient } from 'pg'
import type { Db } from '../db/database'
import { lockList } from '../lists/lock'
import { countContacts } from '../projection/cube'
import { replaceContacts } from '../projection/refresh'

/** A key of an entry: its hash, and the key itself where it is known. */
export interface EntryKey {
  readonly kind: SuppressionKey['kind']
  readonly hash: string
  readonly key: string | null
}

/** Decides anew where contacts belong that hold one of these keys, in every list. */
export async function placeAnew(tx: Db, client: PoolClient, keys: readonly EntryKey[]): Promise<void> {
  if (keys.length === 0) return
  const { rows } = await tx.execute<{ id: string; list_id: string }>(sql`
    with hit as (${sql.join(holdersOf(keys), sql` union `)})
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

/** Queries of contacts: by the key itself where it is known, since what is known by its hash alone is looked for everywhere. */
function holdersOf(keys: readonly EntryKey[]): SQL[] {
  const known = (kind: EntryKey['kind']) =>
    keys.flatMap((one) => (one.kind === kind && one.key !== null ? one.key : []))
  const [numbers, emails, domains] = [known('number'), known('email'), known('domain')]
  const hashes = keys.flatMap(({ key, hash }) => (key === null ? hash : []))
  return [
    ...(numbers.length > 0
      ? [sql`select contact_id as id from contact_numbers where e164 = any(${sql.param(numbers)}::text[])`]
      : []),
    ...(emails.length > 0
      ? [sql`select contact_id as id from contact_emails where address = any(${sql.param(emails)}::text[])`]
      : []),
    ...(domains.length > 0 ? [atDomains(domains, (text) => text)] : []),
    ...(hashes.length > 0 ? [withHashes(hashes), atDomains(hashes, hashOf)] : []),
  ]
}

const hashOf = (text: SQL): SQL => sql`encode(sha256(convert_to(${text}, 'UTF8')), 'hex')`

function withHashes(hashes: readonly string[]): SQL {
  const wanted = sql`(select unnest(${sql.param(hashes)}::text[]))`
  return sql`select contact_id as id from contact_numbers where ${hashOf(sql`e164`)} in ${wanted}
    union select contact_id from contact_emails where ${hashOf(sql`address`)} in ${wanted}`
}

/** Contacts whose site, or the host of an address of theirs, is one of these domains or stands below it. */
function atDomains(wanted: readonly string[], formOf: (text: SQL) => SQL): SQL {
  const isAt = (host: SQL) => sql`exists (
    select 1 from generate_series(1, array_length(string_to_array(${host}, '.'), 1) - 1) as s (i)
    where ${formOf(sql`array_to_string((string_to_array(${host}, '.'))[s.i:], '.')`)} in (select unnest(${sql.param(wanted)}::text[])))`
  return sql`select contact_id as id from contact_emails where ${isAt(sql`split_part(address, '@', 2)`)}
    union select id from contacts where domain <> '' and ${isAt(sql`domain`)}`
}
