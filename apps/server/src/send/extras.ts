import { splitCells } from '@upper-field/core/table'
import { eq, sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { batches } from '../db/schema'
import { type BatchRow, settingsOf } from '../projection/rowCells'

/** Cells of columns that became no field, by their heading. */
export interface Extras {
  readonly headings: readonly string[]
  of(contactId: number): ReadonlyMap<string, string>
}

export const NO_EXTRAS: Extras = { headings: [], of: () => new Map() }

/** More columns than this nobody wants in a file; the rows keep them. */
const MOST = 200

/**
 * The extra columns of a list and what they hold for these contacts. Rows joined to a contact fill what its own row
 * leaves blank. The headings are those of the whole list, so that every page of a file has the same.
 */
export async function extrasOf(db: Db, listId: string, contacts: readonly { readonly id: number }[]): Promise<Extras> {
  const all = await db.select().from(batches).where(eq(batches.listId, listId)).orderBy(batches.createdAt)
  const ready = new Map(all.filter(({ state }) => state === 'ready').map((batch) => [batch.id, batch]))
  const headings = [...new Set([...ready.values()].flatMap(extraHeadings))].slice(0, MOST)
  if (headings.length === 0) return NO_EXTRAS
  const ids = contacts.map(({ id }) => id)
  const { rows } = await db.execute<{ root: string; batch_id: string; text: string }>(sql`
    select coalesce(c.joined_into, c.id) as root, c.batch_id, r.text
    from contacts c join rows r on r.batch_id = c.batch_id and r.row = c.row
    where c.id = any(${sql.param(ids)}::bigint[]) or c.joined_into = any(${sql.param(ids)}::bigint[])
    order by (c.joined_into is not null), c.id`)
  const known = new Map<number, Map<string, string>>()
  for (const { root, batch_id: batchId, text } of rows) {
    const batch = ready.get(batchId)
    const found = known.get(Number(root)) ?? new Map<string, string>()
    known.set(Number(root), found)
    if (batch) gather(found, batch, text)
  }
  return { headings, of: (id) => known.get(id) ?? new Map() }
}

const extraHeadings = ({ headings, mapping }: BatchRow): string[] =>
  headings.filter((heading, i) => heading !== '' && !mapping[i])

function gather(found: Map<string, string>, batch: BatchRow, text: string): void {
  const cells = splitCells(text, settingsOf(batch).dialect.delimiter)
  batch.headings.forEach((heading, i) => {
    const cell = cells[i]?.trim()
    if (heading !== '' && !batch.mapping[i] && cell && !found.has(heading)) found.set(heading, cell)
  })
}
