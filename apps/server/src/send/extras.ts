import { cellsOfRow } from '@upper-field/core/table'
import type { Settled } from '@upper-field/core/tidy'
import { sql } from 'drizzle-orm'
import { extraHeadings, readySettings } from '../contacts/columnsOf'
import type { Db } from '../db/database'
import { num, readRows, text } from '../db/readRows'
import type { BatchSettings } from '../projection/rowCells'
import { settledOf } from '../projection/tidying'

/** Cells of columns that became no field, by their heading. */
export interface Extras {
  readonly headings: readonly string[]
  of(contactId: number): ReadonlyMap<string, string>
}

export const NO_EXTRAS: Extras = { headings: [], of: () => new Map() }

/** A sheet of a workbook has room for 16,384 columns; those that are fields are among them. */
const MOST = 16_000

/**
 * The extra columns of a list and what they hold for these contacts. Rows joined to a contact fill what its own row
 * leaves blank. The headings are those of the whole list, so that every page of a file has the same.
 */
export async function extrasOf(db: Db, listId: string, contacts: readonly { readonly id: number }[]): Promise<Extras> {
  const settings = await readySettings(db, listId)
  const headings = (await extraHeadings(db, listId, settings)).slice(0, MOST)
  if (headings.length === 0) return NO_EXTRAS
  const ids = contacts.map(({ id }) => id)
  const rows = await readRows(db, { id: num, root: num, batchId: text, text })`
    select c.id, coalesce(c.joined_into, c.id) as root, c.batch_id, r.text
    from contacts c join rows r on r.batch_id = c.batch_id and r.row = c.row
    where c.id = any(${sql.param(ids)}::bigint[]) or c.joined_into = any(${sql.param(ids)}::bigint[])
    order by (c.joined_into is not null), c.id`
  const settled = await settledOf(
    db,
    rows.map(({ id }) => id),
  )
  const known = new Map<number, Map<string, string>>()
  for (const { id, root, batchId, text } of rows) {
    const how = settings.get(batchId)
    const found = known.get(root) ?? new Map<string, string>()
    known.set(root, found)
    if (how) gather(found, how, text, settled.get(id))
  }
  return { headings, of: (id) => known.get(id) ?? new Map() }
}

function gather(
  found: Map<string, string>,
  { layout, tidier }: BatchSettings,
  text: string,
  settled: Settled | undefined,
): void {
  for (const [name, value] of tidier.extrasOf(cellsOfRow(text, layout).cells, settled))
    if (!found.has(name)) found.set(name, value)
}
