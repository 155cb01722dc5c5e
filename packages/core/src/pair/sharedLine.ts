import type { LineType } from '../phone'
import { fold } from './fold'

export const SHARED_LINE_KINDS = ['switchboard', 'household', 'several-people'] as const
export type SharedLineKind = (typeof SHARED_LINE_KINDS)[number]

/** Somebody who holds a line, as far as it tells what kind of line it is. */
export interface LineHolder {
  readonly familyName: string
  readonly company: string
  readonly domain: string
}

/**
 * What kind of line several people share: the desk of one company, one family's, or neither.
 * A mobile is no switchboard, whatever its holders have in common.
 */
export function kindOfSharedLine(lineType: LineType, holders: readonly LineHolder[]): SharedLineKind {
  const isDesk = lineType !== 'mobile' && lineType !== 'personal' && lineType !== 'pager'
  if (isDesk && (isOne(holders.map(({ domain }) => domain)) || isOne(holders.map(({ company }) => company))))
    return 'switchboard'
  if (isOne(holders.map(({ familyName }) => familyName))) return 'household'
  return 'several-people'
}

/** True where two or more say the same, and nobody says another thing. */
function isOne(values: readonly string[]): boolean {
  const said = values.map(fold).filter((value) => value !== '')
  return said.length > 1 && new Set(said).size === 1
}
