import { AS_THEY_STAND, type HeldReason, splitCells } from '@upper-field/core/table'
import { and, eq, isNull, sql } from 'drizzle-orm'
import { batches, heldRows } from '../db/schema'
import { notFound, Problem } from '../http/problem'
import type { Holding } from '../lists/listLock'
import { type BatchRow, dialectOf } from '../projection/rowCells'
import type { Services } from '../services'
import { addRows, type NewRow } from './addRows'
import { standingHeldRows } from './heldRows'

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

/** Rows that are let in by one transaction: a list is not held for longer than they take. */
const AT_ONCE = 2000

/** Lets all held rows of one reason in, a part at a time; missing cells are blank at the end. @returns how many */
export async function letInAsTheyStand(
  services: Services,
  batch: BatchRow,
  reason: HeldReason,
  waiting: Waiting = {},
): Promise<number> {
  if (!AS_THEY_STAND.includes(reason))
    throw new Problem(422, 'must-be-mended', 'These rows cannot be read as they stand: mend them one by one.')
  const { delimiter } = dialectOf(batch)
  let done = 0
  for (;;) {
    const found = await standingHeldRows(services.db, batch, reason, AT_ONCE)
    const mended = found.map(({ row, text }) => ({ row, cells: ofWidth(splitCells(text, delimiter), batch) }))
    await letIn(services, batch, mended, waiting)
    done += found.length
    if (found.length < AT_ONCE) return done
  }
}

const ofWidth = (cells: readonly string[], { headings }: BatchRow): readonly string[] =>
  headings.map((_, i) => cells[i] ?? '')

async function letIn(services: Services, batch: BatchRow, mended: readonly NewRow[], waiting: Waiting): Promise<void> {
  if (batch.state !== 'ready')
    throw new Problem(409, 'batch-not-ready', 'Rows can be let in once the batch has been read.')
  if (mended.length === 0) return
  await addRows(services, batch, mended, { work: 'let-in', ...waiting }, async (tx) => {
    const { rows: marked } = await tx.execute(sql`
      update held_rows set let_in_at = now() where batch_id = ${batch.id} and let_in_at is null
        and row = any(${sql.param(mended.map(({ row }) => row))}::int[]) returning row`)
    if (marked.length !== mended.length)
      throw new Problem(409, 'let-in-already', 'Somebody else has just let this row in.')
    await tx
      .update(batches)
      .set({ held: sql`${batches.held} - ${mended.length}` })
      .where(eq(batches.id, batch.id))
  })
}
