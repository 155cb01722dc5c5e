import { splitCells } from './cells'
import type { Dialect } from './dialect'
import { LONGEST_CELL, type RecordProblem } from './scanRecords'

export const HELD_REASONS = [
  'open-quote',
  'row-too-long',
  'cell-too-long',
  'too-few-cells',
  'too-many-cells',
  'nul-byte',
  'wrong-encoding',
] as const
/** Why a row could not be read and is held for a person. */
export type HeldReason = (typeof HELD_REASONS)[number]

export type JudgedRow =
  | { readonly status: 'read'; readonly text: string; readonly cells: readonly string[] }
  | { readonly status: 'held'; readonly text: string; readonly reason: HeldReason }
  | { readonly status: 'blank' }

/**
 * Turns the text of one record into cells, or says why it must be held.
 * A row with fewer cells is held, since nobody can tell which one is missing; blank cells too many are no fault.
 */
export function judgeRow(
  text: string,
  problem: RecordProblem | null,
  { delimiter, encoding, columns }: Pick<Dialect, 'delimiter' | 'encoding'> & { readonly columns: number },
): JudgedRow {
  if (problem) return { status: 'held', text, reason: problem }
  if (text.includes('\0')) return { status: 'held', text, reason: 'nul-byte' }
  if (encoding === 'utf-8' && text.includes('\ufffd')) return { status: 'held', text, reason: 'wrong-encoding' }
  const cells = splitCells(text, delimiter)
  if (cells.every((cell) => cell.trim() === '')) return { status: 'blank' }
  if (text.length > LONGEST_CELL && cells.some((cell) => cell.length > LONGEST_CELL)) {
    return { status: 'held', text, reason: 'cell-too-long' }
  }
  if (cells.length > columns && cells.slice(columns).some((cell) => cell.trim() !== '')) {
    return { status: 'held', text, reason: 'too-many-cells' }
  }
  if (cells.length < columns) return { status: 'held', text, reason: 'too-few-cells' }
  return { status: 'read', text, cells }
}
