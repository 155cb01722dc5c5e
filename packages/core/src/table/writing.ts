/** Quotes a cell where CSV (RFC 4180) asks for it. */
export function csvCell(value: string): string {
  return /[",\r\n]/.test(value) || value !== value.trim() ? `"${value.replaceAll('"', '""')}"` : value
}

export const csvLine = (cells: readonly string[]): string => `${cells.map(csvCell).join(',')}\r\n`

/** One record as `splitCells` reads it, without a line end. */
export const writeRecord = (cells: readonly string[], delimiter: string): string =>
  cells
    .map((cell) => (cell.includes(delimiter) || /["\r\n]/.test(cell) ? `"${cell.replaceAll('"', '""')}"` : cell))
    .join(delimiter)

/**
 * A cell for a file that people open: text that a spreadsheet would take for a formula gets an apostrophe in front.
 * A telephone number from its code on is left alone: digits with single spaces between compute nothing.
 * Source: OWASP, CSV injection.
 */
export function harmlessCell(value: string): string {
  if (/^\+\d(?: ?\d){4,14}$/.test(value)) return value
  return /^[\s\u00a0]*[=+\-@\t\r\uff1d\uff0b\uff0d\uff20]/.test(value) ? `'${value}` : value
}
