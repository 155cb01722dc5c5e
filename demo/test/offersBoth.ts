import type { Reading } from '@upper-field/core/phone'
import type { CellTruth } from '../src'

/**
 * Without its zero a number of Kiel is one of Vienna without its plus. True where both are offered, the true one first.
 */
export function offersBoth(phone: CellTruth, { problem, numbers }: Reading): boolean {
  if (phone.fault !== 'leading zero lost' || problem !== 'two-readings') return false
  return numbers.map(({ e164 }) => e164).join() === [...phone.e164s, `+${phone.cell}`].join()
}
