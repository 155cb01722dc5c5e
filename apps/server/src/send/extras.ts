import { cellsOfRow } from '@upper-field/core/table'
import type { Settled } from '@upper-field/core/tidy'
import { sql } from 'drizzle-orm'
import { extraHeadings, readySettings } from '../contacts/columnsOf'
import type { Db } from '../db/database'
import { inPages } from '../db/inPages'
import { num, readRows, text } from '../db/readRows'
import { ROWS_HELD, standingFor } from '../pair/standsFor'
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
  const own = new Set(ids)
  const { all } = await standingFor(db, ids)
  const joined = all.filter((id) => !own.has(id))
  const known = new Map<number, Map<string, string>>()
  for (const page of [...inPages(ids, ROWS_HELD), ...inPages(joined, ROWS_HELD)])
    for (const { root, how, text, settled } of await readRowsOf(db, page, settings)) {
      const found = known.get(root) ?? new Map<string, string>()
      known.set(root, found)
      gather(found, how, text, settled)
    }
  return { headings, of: (id) => known.get(id) ?? new Map() }
}

interface ExtrasRow {
  /** Who stands for it. */
  readonly root: number
  readonly how: BatchSettings
  readonly text: string
  readonly settled: Settled | undefined
}

/** Rows of contacts as they stood, in order; those of batches that are not shown are left out. */
async function readRowsOf(
  db: Db,
  ids: readonly number[],
  settings: ReadonlyMap<string, BatchSettings>,
): Promise<readonly ExtrasRow[]> {
  const rows = await readRows(db, { id: num, root: num, batchId: text, text })`
    select c.id, coalesce(c.joined_into, c.id) as root, c.batch_id, r.text
    from contacts c join rows r on r.batch_id = c.batch_id and r.row = c.row
    where c.id = any(${sql.param(ids)}::bigint[]) order by c.id`
  const settled = await settledOf(
    db,
    rows.map(({ id }) => id),
  )
  return rows.flatMap(({ id, root, batchId, text }) => {
    const how = settings.get(batchId)
    return how ? [{ root, how, text, settled: settled.get(id) }] : []
  })
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
