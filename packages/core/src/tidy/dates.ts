import type { DateOrder } from './routine'

/**
 * A date by ISO 8601 (`2026-05-03`), its time of day kept. Which number is the day is told by the order only where
 * the date itself leaves it open.
 * @returns null for what is no date
 */
export function readDate(text: string, order: DateOrder): string | null {
  const match = /^\s*(\d{1,4})[./\s-](\d{1,2})[./\s-](\d{1,4})(?:[T ]+(\d{1,2}:\d{2}(?::\d{2})?))?\s*$/.exec(text)
  if (!match) return null
  const [a = 0, b = 0, c = 0] = match.slice(1, 4).map(Number)
  const time = match[4] ? `T${match[4].padStart(match[4].length + (match[4].indexOf(':') === 1 ? 1 : 0), '0')}` : ''
  const parts =
    match[1]?.length === 4
      ? [a, b, c]
      : match[3]?.length === 4 || order !== 'year-first'
        ? asYearLast(a, b, c, order)
        : [a, b, c]
  const [year = 0, month = 0, day = 0] = parts
  return isDay(year, month, day) ? `${pad(fullYear(year), 4)}-${pad(month, 2)}-${pad(day, 2)}${time}` : null
}

function asYearLast(a: number, b: number, year: number, order: DateOrder): number[] {
  if (a > 12) return [year, b, a]
  if (b > 12) return [year, a, b]
  return order === 'month-first' ? [year, a, b] : [year, b, a]
}

/** Two digits: the century in which the date lies at most ten years ahead of 2025. */
const fullYear = (year: number): number => (year >= 100 ? year : year > 35 ? 1900 + year : 2000 + year)

function isDay(year: number, month: number, day: number): boolean {
  if (month < 1 || month > 12 || day < 1) return false
  return day <= new Date(Date.UTC(fullYear(year), month, 0)).getUTCDate()
}

const pad = (n: number, width: number): string => String(n).padStart(width, '0')
