import { kindOfCell } from './cellKinds'
import { type GridRow, isBlankCell, isBlankRow, type Merge } from './grid'
import { fieldOfHeading } from './headingWords'
import { type Note, notes } from './notes'

/** Where in a sheet the table lies. */
export interface TableShape {
  /** Rows of the headings, from 1, both included; null where there are none. */
  readonly headings: { readonly first: number; readonly last: number } | null
  /** The first row that can be a contact. */
  readonly firstRow: number
}

export interface FoundTable {
  readonly shape: TableShape
  /** One for each column, made unique; blank for a column without heading and without value. */
  readonly headings: readonly string[]
  /** Rows above the table that are no contacts. */
  readonly above: readonly GridRow[]
  readonly notes: readonly Note[]
}

/** What the operator says about the headings: their row, `none`, or nothing. */
export type WantedHeadings = number | 'none' | undefined

const LOOKED_AT = 60

/**
 * Finds the table inside the first rows of a sheet: what stands above it, its headings (one or two lines, or none)
 * and its first row.
 */
export function findTable(
  rows: readonly GridRow[],
  width: number,
  { merges = [], wanted }: { readonly merges?: readonly Merge[]; readonly wanted?: WantedHeadings } = {},
): FoundTable {
  const filled = rows.filter(({ cells }) => !isBlankRow(cells)).slice(0, LOOKED_AT)
  const heading = wanted === 'none' ? null : wanted ? rowNumbered(rows, wanted) : findHeading(filled, width)
  const first = filled[0]?.row ?? 1
  if (!heading) {
    const headings = nameColumns(
      Array.from({ length: width }, () => ''),
      rows,
    )
    const said = wanted === 'none' ? [] : [notes.noHeadings()]
    return {
      shape: { headings: null, firstRow: wanted === 'none' ? first : startOfData(filled, width) },
      headings,
      ...aboveOf(filled, wanted === 'none' ? first : startOfData(filled, width), said),
    }
  }
  const above = filled[filled.indexOf(heading) - 1]
  const below = filled[filled.indexOf(heading) + 1]
  const group = above && wanted === undefined && isGroupLine(above, heading, merges, width) ? above : null
  const data = filled.slice(filled.indexOf(heading) + 2)
  // Whoever says where the headings are says that nothing else belongs to them.
  const isJudged = wanted === undefined && below?.row === heading.row + 1
  const second = isJudged && below ? secondLine(below, heading, data) : 'data'
  const lines = [
    ...(group ? [{ ...group, cells: spread(group, merges, width) }] : []),
    heading,
    ...(second === 'headings' && below ? [below] : []),
  ]
  const raw = Array.from({ length: width }, (_, i) => joinLines(lines.map(({ cells }) => cells[i] ?? '')))
  const last = lines.at(-1)?.row ?? heading.row
  const firstRow = (second === 'units' && below ? below.row : last) + 1
  const said = [
    ...(lines.length > 1 ? [notes.twoLineHeadings(lines[0]?.row ?? last, last)] : []),
    ...(second === 'units' && below ? [notes.unitsRow(below.row)] : []),
  ]
  const start = lines[0]?.row ?? heading.row
  return {
    shape: { headings: { first: start, last }, firstRow },
    headings: nameColumns(
      raw,
      rows.filter(({ row }) => row >= firstRow),
    ),
    ...aboveOf(filled, start, [...said, ...repeatedNotes(raw)]),
  }
}

const rowNumbered = (rows: readonly GridRow[], row: number): GridRow | null =>
  rows.find((one) => one.row === row) ?? null

function aboveOf(
  filled: readonly GridRow[],
  start: number,
  said: readonly Note[],
): Pick<FoundTable, 'above' | 'notes'> {
  const above = filled.filter(({ row }) => row < start)
  if (start <= 1) return { above, notes: said }
  const samples = above.flatMap(({ cells }) => cells.filter((cell) => !isBlankCell(cell)).slice(0, 1))
  return {
    above,
    notes: [
      notes.rowsAbove(
        Array.from({ length: start - 1 }, (_, i) => i + 1),
        samples,
      ),
      ...said,
    ],
  }
}

/** The row that reads like headings, before any row that reads like data. */
function findHeading(filled: readonly GridRow[], width: number): GridRow | null {
  let best: { row: GridRow; score: number } | null = null
  for (const [i, row] of filled.entries()) {
    const { known, exact, data, cells } = judgeLine(row.cells)
    // A single cell with digits may be a date above the table; a row of them is a contact.
    if (data > 0 && exact < cells / 2 && (cells > 1 || width === 1)) break
    const coverage = cells / width
    const score = exact * 2 + (known - exact) * 0.75 + coverage * 3 - data * 4
    const isEnough =
      width === 1
        ? known > 0 || contrasts(row, filled.slice(i + 1))
        : cells > 1 &&
          ((exact > 0 && coverage >= 0.4) || exact > 1 || (coverage >= 0.6 && contrasts(row, filled.slice(i + 1))))
    if (isEnough && data === 0 && (!best || score > best.score)) best = { row, score }
  }
  return best?.row ?? null
}

interface LineJudgement {
  readonly cells: number
  readonly known: number
  readonly exact: number
  readonly data: number
}

function judgeLine(cells: readonly string[]): LineJudgement {
  const filled = cells.filter((cell) => !isBlankCell(cell))
  const named = filled.map((cell) => (cell.length > 60 ? null : fieldOfHeading(cell)))
  return {
    cells: filled.length,
    known: named.filter((one) => one !== null).length,
    exact: named.filter((one) => one !== null && one.confidence > 0.9).length,
    data: filled.filter(isData).length,
  }
}

/** A cell that headings do not hold: an address, a number, a date, a long text. */
function isData(cell: string): boolean {
  const text = cell.trim()
  if (/\S@\S+\.\S/.test(text) || text.replace(/\D/g, '').length > 5 || text.length > 120) return true
  if (!/\d|\.\w/.test(text) || fieldOfHeading(text)) return false
  const { kind } = kindOfCell(text, null)
  return kind !== 'words' && kind !== 'person' && kind !== 'company' && kind !== 'country' && kind !== 'town'
}

/** True where the cells below are of another kind than the words of this row. */
function contrasts(row: GridRow, below: readonly GridRow[]): boolean {
  return row.cells.some((cell, i) => !isBlankCell(cell) && !isData(cell) && holdsData(below, i))
}

function holdsData(rows: readonly GridRow[], column: number): boolean {
  const filled = rows.flatMap(({ cells }) => (isBlankCell(cells[column]) ? [] : [cells[column] ?? '']))
  return filled.length > 0 && filled.filter(isData).length / filled.length > 0.5
}

const UNIT =
  /^(?:[[(].{1,24}[\])]|text|string|number|integer|int|date|datetime|boolean|yes\/no|y\/n|ja\/nein|eur|usd|gbp|chf|[€$£%]|m²|m2|km|kg|pcs|stk|years|yyyy-mm-dd|dd[./-]mm[./-]yyyy|mm[./-]dd[./-]yyyy|tt\.mm\.jjjj|jj\/mm\/aaaa|required|optional|mandatory|pflicht|pflichtfeld|freitext|obligatoire|facultatif|obligatorio|opcional|obbligatorio|verplicht|optioneel|e\.?164|iso|url)$/i

/** What the row under the headings is: more of them, units, or the first contact. */
function secondLine(below: GridRow, heading: GridRow, data: readonly GridRow[]): 'headings' | 'units' | 'data' {
  const filled = below.cells.filter((cell) => !isBlankCell(cell))
  if (filled.length === 0 || filled.some((cell) => isData(cell) && !UNIT.test(cell.trim()))) return 'data'
  const units = filled.filter((cell) => UNIT.test(cell.trim())).length
  if (units >= 2 && units > filled.length / 2) return 'units'
  const stands = below.cells.some((cell, i) => !isBlankCell(cell) && holdsData(data, i))
  if (!stands) return 'data'
  const { exact } = judgeLine(below.cells)
  const hasGaps = heading.cells.filter((cell) => !isBlankCell(cell)).length < filled.length
  return exact > 0 || hasGaps ? 'headings' : 'data'
}

/** Words over groups of columns: fewer than the headings below them, none alone over the whole table. */
function isGroupLine(above: GridRow, heading: GridRow, merges: readonly Merge[], width: number): boolean {
  if (above.row !== heading.row - 1 || above.cells.some((cell) => !isBlankCell(cell) && isData(cell))) return false
  const filled = above.cells.filter((cell) => !isBlankCell(cell)).length
  const below = heading.cells.filter((cell) => !isBlankCell(cell)).length
  const spans = merges.filter(({ top, left, right }) => top === above.row && right > left)
  const isTitle =
    filled === 1 && (spans.length === 0 || spans.some(({ left, right }) => right - left + 1 >= width * 0.8))
  return !isTitle && filled >= 1 && (filled < below || spans.length > 0)
}

/** A group's word over every column it covers: by its merged area, else as far as the next word. */
function spread({ row, cells }: GridRow, merges: readonly Merge[], width: number): string[] {
  const areas = merges.filter(({ top, bottom }) => top <= row && bottom >= row)
  let word = ''
  return Array.from({ length: width }, (_, i) => {
    const cell = cells[i] ?? ''
    if (!isBlankCell(cell)) word = cell.trim()
    if (areas.length === 0) return word
    const area = areas.find(({ left, right }) => left <= i && i <= right)
    return area ? (cells[area.left] ?? '').trim() : cell.trim()
  })
}

function joinLines(lines: readonly string[]): string {
  const words = lines.map((line) => line.replace(/\s+/g, ' ').trim()).filter((line) => line !== '')
  return [...new Set(words)].join(' ')
}

/** Headings, unique; a column with values but no heading gets its number. */
function nameColumns(raw: readonly string[], data: readonly GridRow[]): string[] {
  const seen = new Map<string, number>()
  return raw.map((name, i) => {
    const hasValue = data.some(({ cells }) => !isBlankCell(cells[i]))
    const base = name !== '' ? name : hasValue ? `Column ${i + 1}` : ''
    const times = (seen.get(base) ?? 0) + 1
    seen.set(base, times)
    return times > 1 && base !== '' ? `${base} ${times}` : base
  })
}

function repeatedNotes(raw: readonly string[]): Note[] {
  const again = [...new Set(raw.filter((name, i) => name !== '' && raw.indexOf(name) !== i))]
  return again.length > 0 ? [notes.repeatedHeadings(again)] : []
}

/** Without headings: the first row that fills as many columns as the table has, so that titles are passed over. */
function startOfData(filled: readonly GridRow[], width: number): number {
  const usual = filled.find(({ cells }) => cells.filter((cell) => !isBlankCell(cell)).length >= Math.min(2, width))
  return usual?.row ?? filled[0]?.row ?? 1
}
