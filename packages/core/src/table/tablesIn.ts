import type { Field } from './fields'
import { type GridRow, isBlankCell, isBlankRow } from './grid'
import { fieldOfHeading } from './headingWords'

/** Where one of several tables lies in a sheet: rows from 1, columns from 0, both included. */
export interface TableArea {
  readonly top: number
  /** Infinity for a table that goes on to the end of the sheet. */
  readonly bottom: number
  readonly left: number
  readonly right: number
}

const WHO: ReadonlySet<Field> = new Set(['full-name', 'given-name', 'family-name', 'company'])
const REACH: ReadonlySet<Field> = new Set(['number', 'email'])
const SURE = 0.9

/**
 * The tables that stand beside or below each other in the first rows of a sheet; one area over all of it where there
 * is one table. A table is told by headings of its own, for somebody and for a way to reach them.
 */
export function tablesIn(rows: readonly GridRow[]): readonly TableArea[] {
  const filled = rows.filter(({ cells }) => !isBlankRow(cells))
  const width = Math.max(0, ...filled.map(({ cells }) => cells.length))
  const beside = besideEachOther(filled, width)
  return beside.length > 1 ? beside : belowEachOther(filled, width)
}

/** True where cells are the headings of a table of people. */
function isHeadings(cells: readonly string[]): boolean {
  const found = cells.map((cell) => (cell.length < 60 ? fieldOfHeading(cell) : null))
  const fields = found.flatMap((one) => (one && one.confidence >= SURE && one.field !== 'none' ? [one.field] : []))
  return fields.some((field) => WHO.has(field)) && fields.some((field) => REACH.has(field))
}

/** Blank columns part tables where the same row holds headings on each side of them. */
function besideEachOther(filled: readonly GridRow[], width: number): readonly TableArea[] {
  const isGap = Array.from({ length: width }, (_, i) => filled.every(({ cells }) => isBlankCell(cells[i])))
  const spans: { left: number; right: number }[] = []
  for (let i = 0; i < width; i++) {
    if (isGap[i]) continue
    const last = spans.at(-1)
    if (last && last.right === i - 1) last.right = i
    else spans.push({ left: i, right: i })
  }
  const partsOf = ({ cells }: GridRow) => spans.map(({ left, right }) => cells.slice(left, right + 1))
  const headings = filled.slice(0, 20).find((row) => partsOf(row).every(isHeadings))
  if (spans.length < 2 || !headings) return []
  return spans.map(({ left, right }) => ({ top: 1, bottom: Number.POSITIVE_INFINITY, left, right }))
}

/** Other headings behind a blank row begin another table; the same ones again are a repetition. */
function belowEachOther(filled: readonly GridRow[], width: number): readonly TableArea[] {
  const starts: GridRow[] = []
  for (const [i, row] of filled.entries()) {
    if (!isHeadings(row.cells)) continue
    const above = filled[i - 1]
    const isFirst = starts.length === 0
    const isApart = above !== undefined && above.row < row.row - 1
    if (isFirst || (isApart && keyOf(row) !== keyOf(starts.at(-1)) && filled[i + 1] !== undefined)) starts.push(row)
  }
  return starts.map((row, i) => ({
    top: i === 0 ? 1 : row.row,
    bottom: (starts[i + 1]?.row ?? Number.POSITIVE_INFINITY) - 1,
    left: 0,
    right: Math.max(0, width - 1),
  }))
}

const keyOf = (row: GridRow | undefined): string =>
  (row?.cells ?? []).map((cell) => cell.trim().toLowerCase()).join('\u0000')
