import type { Field } from '../table'
import type { SuppressionRow } from './suppression'

/** What a column of a suppression file holds; null where nothing of it is used. */
export type ColumnUse = keyof SuppressionRow | null

const HASH = /^[0-9a-f]{64}$/i

/**
 * What a column is used for, as long as a person does not say otherwise. Sites are not: who buys from a house is no
 * reason to keep out everybody in it.
 * @param field what the column was recognised as
 * @param cells some of its cells
 */
export function useOfColumn(field: Field | null, cells: readonly string[]): ColumnUse {
  const filled = cells.map((cell) => cell.trim()).filter((cell) => cell !== '')
  if (filled.length > 0 && filled.every((cell) => HASH.test(cell))) return 'hashes'
  if (field === 'number') return 'numbers'
  return field === 'email' ? 'emails' : null
}

/** The filled cells of a row by what their columns are used for. */
export function suppressionRow(cells: readonly string[], uses: readonly ColumnUse[]): SuppressionRow {
  const of = (use: ColumnUse) => cells.filter((cell, at) => uses[at] === use && cell.trim() !== '')
  return { numbers: of('numbers'), emails: of('emails'), domains: of('domains'), hashes: of('hashes') }
}
