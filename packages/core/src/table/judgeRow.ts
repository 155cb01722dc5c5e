import type { Dialect } from './dialect'
import type { Field } from './fields'
import { fits, reaches } from './fits'
import { isBlankCell, isBlankRow } from './grid'
import { headingKey } from './headingWords'
import { cellsOfRow, cutCells, type RowMend, withoutPadding } from './rowCells'
import { LONGEST_CELL, type RecordProblem } from './scanRecords'
import { writeRecord } from './writing'

export const HELD_REASONS = [
  'open-quote',
  'row-too-long',
  'cell-too-long',
  'too-few-cells',
  'too-many-cells',
  'nul-byte',
  'wrong-encoding',
  'heading-again',
  'totals-row',
  'footer',
  'broken-item',
] as const
/** Why a row could not be read, or is no contact, and is held for a person. */
export type HeldReason = (typeof HELD_REASONS)[number]

/** Held rows whose cells are known, if not their number: they can be let in as they stand. */
export const AS_THEY_STAND: readonly HeldReason[] = ['too-few-cells', 'heading-again', 'totals-row', 'footer']

export type JudgedRow =
  | {
      readonly status: 'read'
      readonly text: string
      readonly cells: readonly string[]
      readonly mends: readonly RowMend[]
    }
  | { readonly status: 'held'; readonly text: string; readonly reason: HeldReason }
  | { readonly status: 'blank' }

/** What rows are judged by. */
export interface RowRules {
  /** One for each column of the table. */
  readonly headings: readonly string[]
  readonly hasHeadings: boolean
  /** True where cells know their columns, so that a short row is only blank at its end. */
  readonly isSheet: boolean
  /** What each column is, as far as it is known: a cell that cannot be that tells that others are missing. */
  readonly fields?: readonly (Field | null)[]
}

/**
 * Turns the text of one record into cells, or says why it must be held. Cells left off at the end of a row are blank
 * where those present fit their columns; where they do not, nobody can tell which one is missing, and it is held. NUL is
 * padding and taken out, a cell that is too long is cut, a row cut in another way is read so: each is told.
 */
export function judgeRow(
  given: string,
  problem: RecordProblem | null,
  { delimiter, encoding }: Pick<Dialect, 'delimiter' | 'encoding'>,
  rules: RowRules,
): JudgedRow {
  if (problem) return { status: 'held', text: given, reason: problem }
  const text = withoutPadding(given)
  if (encoding === 'utf-8' && text.includes('\ufffd')) return { status: 'held', text, reason: 'wrong-encoding' }
  const layout = { delimiter, columns: rules.headings.length, isSheet: rules.isSheet }
  const { cells, mend } = cellsOfRow(text, layout)
  if (isBlankRow(cells)) return { status: 'blank' }
  const reason = whyHeld(cells, rules)
  if (reason) return { status: 'held', text, reason }
  const kept = text.length > LONGEST_CELL ? cutCells(cells) : cells
  const mends: RowMend[] = [
    ...(text === given ? [] : ['padding' as const]),
    ...(mend ? [mend] : []),
    ...(kept === cells ? [] : ['cut' as const]),
    ...(cells.length < layout.columns && !rules.isSheet ? ['short' as const] : []),
  ]
  return { status: 'read', text: kept === cells ? text : writeRecord(kept, delimiter), cells: kept, mends }
}

function whyHeld(cells: readonly string[], rules: RowRules): HeldReason | null {
  const columns = rules.headings.length
  if (cells.length > columns && cells.slice(columns).some((cell) => !isBlankCell(cell))) return 'too-many-cells'
  const other = noContact(cells, rules)
  if (other) return other
  return cells.length < columns && !rules.isSheet && !isOnlyShort(cells, rules) ? 'too-few-cells' : null
}

/**
 * True where the cells of a short row fit the columns they stand in, so that those at the end were left off. One cell
 * that anything could be is no row.
 */
function isOnlyShort(cells: readonly string[], { fields }: RowRules): boolean {
  if (!fields || cells.length < 2) return false
  const filled = cells.flatMap((cell, i) => (isBlankCell(cell) ? [] : [fields[i] ?? '']))
  const isTold =
    filled.some((field) => TELLING.has(field)) || (filled.length > 1 && filled.every((field) => field !== ''))
  return isTold && cells.every((cell, i) => fits(cell, fields[i]))
}

/** Fields whose cells can be told from others. */
const TELLING: ReadonlySet<string> = new Set(['number', 'email', 'web', 'profile', 'postal-code'])

const TOTALS =
  /^(?:grand |sub-?)?(?:totals?|sums?|sum total|summe|gesamt|gesamtsumme|zwischensumme|insgesamt|somme|totale|totaal|eindtotaal|som|suma|subtotale?|sous-total|average|durchschnitt|moyenne|media|gemiddelde|count|anzahl)\b/i
const REMARK =
  /^(?:sources?|quelle|stand|exported|export|generated|erstellt|exporté|esportato|exportado|note|nota|hinweis|remarque|legend|legende|page|seite|printed|gedruckt|©|\*|end of|ende der|confidential|vertraulich)\b|^[©*]/i

/** Rows of a table that are no contacts: the headings once more, sums, and remarks below. */
function noContact(cells: readonly string[], { headings, hasHeadings, fields }: RowRules): HeldReason | null {
  const first = cells.findIndex((cell) => !isBlankCell(cell))
  const word = cells[first]?.trim() ?? ''
  if (hasHeadings && isHeadingAgain(cells, headings)) return 'heading-again'
  // The rest of the row is looked at only where its first word asks for it: this runs for every row.
  if (TOTALS.test(word) && headings.length > 1 && onlyAmounts(cells, first) && !reaches(cells, fields ?? []))
    return 'totals-row'
  if (headings.length > 2 && REMARK.test(word) && cells.every((cell, i) => i === first || isBlankCell(cell)))
    return 'footer'
  return null
}

function onlyAmounts(cells: readonly string[], first: number): boolean {
  const rest = cells.filter((cell, i) => i !== first && !isBlankCell(cell))
  return (
    rest.length > 0 &&
    rest.every((cell) => /^[€$£]?\s?-?[\d.,' ]{1,16}\s?[€$£%]?$/.test(cell.trim()) && !/^\s*[+0]/.test(cell))
  )
}

function isHeadingAgain(cells: readonly string[], headings: readonly string[]): boolean {
  const first = headings.findIndex((heading) => heading !== '')
  if (!isSameHeading(cells[first] ?? '', headings[first] ?? '')) return false
  const named = headings.filter((heading) => heading !== '').length
  const same = headings.filter((heading, i) => heading !== '' && isSameHeading(cells[i] ?? '', heading)).length
  return named > 1 ? same >= Math.max(2, named * 0.8) : same === 1
}

function isSameHeading(cell: string, heading: string): boolean {
  const text = cell.trim()
  if (text === '' || text.length > heading.length) return false
  return text === heading || headingKey(text) === headingKey(heading)
}
