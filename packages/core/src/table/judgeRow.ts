import { splitCells } from './cells'
import type { Dialect } from './dialect'
import { isBlankCell, isBlankRow } from './grid'
import { headingKey } from './headingWords'
import { LONGEST_CELL, type RecordProblem } from './scanRecords'

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
  | { readonly status: 'read'; readonly text: string; readonly cells: readonly string[] }
  | { readonly status: 'held'; readonly text: string; readonly reason: HeldReason }
  | { readonly status: 'blank' }

/** What rows are judged by. */
export interface RowRules {
  /** One for each column of the table. */
  readonly headings: readonly string[]
  readonly hasHeadings: boolean
  /** True where cells know their columns, so that a short row is only blank at its end. */
  readonly isSheet: boolean
}

/**
 * Turns the text of one record into cells, or says why it must be held.
 * A row with fewer cells is held, since nobody can tell which one is missing; blank cells too many are no fault.
 */
export function judgeRow(
  text: string,
  problem: RecordProblem | null,
  { delimiter, encoding }: Pick<Dialect, 'delimiter' | 'encoding'>,
  rules: RowRules,
): JudgedRow {
  if (problem) return { status: 'held', text, reason: problem }
  if (text.includes('\0')) return { status: 'held', text, reason: 'nul-byte' }
  if (encoding === 'utf-8' && text.includes('\ufffd')) return { status: 'held', text, reason: 'wrong-encoding' }
  const cells = splitCells(text, delimiter)
  if (isBlankRow(cells)) return { status: 'blank' }
  const reason = whyHeld(text, cells, rules)
  return reason ? { status: 'held', text, reason } : { status: 'read', text, cells }
}

function whyHeld(text: string, cells: readonly string[], rules: RowRules): HeldReason | null {
  const columns = rules.headings.length
  if (text.length > LONGEST_CELL && cells.some((cell) => cell.length > LONGEST_CELL)) return 'cell-too-long'
  if (cells.length > columns && cells.slice(columns).some((cell) => !isBlankCell(cell))) return 'too-many-cells'
  const other = noContact(cells, rules)
  if (other) return other
  return cells.length < columns && !rules.isSheet ? 'too-few-cells' : null
}

const TOTALS =
  /^(?:grand |sub-?)?(?:totals?|sums?|sum total|summe|gesamt|gesamtsumme|zwischensumme|insgesamt|somme|totale|totaal|eindtotaal|som|suma|subtotale?|sous-total|average|durchschnitt|moyenne|media|gemiddelde|count|anzahl)\b/i
const REMARK =
  /^(?:sources?|quelle|stand|exported|export|generated|erstellt|exporté|esportato|exportado|note|nota|hinweis|remarque|legend|legende|page|seite|printed|gedruckt|©|\*|end of|ende der|confidential|vertraulich)\b|^[©*]/i

/** Rows of a table that are no contacts: the headings once more, sums, and remarks below. */
function noContact(cells: readonly string[], { headings, hasHeadings }: RowRules): HeldReason | null {
  const first = cells.findIndex((cell) => !isBlankCell(cell))
  const word = cells[first]?.trim() ?? ''
  if (hasHeadings && isHeadingAgain(cells, headings)) return 'heading-again'
  // The rest of the row is looked at only where its first word asks for it: this runs for every row.
  if (TOTALS.test(word) && headings.length > 1 && onlyAmounts(cells, first)) return 'totals-row'
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
