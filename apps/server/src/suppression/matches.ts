import { suppressibleKeys } from '@upper-field/core/pair'
import { joinScopes, type Scope } from '@upper-field/core/split'
import { sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { listOf, orNull, readRows, text, when, word } from '../db/readRows'
import { sha256Hex } from '../sha256'

const NONE: readonly Scope[] = []

/**
 * Tells what suppression lists keep each of these keys out of now; entries that have expired do not count.
 * @param keysOf asked only where there is any entry at all
 * @returns null where none of them is on any list: then nobody need be looked at
 */
export async function suppressionScopes(
  db: Db,
  keysOf: () => readonly string[],
): Promise<((key: string) => readonly Scope[]) | null> {
  const { rows: any } = await db.execute(sql`select 1 from suppression_entries limit 1`)
  if (any.length === 0) return null
  const byHash = new Map([...new Set(keysOf())].map((key) => [sha256Hex(key), key]))
  const held = await readRows(db, { hash: text, scopes: listOf(word<Scope>) })`
    select e.hash, array_agg(distinct l.scope) as scopes
    from suppression_entries e join suppression_lists l on l.id = e.suppression_list_id
    where e.hash = any(${sql.param([...byHash.keys()])}::text[]) and (e.expires_at is null or e.expires_at > now())
    group by e.hash`
  if (held.length === 0) return null
  const scopes = new Map(held.map(({ hash, scopes }) => [byHash.get(hash) ?? '', joinScopes(scopes)]))
  return (key) => scopes.get(key) ?? NONE
}

export interface Suppression {
  readonly list: string
  readonly scope: Scope
  readonly reason: string
  readonly key: string | null
  readonly addedAt: string
}

const ENTRY = { list: text, scope: word<Scope>, reason: text, key: orNull(text), addedAt: when }

/** The entries that say that somebody must not be contacted, oldest first. */
export async function suppressionsOf(db: Db, who: Parameters<typeof suppressibleKeys>[0]): Promise<Suppression[]> {
  const hashes = suppressibleKeys(who).map(sha256Hex)
  const entries = await readRows(db, ENTRY)`
    select l.name as list, l.scope, e.reason, e.key, e.added_at from suppression_entries e
    join suppression_lists l on l.id = e.suppression_list_id
    where e.hash = any(${sql.param(hashes)}::text[]) and (e.expires_at is null or e.expires_at > now()) order by e.added_at`
  return entries.map((entry) => ({ ...entry, addedAt: entry.addedAt.toISOString() }))
}
