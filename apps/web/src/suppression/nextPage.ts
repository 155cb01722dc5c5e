import { type ColumnUse, type SuppressionRow, suppressionRow } from '@upper-field/core/pair'
import type { NumberedRow } from '@upper-field/files'

export interface NumberedSuppressionRow extends SuppressionRow {
  readonly row: number
}

export interface SuppressionFilePage {
  readonly rows: readonly NumberedSuppressionRow[]
  /** Rows that could not be read, by their numbers. */
  readonly held: readonly number[]
  readonly isLast: boolean
}

const MOST_ROWS = 5000
/** Of cells that are used. A call takes so many bytes; a letter is up to four. */
const MOST_LETTERS = 2_000_000

/** The next rows of a suppression file that fit into one call. */
export async function nextPage(
  rows: AsyncIterator<NumberedRow, unknown>,
  uses: readonly ColumnUse[],
): Promise<SuppressionFilePage> {
  const page: NumberedSuppressionRow[] = []
  const held: number[] = []
  let letters = 0
  while (page.length < MOST_ROWS && letters < MOST_LETTERS) {
    const next = await rows.next()
    if (next.done) return { rows: page, held, isLast: true }
    const { row, judged } = next.value
    if (judged.status === 'held') held.push(row)
    if (judged.status !== 'read') continue
    const used = suppressionRow(judged.cells, uses)
    page.push({ row, ...used })
    letters += Object.values(used).flat().join('').length
  }
  return { rows: page, held, isLast: false }
}
