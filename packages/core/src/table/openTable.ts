import { percentDecoded } from '../percent'
import { type ColumnFacts, describeColumn } from './columnFacts'
import { type FoundTable, findTable, type TableShape, type WantedHeadings } from './findTable'
import { type GridRow, isBlankCell, isBlankRow, type Merge, type SheetRow } from './grid'
import { fieldOfHeading } from './headingWords'
import { type CountryInference, inferCountry } from './inferCountry'
import { type Note, notes } from './notes'
import { learnPublicHosts } from './publicHosts'
import type { FileProblem } from './recognise'
import { type FieldSuggestion, suggestFields } from './suggestFields'
import { DEFAULT_ROW_WISHES, type RowWishes, rowTaker } from './takeRows'

/** Most columns a table may have. */
export const MOST_COLUMNS = 2000
/** Rows that the columns are judged by. */
const SAMPLE = 300

/** The first rows of a sheet or text. */
export interface TableHead {
  readonly rows: readonly SheetRow[]
  readonly merges?: readonly Merge[]
  /** Columns hidden in the sheet: positions from 0. */
  readonly hiddenColumns?: readonly number[]
  /** Names of the columns, where the container gives them and no row does. */
  readonly headings?: readonly string[] | null
  /** True where every row stands in its columns, so that a long row widens the table instead of being held. */
  readonly isSheet: boolean
}

export interface OpenedTable {
  readonly status: 'opened'
  readonly shape: TableShape
  readonly headings: readonly string[]
  readonly columns: readonly ColumnFacts[]
  readonly suggestions: readonly FieldSuggestion[]
  /** Rows of the head that can be contacts. */
  readonly firstRows: readonly GridRow[]
  readonly above: readonly GridRow[]
  /** The country its numbers are dialled from, as far as the table tells; its columns are judged under it. */
  readonly country: CountryInference
  /** Mail hosts that serve people of many companies, as far as the head tells. */
  readonly publicHosts: readonly string[]
  readonly notes: readonly Note[]
}

export type OpenedHead = OpenedTable | { readonly status: 'refused'; readonly problem: FileProblem }

export interface TableWishes extends Partial<RowWishes> {
  /** Where its numbers are dialled from; null for nowhere in particular. Inferred where nothing is said. */
  readonly country?: string | null
  readonly headings?: WantedHeadings
}

/** Opens the head of a table: where it lies, what its headings are, what each column holds and suggests. */
export function openTable(
  head: TableHead,
  {
    country: wantedCountry,
    headings: wanted,
    merged = DEFAULT_ROW_WISHES.merged,
    takesHidden = DEFAULT_ROW_WISHES.takesHidden,
  }: TableWishes = {},
): OpenedHead {
  const width = head.headings?.length ?? widthOf(head)
  if (width === 0) return { status: 'refused', problem: 'no-table' }
  if (width > MOST_COLUMNS) return { status: 'refused', problem: 'too-many-columns' }
  const merges = head.merges ?? []
  const hidden = takesHidden ? [] : (head.hiddenColumns ?? [])
  const visible = head.rows.filter(({ isHidden }) => takesHidden || !isHidden).map((row) => withoutColumns(row, hidden))
  const found: FoundTable = head.headings
    ? { shape: { headings: null, firstRow: 1 }, headings: head.headings, above: [], notes: [] }
    : findTable(visible, width, { merges, ...(wanted === undefined ? {} : { wanted }) })
  const take = rowTaker(merges, { merged, takesHidden }, hidden)
  const firstRows = head.rows.flatMap((row) => take(row) ?? []).filter(({ row }) => row >= found.shape.firstRow)
  const sample = firstRows.slice(0, SAMPLE)
  const cellsOf = (i: number) => sample.map(({ cells }) => plainly(cells[i] ?? ''))
  const country = inferCountry(found.headings.map((heading, i) => ({ heading, cells: cellsOf(i) })))
  const dialledFrom = wantedCountry === undefined ? country.suggested : wantedCountry
  const columns = found.headings.map((heading, i) => describeColumn(heading, cellsOf(i), dialledFrom))
  const suggestions = suggestFields(columns)
  return {
    status: 'opened',
    shape: found.shape,
    headings: found.headings,
    columns,
    suggestions,
    firstRows,
    above: found.above,
    country,
    publicHosts: learnPublicHosts(
      columns.map((_, i) => cellsOf(i)),
      suggestions.map(({ field }) => field),
    ),
    notes: [...found.notes, ...columnNotes(found, columns)],
  }
}

/** Letters and digits of the full width of an East Asian sign. */
const FULL_WIDTH = /[\uff01-\uff5e\u3000]/

/** A cell as it is judged: however it is written, its kind is the same. The cell itself stays. */
function plainly(cell: string): string {
  const decoded = percentDecoded(cell.trim()) ?? cell
  return FULL_WIDTH.test(decoded) ? decoded.normalize('NFKC') : decoded
}

function withoutColumns(row: SheetRow, columns: readonly number[]): SheetRow {
  if (columns.length === 0) return row
  return { ...row, cells: row.cells.map((cell, i) => (columns.includes(i) ? '' : cell)) }
}

/** A column that has neither heading nor value in the head is left out of sight; its cells stay in the row. */
export const isLeftOut = (facts: Pick<ColumnFacts, 'heading' | 'blank'>): boolean =>
  facts.heading === '' && facts.blank === 1

/** How many columns the table has: a sheet's own extent, a text's usual number of cells. */
function widthOf({ rows, isSheet }: TableHead): number {
  const extents = rows.map(({ cells }) => lastFilled(cells)).filter((extent) => extent > 0)
  const widest = Math.max(0, ...extents)
  if (isSheet || rows.length < 3) return widest
  const counts = new Map<number, number>()
  for (const { cells } of rows) if (!isBlankRow(cells)) counts.set(cells.length, (counts.get(cells.length) ?? 0) + 1)
  const [usual = [widest, 0]] = [...counts].sort((a, b) => b[1] - a[1] || b[0] - a[0])
  // Plain headings say how many columns there are, even where most rows are cut short.
  const named = rows.slice(0, 20).find(({ cells }) => cells.length > usual[0] && isPlainHeadings(cells))
  return named?.cells.length ?? usual[0]
}

function isPlainHeadings(cells: readonly string[]): boolean {
  const known = cells.filter((cell) => cell.length < 60 && (fieldOfHeading(cell)?.confidence ?? 0) > 0.9).length
  return known > 1 && known >= cells.length / 2
}

function lastFilled(cells: readonly string[]): number {
  let last = cells.length
  while (last > 0 && isBlankCell(cells[last - 1])) last--
  return last
}

function columnNotes(found: FoundTable, columns: readonly ColumnFacts[]): Note[] {
  const empty = columns.flatMap((facts, i) => (isLeftOut(facts) ? [columnName(i)] : []))
  const cells = (damage: string) =>
    columns.reduce((sum, { damages }) => sum + (damages.find((one) => one.damage === damage)?.cells ?? 0), 0)
  const unclear = columns.filter((facts) => facts.kinds.date > 0.5 && facts.samples.every(isAmbiguousDate))
  return [
    ...(empty.length > 0 && found.headings.length > empty.length ? [notes.emptyColumns(empty)] : []),
    ...(cells('control-characters') > 0 ? [notes.controlCharacters(cells('control-characters'))] : []),
    ...(cells('direction-marks') > 0 ? [notes.directionMarks(cells('direction-marks'))] : []),
    ...unclear.map(({ heading }) => notes.ambiguousDates(heading)),
  ]
}

function isAmbiguousDate(cell: string): boolean {
  const [, first = '', second = ''] = /^(\d{1,2})[./-](\d{1,2})[./-]\d{2,4}/.exec(cell.trim()) ?? []
  return first !== '' && Number(first) <= 12 && Number(second) <= 12 && !cell.includes('.')
}

/** The letters a spreadsheet puts over a column; `index` counts from 0. */
export function columnName(index: number): string {
  let name = ''
  for (let n = index + 1; n > 0; n = Math.floor((n - 1) / 26)) name = String.fromCharCode(65 + ((n - 1) % 26)) + name
  return name
}
