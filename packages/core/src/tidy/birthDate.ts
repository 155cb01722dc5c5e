import { readDate } from './dates'

/** Countries that write the month before the day. */
const MONTH_FIRST: ReadonlySet<string> = new Set(['US', 'PH', 'FM', 'MH', 'PW', 'GU'])
/** Nobody in a list is older, or born later. */
const OLDEST = 1900
const YOUNGEST = 2020
const CENTURY = 100

/**
 * When somebody was born, by ISO 8601: the whole date, or the year where no more is told. A year of two digits lies in
 * the last century where it would else be still to come.
 * @param country ISO 3166-1 alpha-2: which number is the day, where the date leaves it open
 * @returns null for what is no date, and for one that nobody alive was born on
 */
export function readBirthDate(cell: string, country: string): string | null {
  const text = cell.trim().replace(/^(?:\*|born|geb\.?|né\(?e?\)?)\s*/i, '')
  if (/^\d{4}$/.test(text)) return isYear(Number(text)) ? text : null
  const date = readDate(text, MONTH_FIRST.has(country) ? 'month-first' : 'day-first')
  if (date === null) return null
  const year = Number(date.slice(0, 4))
  const born = year > YOUNGEST && !text.includes(String(year)) ? year - CENTURY : year
  return isYear(born) ? `${born}${date.slice(4, 10)}` : null
}

const isYear = (year: number): boolean => year >= OLDEST && year <= YOUNGEST
