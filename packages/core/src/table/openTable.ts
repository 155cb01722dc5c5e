import { splitCells } from './cells'
import { type Dialect, type FileProblem, judgeHead } from './dialect'
import { fieldOfHeading } from './headingWords'
import { scanRecords } from './scanRecords'
import { type ColumnFacts, describeColumn, type FieldSuggestion, suggestFields } from './suggestFields'

export interface OpenedTable {
  readonly status: 'opened'
  readonly dialect: Dialect
  readonly hasHeadings: boolean
  readonly headings: readonly string[]
  readonly columns: readonly ColumnFacts[]
  readonly suggestions: readonly FieldSuggestion[]
  /** The first data rows of the head, as cells. */
  readonly firstRows: readonly (readonly string[])[]
}

export type OpenedHead = OpenedTable | { readonly status: 'refused'; readonly problem: FileProblem }

const SAMPLE = 300

/**
 * Opens the head of a file: dialect, headings, what each column holds and which field it suggests.
 * @param head the first bytes of the file
 * @param options.isWhole true where the head is the whole file
 * @param options.dialect parts of the dialect that the operator has set
 */
export function openTable(
  head: Uint8Array,
  {
    isWhole,
    country = null,
    dialect: wanted = {},
  }: { isWhole: boolean; country?: string | null; dialect?: Partial<Dialect> },
): OpenedHead {
  const judged = judgeHead(head, wanted)
  if (judged.status === 'refused') return judged
  const { dialect } = judged
  const body = head.subarray(dialect.bom)
  const { records } = scanRecords(body, { delimiter: dialect.delimiter, isLast: isWhole, limit: SAMPLE })
  const decoder = new TextDecoder(dialect.encoding)
  const rows = records
    .map(({ start, end }) => splitCells(decoder.decode(body.subarray(start, end)), dialect.delimiter))
    .filter((cells) => cells.some((cell) => cell.trim() !== ''))
  const first = rows[0]
  if (!first) return { status: 'refused', problem: 'no-table' }
  const hasHeadings = looksLikeHeadings(first)
  const firstRows = hasHeadings ? rows.slice(1) : rows
  const headings = first.map((cell, i) => (hasHeadings && cell.trim() ? cell.trim() : `Column ${i + 1}`))
  const columns = headings.map((heading, i) =>
    describeColumn(
      heading,
      firstRows.map((row) => row[i] ?? ''),
      country,
    ),
  )
  return { status: 'opened', dialect, hasHeadings, headings, columns, suggestions: suggestFields(columns), firstRows }
}

/** Headings name things: at least one known word, or no digits and no at-sign in any cell. */
export function looksLikeHeadings(cells: readonly string[]): boolean {
  const filled = cells.filter((cell) => cell.trim() !== '')
  if (filled.length === 0) return false
  if (filled.some((cell) => /@[^\s]+\./.test(cell) || cell.replace(/\D/g, '').length > 5)) return false
  return filled.some((cell) => fieldOfHeading(cell) !== null) || filled.every((cell) => !/\d/.test(cell))
}
