import { splitCells } from './cells'
import { LONGEST_CELL } from './scanRecords'

/** What had to be done to read a row: the row counts, and it is told how many there were. */
export const ROW_MENDS = ['short', 'other-delimiter', 'quoted-whole', 'padding', 'cut'] as const
export type RowMend = (typeof ROW_MENDS)[number]

/** How the rows of a table are cut into cells. */
export interface RowLayout {
  readonly delimiter: string
  readonly columns: number
  /** True where cells know their columns: nothing is cut in another way there. */
  readonly isSheet: boolean
}

const OTHERS = [',', ';', '\t', '|']
/** Below so many columns a row cut otherwise cannot be told from one that holds such a sign. */
const LEAST_COLUMNS = 3

/**
 * The cells of a row, however it was cut: by the table's delimiter, by another one that cuts it just so, or within one
 * pair of quotes around all of it. A stored row is cut the same way whenever it is read again.
 */
export function cellsOfRow(
  text: string,
  { delimiter, columns, isSheet }: RowLayout,
): { readonly cells: readonly string[]; readonly mend: 'other-delimiter' | 'quoted-whole' | null } {
  const cells = splitCells(text, delimiter)
  if (isSheet || cells.length !== 1 || columns < LEAST_COLUMNS) return { cells, mend: null }
  const inner = splitCells(cells[0] ?? '', delimiter)
  if (inner.length === columns) return { cells: inner, mend: 'quoted-whole' }
  for (const other of OTHERS) {
    if (other === delimiter) continue
    const cut = splitCells(text, other)
    if (cut.length === columns) return { cells: cut, mend: 'other-delimiter' }
  }
  return { cells, mend: null }
}

/** A row's text without NUL, which is padding and nothing else. */
export const withoutPadding = (text: string): string => (text.includes('\0') ? text.replaceAll('\0', '') : text)

/** Cells no longer than is taken as a value. */
export const cutCells = (cells: readonly string[]): readonly string[] =>
  cells.some((cell) => cell.length > LONGEST_CELL) ? cells.map((cell) => cell.slice(0, LONGEST_CELL)) : cells
