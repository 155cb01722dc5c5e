import { AS_THEY_STAND, type HeldReason, LONGEST_CELL, splitCells, writeRecord } from '@upper-field/core/table'
import { and, eq, isNull, sql } from 'drizzle-orm'
import { indexContacts } from '../contacts/indexJob'
import { batches, heldRows } from '../db/schema'
import { notFound, Problem } from '../http/problem'
import { type Holding, withListLock } from '../lists/listLock'
import { joinExactDuplicates } from '../pair/joinExactDuplicates'
import { countContacts } from '../projection/cube'
import { type BatchRow, dialectOf, settingsOf } from '../projection/rowCells'
import { tidyingOf } from '../projection/tidying'
import type { Services } from '../services'
import { heldRowsOf } from './heldRows'
import { projectRows, storeProjected } from './projectRows'
import type { ReadRow } from './readPiece'

type Waiting = Pick<Holding, 'signal'>

/** Lets one held row in with the cells a person has given it. The row as it stood stays beside it. */
export async function letInMended(
  services: Services,
  batch: BatchRow,
  row: number,
  cells: readonly string[],
  waiting: Waiting = {},
): Promise<void> {
  const [held] = await services.db
    .select({ row: heldRows.row })
    .from(heldRows)
    .where(and(eq(heldRows.batchId, batch.id), eq(heldRows.row, row), isNull(heldRows.letInAt)))
  if (!held) throw notFound('held row')
  if (cells.length !== batch.headings.length)
    throw new Problem(422, 'cells-off', `There must be ${batch.headings.length} cells, one for each column.`)
  if (cells.every((cell) => cell.trim() === ''))
    throw new Problem(422, 'blank-row', 'Every cell is blank: this row would be no contact.')
  await letIn(services, batch, [{ row, cells }], waiting)
}

/** Lets the shown held rows of one reason in; missing cells are blank at the end. @returns how many were let in */
export async function letInAsTheyStand(
  services: Services,
  batch: BatchRow,
  reason: HeldReason,
  waiting: Waiting = {},
): Promise<number> {
  if (!AS_THEY_STAND.includes(reason))
    throw new Problem(422, 'must-be-mended', 'These rows cannot be read as they stand: mend them one by one.')
  const found = (await heldRowsOf(services.db, batch)).filter((one) => one.reason === reason)
  const dialect = dialectOf(batch)
  const width = batch.headings.length
  await letIn(
    services,
    batch,
    found.map(({ row, text }) => {
      const cells = splitCells(text, dialect.delimiter)
      return { row, cells: Array.from({ length: width }, (_, i) => cells[i] ?? '') }
    }),
    waiting,
  )
  return found.length
}

interface MendedCells {
  readonly row: number
  readonly cells: readonly string[]
}

async function letIn(
  services: Services,
  batch: BatchRow,
  mended: readonly MendedCells[],
  waiting: Waiting,
): Promise<void> {
  if (batch.state !== 'ready')
    throw new Problem(409, 'batch-not-ready', 'Rows can be let in once the batch has been read.')
  if (mended.length === 0) return
  const settings = settingsOf(batch, await tidyingOf(services.db, batch.listId))
  const rows = mended.map(({ row, cells }): ReadRow => {
    const plain = cells.map((cell) => cell.replaceAll('\0', '').slice(0, LONGEST_CELL))
    return { row, text: writeRecord(plain, settings.dialect.delimiter), own: settings.tidier.tidy(plain) }
  })
  const projected = await projectRows(services, batch, rows)
  await withListLock(services, batch.listId, { work: 'let-in', ...waiting }, async (tx, client) => {
    const { rows: marked } = await tx.execute(sql`
      update held_rows set let_in_at = now() where batch_id = ${batch.id} and let_in_at is null
        and row = any(${sql.param(rows.map(({ row }) => row))}::int[]) returning row`)
    if (marked.length !== rows.length)
      throw new Problem(409, 'let-in-already', 'Somebody else has just let this row in.')
    await storeProjected(client, batch, projected)
    await indexContacts(tx, { batchId: batch.id, after: projected.firstId - 1 })
    await tx
      .update(batches)
      .set({
        held: sql`${batches.held} - ${rows.length}`,
        withMobile: sql`${batches.withMobile} + ${projected.withMobile}`,
      })
      .where(eq(batches.id, batch.id))
    const ids = rows.map((_, i) => projected.firstId + i)
    await joinExactDuplicates(tx, client, { listId: batch.listId, added: { ids } })
    await countContacts(tx, batch.listId)
  })
}
