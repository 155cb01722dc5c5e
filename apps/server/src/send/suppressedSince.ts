import type { Scope } from '@upper-field/core/split'
import { eq, sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { readIds } from '../db/readRows'
import { editions } from '../db/schema'
import { memberIs } from '../db/spans'
import { idsOfHolders, keysSince } from '../suppression/entryHolders'

/** Which entries keep a file back: a file for people may be used to text, call and write, an audience for ads alone. */
const SCOPES_OF: Readonly<Record<'people' | 'audience', readonly Scope[]>> = {
  people: ['all', 'texts', 'calls', 'post'],
  audience: ['all', 'ads'],
}

export interface MadeAt {
  readonly id: string
  readonly createdAt: Date
  readonly form: string
  readonly audienceId: string | null
}

/**
 * Contacts in a prepared file or edition that are on a suppression list by entries that came after it was begun. A file
 * may not leave then, whatever their marks say by now.
 */
export async function suppressedSince(db: Db, { id, createdAt, form, audienceId }: MadeAt): Promise<readonly number[]> {
  const keys = await keysSince(db, createdAt, SCOPES_OF[form === 'people' ? 'people' : 'audience'])
  if (keys.length === 0) return []
  const isIn =
    audienceId === null
      ? sql`exists (select 1 from edition_members m where m.edition_id = ${id} and ${memberIs(sql`m`, sql`s.id`)})`
      : sql`s.id in (select contact_id from edition_lines where edition_id = ${id})`
  return readIds(db)`
    with hit as (${idsOfHolders(keys)})
    select s.id from (
      select coalesce(c.joined_into, c.id) as id from contacts c join hit on hit.id = c.id union select id from hit) s
    where ${isIn}`
}

/** Whoever said no since an edition was prepared is not in it any more. */
export async function dropSuppressed(tx: Db, editionId: string): Promise<void> {
  const [edition] = await tx.select().from(editions).where(eq(editions.id, editionId)).for('update')
  const ids = edition ? await suppressedSince(tx, edition) : []
  if (!edition || ids.length === 0) return
  const { rowCount } = await tx.execute(
    sql`delete from edition_lines where edition_id = ${editionId} and contact_id = any(${sql.param([...ids])}::bigint[])`,
  )
  const gone = rowCount ?? 0
  await tx
    .update(editions)
    .set({ people: edition.people - gone, leftOut: edition.leftOut + gone })
    .where(eq(editions.id, editionId))
}
