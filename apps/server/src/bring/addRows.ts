import { LONGEST_CELL, writeRecord } from '@upper-field/core/table'
import { eq, sql } from 'drizzle-orm'
import { addWords } from '../contacts/words'
import type { Db } from '../db/database'
import { batches } from '../db/schema'
import { type Holding, withListLock } from '../lists/listLock'
import { joinExactDuplicates } from '../pair/joinExactDuplicates'
import { loadCopies } from '../projection/copyLines'
import { countContacts } from '../projection/cube'
import { type BatchRow, settingsOf } from '../projection/rowCells'
import { tidyingOf } from '../projection/tidying'
import type { Services } from '../services'
import { projectRows, takeContactIds } from './projectRows'
import type { ReadRow } from './readPiece'

/** A row that comes to a batch after its file: a cell for each column. */
export interface NewRow {
  readonly row: number
  readonly cells: readonly string[]
}

/**
 * Makes contacts of rows that come to a batch that is shown already: by the list's routine, with exact duplicates joined
 * and everything that is known of their numbers.
 * @param also done in the same transaction, with the ids of the contacts in the order of the rows
 * @returns those ids
 */
export async function addRows(
  services: Services,
  batch: BatchRow,
  added: readonly NewRow[],
  holding: Holding,
  also: (tx: Db, ids: readonly number[]) => Promise<void>,
): Promise<readonly number[]> {
  const settings = settingsOf(batch, await tidyingOf(services.db, batch.listId))
  const rows = added.map(({ row, cells }): ReadRow => {
    const plain = cells.map((cell) => cell.replaceAll('\0', '').slice(0, LONGEST_CELL))
    return { row, text: writeRecord(plain, settings.dialect.delimiter), own: settings.tidier.tidy(plain) }
  })
  const firstId = await takeContactIds(services.pool, rows.length)
  const projected = await projectRows(services.db, batch, rows, firstId)
  const ids = rows.map((_, i) => firstId + i)
  await withListLock(services, batch.listId, holding, async (tx, client) => {
    await also(tx, ids)
    await loadCopies(client, projected.copies)
    await addWords(tx, { listId: batch.listId, batchId: batch.id, after: firstId - 1 })
    await tx
      .update(batches)
      .set({ withMobile: sql`${batches.withMobile} + ${projected.withMobile}` })
      .where(eq(batches.id, batch.id))
    await joinExactDuplicates(tx, client, { listId: batch.listId, added: { ids } })
    await countContacts(tx, batch.listId)
  })
  return ids
}
