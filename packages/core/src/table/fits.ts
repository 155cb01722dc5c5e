import type { Field } from './fields'
import { isBlankCell } from './grid'

const EMAIL = /\S@\S+\.\S/
const DIGITS_OF_NUMBER = 6

const digitsOf = (cell: string): number => cell.replace(/\D/g, '').length

/** A cell that is a telephone number by its signs alone. */
const isNumberish = (cell: string): boolean => digitsOf(cell) >= 7 && /^[+(]?[\d\s()./-]+$/.test(cell.trim())

/** True where a cell can be what its column holds: an address in a column of addresses, no number among the names. */
export function fits(cell: string, field: Field | null | undefined): boolean {
  if (isBlankCell(cell)) return true
  if (field === 'email') return EMAIL.test(cell)
  if (field === 'number') return digitsOf(cell) >= DIGITS_OF_NUMBER
  if (field === 'web' || field === 'profile') return cell.includes('.')
  if (field === 'postal-code') return cell.trim().length <= 12 && /\d/.test(cell)
  if (field === 'birth-date') return /\d/.test(cell) && cell.length <= 40
  if (field === 'country') return !/\d/.test(cell) && cell.length < 60
  if (field === null || field === undefined) return true
  return !EMAIL.test(cell) && !isNumberish(cell)
}

/** True where a row holds something to reach somebody by. */
export const reaches = (cells: readonly string[], fields: readonly (Field | null)[]): boolean =>
  cells.some((cell, i) => {
    const field = fields[i]
    return (field === 'email' && EMAIL.test(cell)) || (field === 'number' && digitsOf(cell) >= 7)
  })
