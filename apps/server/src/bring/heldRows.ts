import type { HeldRow } from '@upper-field/contract'
import { csvLine, decoderOf, type HeldReason, harmlessCell, splitCells } from '@upper-field/core/table'
import { BROKEN_ITEM } from '@upper-field/files'
import { and, eq, isNull, type SQL, sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { heldRows } from '../db/schema'
import { type BatchRow, dialectOf } from '../projection/rowCells'

const SHOWN = 500
const LONGEST_SHOWN = 2000

/** A held row, whole. */
type WholeHeldRow = Omit<HeldRow, 'isCut'>

/** The first held rows of a batch, with their text cut to a length that can be looked at. */
export async function heldRowsOf(db: Db, batch: BatchRow): Promise<HeldRow[]> {
  const page = await pageOfHeld(db, batch, 0, SHOWN)
  return page.map(({ cells, ...held }) => ({
    ...held,
    text: held.text.slice(0, LONGEST_SHOWN),
    cells: cells.slice(0, batch.headings.length + 20).map((cell) => cell.slice(0, LONGEST_SHOWN)),
    isCut: cells.slice(0, batch.headings.length).some((cell) => cell.length > LONGEST_SHOWN),
  }))
}

/** A held row as it stands in the file. */
type StandingRow = Pick<HeldRow, 'row' | 'reason' | 'text'>

/** Held rows of one reason, each as it stands in the file, whole; so many at once. */
export const standingHeldRows = (db: Db, batch: BatchRow, reason: HeldReason, limit: number): Promise<StandingRow[]> =>
  readHeld(db, batch, sql`reason = ${reason}`, limit)

/** Held rows behind a row, with the cells that a person would start mending from. */
export async function pageOfHeld(db: Db, batch: BatchRow, after: number, limit: number): Promise<WholeHeldRow[]> {
  const { delimiter } = dialectOf(batch)
  return (await readHeld(db, batch, sql`row > ${after}`, limit)).map((held) => {
    const text = visible(held.text)
    return { ...held, text, cells: likelyCells(text, held.reason, delimiter) }
  })
}

async function readHeld(db: Db, batch: BatchRow, which: SQL, limit: number): Promise<StandingRow[]> {
  const { row, reason, bytes, batchId, letInAt } = heldRows
  const held = await db
    .select({ row, reason, bytes })
    .from(heldRows)
    .where(and(eq(batchId, batch.id), which, isNull(letInAt)))
    .orderBy(row)
    .limit(limit)
  const decode = decoderOf(dialectOf(batch).encoding)
  return held.map(({ row, reason, bytes }) => ({ row, reason, text: decode(bytes) }))
}

/** The cells a person would start mending from: where a quote was never closed it is taken for a letter. */
function likelyCells(text: string, reason: string, delimiter: string): string[] {
  if (reason === 'broken-item') return [splitCells(text, delimiter)[0]?.replace(BROKEN_ITEM, '') ?? '']
  return reason === 'open-quote'
    ? text.split(delimiter).map((cell) => cell.replace(/^"/, ''))
    : splitCells(text, delimiter)
}

/** NUL cannot be shown: its symbol stands for it. */
const visible = (text: string): string => text.replaceAll('\0', '\u2400')

/** All held rows as CSV under the headings of the file, so that they can be mended elsewhere and brought in again. */
export function streamHeldRows(db: Db, batch: BatchRow): ReadableStream<Uint8Array> {
  const encoder = new TextEncoder()
  let after = -1
  return new ReadableStream({
    start: (controller) =>
      controller.enqueue(encoder.encode(csvLine(['Held row', 'Reason', ...batch.headings].map(harmlessCell)))),
    pull: async (controller) => {
      const page = await pageOfHeld(db, batch, after, SHOWN)
      for (const held of page)
        controller.enqueue(encoder.encode(csvLine([String(held.row), held.reason, ...held.cells].map(harmlessCell))))
      const last = page.at(-1)
      if (last) after = last.row
      else controller.close()
    },
  })
}
