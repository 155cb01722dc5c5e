import { suppressibleKeys } from '@upper-field/core/pair'
import { joinScopes, type Scope } from '@upper-field/core/split'
import { sql } from 'drizzle-orm'
import type { Db } from '../db/database'
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
  const { rows } = await db.execute<{ hash: string; scopes: Scope[] }>(sql`
    select e.hash, array_agg(distinct l.scope) as scopes
    from suppression_entries e join suppression_lists l on l.id = e.suppression_list_id
    where e.hash = any(${sql.param([...byHash.keys()])}::text[]) and (e.expires_at is null or e.expires_at > now())
    group by e.hash`)
  if (rows.length === 0) return null
  const scopes = new Map(rows.map(({ hash, scopes }) => [byHash.get(hash) ?? '', joinScopes(scopes)]))
  return (key) => scopes.get(key) ?? NONE
}

export interface Suppression {
  readonly list: string
  readonly scope: Scope
  readonly reason: string
  readonly key: string | null
  readonly addedAt: string
}

/** The entries that say that somebody must not be contacted, oldest first. */
export async function suppressionsOf(db: Db, who: Parameters<typeof suppressibleKeys>[0]): Promise<Suppression[]> {
  const hashes = suppressibleKeys(who).map(sha256Hex)
  const { rows } = await db.execute<{
    name: string
    scope: Scope
    reason: string
    key: string | null
    added_at: string
  }>(sql`
    select l.name, l.scope, e.reason, e.key, e.added_at::text from suppression_entries e
    join suppression_lists l on l.id = e.suppression_list_id
    where e.hash = any(${sql.param(hashes)}::text[]) and (e.expires_at is null or e.expires_at > now()) order by e.added_at`)
  return rows.map(({ name, scope, reason, key, added_at }) => ({
    list: name,
    scope,
    reason,
    key,
    addedAt: new Date(added_at).toISOString(),
  }))
}
