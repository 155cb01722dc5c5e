import type { HeldRow } from '@upper-field/contract'
import { csvLine } from '@upper-field/core/table'
import { sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import type { BatchRow } from '../projection/rowCells'

const SHOWN = 500
const LONGEST_SHOWN = 2000

/** The first held rows of a batch, with their text cut to a length that can be looked at. */
export async function heldRowsOf(db: Db, batch: BatchRow): Promise<HeldRow[]> {
  const page = await pageOfHeld(db, batch, 0, SHOWN)
  return page.map((held) => ({ ...held, text: held.text.slice(0, LONGEST_SHOWN) }))
}

async function pageOfHeld(db: Db, batch: BatchRow, after: number, limit: number): Promise<HeldRow[]> {
  const { rows } = await db.execute<{ row: number; reason: string; bytes: Buffer }>(
    sql`select row, reason, bytes from held_rows where batch_id = ${batch.id} and row > ${after} order by row limit ${limit}`,
  )
  const decoder = new TextDecoder(batch.encoding)
  return rows.map(({ row, reason, bytes }) => ({
    row,
    reason: reason as HeldRow['reason'],
    text: visible(decoder.decode(bytes)),
  }))
}

/** NUL cannot be shown: its symbol stands for it. */
const visible = (text: string): string => text.replaceAll('\0', '\u2400')

/** All held rows as CSV: row number, reason, the row as it stood. */
export function streamHeldRows(db: Db, batch: BatchRow): ReadableStream<Uint8Array> {
  const encoder = new TextEncoder()
  let after = -1
  return new ReadableStream({
    start: (controller) => controller.enqueue(encoder.encode(csvLine(['Row', 'Reason', 'As it stood']))),
    pull: async (controller) => {
      const page = await pageOfHeld(db, batch, after, SHOWN)
      for (const held of page) controller.enqueue(encoder.encode(csvLine([String(held.row), held.reason, held.text])))
      const last = page.at(-1)
      if (last) after = last.row
      else controller.close()
    },
  })
}
