import type { ProjectedContact } from '@upper-field/core/tidy'
import { inArray, type SQL } from 'drizzle-orm'
import { isShown } from '../contacts/shown'
import type { Db } from '../db/database'
import { num, readRows, text } from '../db/readRows'
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
  const rows = await readRows(db, { id: num, batchId: text, row: num, text, who: text })`
    select c.id, c.batch_id, c.row, r.text, coalesce(nullif(c.company, ''), c.full_name) as who
    from contacts c join rows r on r.batch_id = c.batch_id and r.row = c.row
    where c.list_id = ${listId} and ${isShown('c')} and ${rest}`
  if (rows.length === 0) return []
  const tidying = await tidyingOf(db, listId)
  const wanted = [...new Set(rows.map(({ batchId }) => batchId))]
  const found: BatchRow[] = await db.select().from(batches).where(inArray(batches.id, wanted))
  const known = new Map(found.map((batch) => [batch.id, { batch, settings: settingsOf(batch, tidying) }]))
  const settled = await settledOf(
    db,
    rows.map(({ id }) => id),
  )
  return rows.flatMap(({ id, batchId, row, text, who }) => {
    const of = known.get(batchId)
    return of ? [{ id, row, who, ...of, tidied: projectStored(text, of.settings, settled.get(id)) }] : []
  })
}
