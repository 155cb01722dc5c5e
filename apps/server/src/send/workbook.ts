import { HEADINGS_SHEET, sheetName } from '@upper-field/core/send'
import { eq } from 'drizzle-orm'
import type { Row } from 'write-excel-file/node'
import { transaction } from '../db/database'
import { editionPieces, editions } from '../db/schema'
import { type JobRow, saveJob } from '../jobs/store'
import type { Services } from '../services'
import { piecesOf } from './editionJob'
import type { EditionRow } from './fileText'

/** A workbook is put together in memory: larger ones are refused, and take another kind of file. */
export const MOST_WORKBOOK_ROWS = 200_000

const PIECE = 1_000_000

/**
 * Binds the lines of an edition into a workbook, which takes their place. Every cell is text, so that numbers and postal
 * codes stay what they are and nothing computes; the heading of each sheet stays in sight.
 * That it is bound is noted with it: lines that are a workbook already are not read as lines again.
 */
export async function bindWorkbook({ db, pool }: Services, edition: EditionRow, job: JobRow): Promise<void> {
  const sheets = new Map<string, Row[]>()
  let headings: Row = []
  for await (const piece of piecesOf(db, edition.id))
    for (const line of piece.toString('utf8').split('\n')) {
      if (line === '') continue
      const [sheet = '', ...cells] = JSON.parse(line) as string[]
      if (sheet === HEADINGS_SHEET) headings = cells.map((value) => ({ ...text(value), fontWeight: 'bold' as const }))
      else {
        const name = sheetName(sheet)
        const rows = sheets.get(name) ?? [headings]
        rows.push(cells.map(text))
        sheets.set(name, rows)
      }
    }
  // Few files are workbooks: what writes them is loaded by the first.
  const { default: writeWorkbook } = await import('write-excel-file/node')
  const pages = [...sheets].map(([sheet, data]) => ({ sheet, data, stickyRowsCount: 1 }))
  const bytes = await writeWorkbook(pages.length > 0 ? pages : [{ sheet: sheetName(''), data: [headings] }]).toBuffer()
  await transaction(pool, async (tx) => {
    await tx.delete(editionPieces).where(eq(editionPieces.editionId, edition.id))
    for (let at = 0; at * PIECE < bytes.length; at++)
      await tx
        .insert(editionPieces)
        .values({ editionId: edition.id, position: at, bytes: bytes.subarray(at * PIECE, (at + 1) * PIECE) })
    await tx.update(editions).set({ bytes: bytes.length }).where(eq(editions.id, edition.id))
    await saveJob(tx, job.id, { phase: 'writing', cursor: { ...job.cursor, isBound: true } })
  })
}

/** Text, whatever it looks like; nothing is no cell. */
const text = (value: string) => (value === '' ? null : { value, type: String, format: '@' })
