import type { ProjectedContact } from '@upper-field/core/tidy'
import { inArray, type SQL, sql } from 'drizzle-orm'
import { isShown } from '../contacts/shown'
import type { Db } from '../db/database'
import { batches } from '../db/schema'
import { type BatchRow, type BatchSettings, projectStored, settingsOf } from '../projection/rowCells'
import { settledOf, tidyingOf } from '../projection/tidying'

export interface TidiedContact {
  readonly id: number
  readonly row: number
  readonly batch: BatchRow
  readonly settings: BatchSettings
  readonly tidied: ProjectedContact
  /** Name, else company, for people to know the contact by. */
  readonly who: string
}

/** Contacts of a list's shown batches, tidied again from their rows. `rest` goes on behind `where …`. */
export async function tidiedContacts(db: Db, listId: string, rest: SQL): Promise<readonly TidiedContact[]> {
  const { rows } = await db.execute<{ id: string; batch_id: string; row: number; text: string; who: string }>(sql`
    select c.id, c.batch_id, c.row, r.text, coalesce(nullif(c.company, ''), c.full_name) as who
    from contacts c join rows r on r.batch_id = c.batch_id and r.row = c.row
    where c.list_id = ${listId} and ${isShown('c')} and ${rest}`)
  if (rows.length === 0) return []
  const tidying = await tidyingOf(db, listId)
  const wanted = [...new Set(rows.map((row) => row.batch_id))]
  const found: BatchRow[] = await db.select().from(batches).where(inArray(batches.id, wanted))
  const known = new Map(found.map((batch) => [batch.id, { batch, settings: settingsOf(batch, tidying) }]))
  const settled = await settledOf(
    db,
    rows.map(({ id }) => Number(id)),
  )
  return rows.flatMap((row) => {
    const of = known.get(row.batch_id)
    const id = Number(row.id)
    if (!of) return []
    return [{ id, row: row.row, who: row.who, ...of, tidied: projectStored(row.text, of.settings, settled.get(id)) }]
  })
}
