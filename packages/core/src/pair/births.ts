import { isOneSlipApart } from '../slip'
import { LEVEL, UNKNOWN } from './fields'
import { textPool } from './pool'

/** The birth dates of a list: `1987-05-03`, or `1987` where only the year is known. */
export interface Births {
  /** Number of a date. 0 is none. */
  idOf(date: string): number
  hashOf(id: number): number
  /** Position of the level at which two dates stand to each other, or `UNKNOWN`. */
  compare(a: number, b: number): number
}

const YEAR = 4
const { same, year, like, other } = LEVEL.birth

export function pairBirths(): Births {
  const pool = textPool()
  return {
    idOf: (date) => pool.idOf(/^\d{4}(?:-\d\d-\d\d)?$/.test(date) ? date : ''),
    hashOf: pool.hashOf,
    compare: (a, b) => {
      if (a === 0 || b === 0) return UNKNOWN
      const [mine, theirs] = [pool.texts[a] as string, pool.texts[b] as string]
      if (mine === theirs) return mine.length > YEAR ? same : year
      if (mine.length !== theirs.length) return mine.slice(0, YEAR) === theirs.slice(0, YEAR) ? year : other
      return mine.length > YEAR && isSlip(mine, theirs) ? like : other
    },
  }
}

/** True where two dates say nothing against each other: one is not known, they are the same, or one is the year of the other. */
export const isOneBirth = (a: string, b: string): boolean => a.startsWith(b) || b.startsWith(a)

/** Day and month changed about, or one key beside the right one. */
function isSlip(a: string, b: string): boolean {
  const [year, month, day] = a.split('-')
  return b === `${year}-${day}-${month}` || isOneSlipApart(a, b)
}
