import type { FileLayout } from '@upper-field/contract'
import { FILE_COLUMNS, type FileColumn } from '@upper-field/core/send'

/** All columns there are, in their usual order. */
export const ALL_COLUMNS = Object.keys(FILE_COLUMNS) as readonly FileColumn[]

/** A layout with a column more at its end, or without one that it had. */
export function toggleColumn(layout: FileLayout, column: FileColumn): FileLayout {
  const has = layout.columns.some((one) => one.column === column)
  const columns = has
    ? layout.columns.filter((one) => one.column !== column)
    : [...layout.columns, { column, heading: FILE_COLUMNS[column] }]
  return columns.length === 0 ? layout : { ...layout, columns }
}

/** What is wrong with the headings of a layout; null where nothing is. */
export function mistakeIn({ columns, kind }: FileLayout): string | null {
  if (kind === 'vcard') return null
  if (columns.some(({ heading }) => heading.trim() === '')) return 'Every column has a heading.'
  const headings = columns.map(({ heading }) => heading.trim().toLowerCase())
  const twice = headings.find((heading, at) => headings.indexOf(heading) !== at)
  if (twice !== undefined) return `Two columns are headed “${twice}”.`
  const formula = columns.find(({ heading }) => /^[=+\-@]/.test(heading.trim()))
  return formula ? `“${formula.heading}” begins as a formula does.` : null
}
