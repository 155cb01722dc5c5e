import type { Scope } from '@upper-field/core/split'
import { sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { idsOfHolders, keysSince } from '../suppression/entryHolders'

/** Which entries keep a file back: a file for people may be used to text, call and write, an audience for ads alone. */
const SCOPES_OF: Readonly<Record<'people' | 'audience', readonly Scope[]>> = {
  people: ['all', 'texts', 'calls', 'post'],
  audience: ['all', 'ads'],
}

/**
 * How many people in a prepared file are on a suppression list by entries that came after it was begun. The file may
 * not leave then, whatever their marks say by now.
 */
export async function suppressedSince(
  db: Db,
  { id, createdAt, form }: { readonly id: string; readonly createdAt: Date; readonly form: string },
): Promise<number> {
  const keys = await keysSince(db, createdAt, SCOPES_OF[form === 'people' ? 'people' : 'audience'])
  if (keys.length === 0) return 0
  const { rows } = await db.execute<{ n: string }>(sql`
    with hit as (${idsOfHolders(keys)})
    select count(distinct m.contact_id) as n from edition_members m
    where m.edition_id = ${id} and m.contact_id in (
      select coalesce(c.joined_into, c.id) from contacts c join hit on hit.id = c.id union select id from hit)`)
  return Number(rows[0]?.n ?? 0)
}
