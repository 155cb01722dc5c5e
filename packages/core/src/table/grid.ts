/** One row of a sheet or text, as cells. */
export interface GridRow {
  /** As a spreadsheet or editor numbers it, from 1. */
  readonly row: number
  readonly cells: readonly string[]
}

/** A row of a workbook, which may be hidden there. */
export interface SheetRow extends GridRow {
  readonly isHidden: boolean
}

/** Cells that a workbook shows as one. Rows count from 1, columns from 0; both ends belong to it. */
export interface Merge {
  readonly top: number
  readonly left: number
  readonly bottom: number
  readonly right: number
}

/** How the value of a merged area counts: for every cell it covers, or for the first alone. */
export const MERGED = ['every', 'first'] as const
export type Merged = (typeof MERGED)[number]

export const isBlankCell = (cell: string | undefined): boolean => cell === undefined || cell.trim() === ''
export const isBlankRow = (cells: readonly string[]): boolean => cells.every(isBlankCell)
