import type { ContactValues, ProjectedContact } from './projectRow'

/** How a row comes out otherwise: in what tells who somebody is (then pairing looks again), in other values, or not at all. */
export type Difference = 'none' | 'values' | 'keys'

/** True where pairing holds the values of two contacts for those of one, whoever else there is. */
export type ToldAlike = (a: ContactValues, b: ContactValues) => boolean

const toTheLetter: ToldAlike = (a, b) => a.fullName === b.fullName && a.birthDate === b.birthDate

/** Compares what two routines make of one row. */
export function differenceOf(a: ProjectedContact, b: ProjectedContact, areToldAlike = toTheLetter): Difference {
  const isSamePerson = isSame(a.numbers, b.numbers) && isSame(a.emails, b.emails) && areToldAlike(a.values, b.values)
  if (!isSamePerson) return 'keys'
  return isSame(a, b) ? 'none' : 'values'
}

/** Plain data, field by field; a field that is not there is one that is undefined. */
export function isSame(a: unknown, b: unknown): boolean {
  if (a === b) return true
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false
  if (Array.isArray(a) || Array.isArray(b)) return isSameList(a, b)
  const [x, y] = [a as Record<string, unknown>, b as Record<string, unknown>]
  for (const key in x) if (!isSame(x[key], y[key])) return false
  for (const key in y) if (x[key] === undefined && y[key] !== undefined) return false
  return true
}

function isSameList(a: unknown, b: unknown): boolean {
  if (!Array.isArray(a) || !Array.isArray(b) || a.length !== b.length) return false
  for (let i = 0; i < a.length; i++) if (!isSame(a[i], b[i])) return false
  return true
}
