import { suppressibleKeys } from '@upper-field/core/pair'
import { sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { sha256Hex } from '../sha256'

/**
 * Tells which of these keys are on a suppression list now; entries that have expired do not count.
 * @param keysOf asked only where there is any entry at all
 * @returns null where none of them is on any list: then nobody need be looked at
 */
export async function suppressionTest(
  db: Db,
  keysOf: () => readonly string[],
): Promise<((key: string) => boolean) | null> {
  const { rows: any } = await db.execute(sql`select 1 from suppression_entries limit 1`)
  if (any.length === 0) return null
  const byHash = new Map([...new Set(keysOf())].map((key) => [sha256Hex(key), key]))
  const { rows } = await db.execute<{ hash: string }>(sql`
    select distinct hash from suppression_entries
    where hash = any(${sql.param([...byHash.keys()])}::text[]) and (expires_at is null or expires_at > now())`)
  if (rows.length === 0) return null
  const suppressed = new Set(rows.flatMap(({ hash }) => byHash.get(hash) ?? []))
  return (key) => suppressed.has(key)
}

export interface Suppression {
  readonly list: string
  readonly reason: string
  readonly key: string | null
  readonly addedAt: string
}

/** The entries that say that somebody must not be contacted, oldest first. */
export async function suppressionsOf(db: Db, who: Parameters<typeof suppressibleKeys>[0]): Promise<Suppression[]> {
  const hashes = suppressibleKeys(who).map(sha256Hex)
  const { rows } = await db.execute<{ name: string; reason: string; key: string | null; added_at: string }>(sql`
    select l.name, e.reason, e.key, e.added_at::text from suppression_entries e
    join suppression_lists l on l.id = e.suppression_list_id
    where e.hash = any(${sql.param(hashes)}::text[]) and (e.expires_at is null or e.expires_at > now()) order by e.added_at`)
  return rows.map(({ name, reason, key, added_at }) => ({
    list: name,
    reason,
    key,
    addedAt: new Date(added_at).toISOString(),
  }))
}
