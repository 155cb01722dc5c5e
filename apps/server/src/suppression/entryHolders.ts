import type { SuppressionKey } from '@upper-field/core/pair'
import { SCOPES, type Scope } from '@upper-field/core/split'
import { type SQL, sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { groupBy } from '../db/groupBy'
import { num, orNull, type RowOf, readRows, text, word } from '../db/readRows'

/** A key of an entry: its hash, and the key itself where it is known. */
export const ENTRY_KEY = { kind: word<SuppressionKey['kind']>, hash: text, key: orNull(text) }
export type EntryKey = RowOf<typeof ENTRY_KEY>

/**
 * Contacts that hold one of these keys, and those they are joined to, by list.
 * @param listId where it is told, those of this list alone
 */
export async function holdersByList(
  tx: Db,
  keys: readonly EntryKey[],
  listId: string | null = null,
): Promise<Map<string, number[]>> {
  if (keys.length === 0) return new Map()
  const holders = await readRows(tx, { id: num, listId: text })`
    with hit as (${idsOfHolders(keys, listId)})
    select distinct c.id, c.list_id from contacts h join hit on hit.id = h.id
    join contacts c on c.id in (h.id, h.joined_into) order by c.id`
  const byList = groupBy(holders, ({ listId }) => listId)
  return new Map([...byList].map(([listId, found]) => [listId, found.map(({ id }) => id)]))
}

/** Entries that came since a moment and have not expired; only those of lists of these scopes, where some are given. */
export async function keysSince(tx: Db, since: Date, scopes: readonly Scope[] = SCOPES): Promise<EntryKey[]> {
  return readRows(tx, ENTRY_KEY)`
    select distinct e.kind, e.hash, e.key
    from suppression_entries e join suppression_lists l on l.id = e.suppression_list_id
    where e.added_at >= ${since.toISOString()} and (e.expires_at is null or e.expires_at > now())
      and l.scope = any(${sql.param([...scopes])}::text[])`
}

/**
 * A query of ids: by the key itself where it is known, since what is known by its hash alone is looked for everywhere.
 * @param listId where it is told, contacts of this list alone
 */
export function idsOfHolders(keys: readonly EntryKey[], listId: string | null = null): SQL {
  const within = listId === null ? sql`` : sql`and list_id = ${listId}`
  const known = (kind: EntryKey['kind']) =>
    keys.flatMap((one) => (one.kind === kind && one.key !== null ? one.key : []))
  const [numbers, emails, domains] = [known('number'), known('email'), known('domain')]
  const hashes = keys.flatMap(({ key, hash }) => (key === null ? hash : []))
  const parts = [
    ...(numbers.length > 0
      ? [sql`select contact_id as id from contact_numbers where e164 = any(${sql.param(numbers)}::text[]) ${within}`]
      : []),
    ...(emails.length > 0
      ? [sql`select contact_id as id from contact_emails where address = any(${sql.param(emails)}::text[]) ${within}`]
      : []),
    ...(domains.length > 0 ? [atDomains(domains, (text) => text, within)] : []),
    ...(hashes.length > 0 ? [withHashes(hashes, within), atDomains(hashes, hashOf, within)] : []),
  ]
  return sql.join(parts, sql` union `)
}

const hashOf = (text: SQL): SQL => sql`encode(sha256(convert_to(${text}, 'UTF8')), 'hex')`

function withHashes(hashes: readonly string[], within: SQL): SQL {
  const wanted = sql`(select unnest(${sql.param(hashes)}::text[]))`
  return sql`select contact_id as id from contact_numbers where ${hashOf(sql`e164`)} in ${wanted} ${within}
    union select contact_id from contact_emails where ${hashOf(sql`address`)} in ${wanted} ${within}`
}

/** Contacts whose site, or the host of an address of theirs, is one of these domains or stands below it. */
function atDomains(wanted: readonly string[], formOf: (text: SQL) => SQL, within: SQL): SQL {
  const isAt = (host: SQL) => sql`exists (
    select 1 from generate_series(1, array_length(string_to_array(${host}, '.'), 1) - 1) as s (i)
    where ${formOf(sql`array_to_string((string_to_array(${host}, '.'))[s.i:], '.')`)} in (select unnest(${sql.param(wanted)}::text[])))`
  // Few hosts stand in many contacts: each is looked at once. Without the offset it would be looked at for each again.
  const among = (hosts: SQL) => sql`(select host from (${hosts} offset 0) hosts where ${isAt(sql`host`)})`
  const host = sql`split_part(address, '@', 2)`
  return sql`select contact_id as id from contact_emails
      where ${host} in ${among(sql`select distinct ${host} as host from contact_emails where true ${within}`)} ${within}
    union select id from contacts
      where domain in ${among(sql`select distinct domain as host from contacts where domain <> '' ${within}`)} ${within}`
}
