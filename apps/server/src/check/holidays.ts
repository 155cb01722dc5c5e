import { createRequire } from 'node:module'

/** Public holidays by country and year: made once, for they cost some milliseconds. */
const known = new Map<string, ReadonlySet<string>>()

/**
 * True for a public holiday of a whole country.
 * @param country ISO 3166-1 alpha-2; where its holidays are not known, no day is one
 * @param date YYYY-MM-DD, there
 */
export function isPublicHoliday(country: string, date: string): boolean {
  const year = date.slice(0, 4)
  const key = `${country} ${year}`
  const days = known.get(key) ?? holidaysOf(country, Number(year))
  known.set(key, days)
  return days.has(date)
}

/** The holidays of all countries are large: they are loaded when the first is asked for. */
const load = () => createRequire(import.meta.url)('date-holidays') as typeof import('date-holidays').default

function holidaysOf(country: string, year: number): ReadonlySet<string> {
  const Holidays = load()
  const all = new Holidays(country).getHolidays(year) ?? []
  return new Set(all.filter(({ type }) => type === 'public').map(({ date }) => date.slice(0, 10)))
}
