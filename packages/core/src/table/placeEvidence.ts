import { iso31662 } from 'iso-3166'
import { type Ledger, SAMPLE } from './countryLedger'
import { fold } from './fold'
import { fieldOfHeading } from './headingWords'
import type { InferredColumn } from './inferCountry'
import { isPostalCodeOf, POSTAL_COUNTRIES } from './postalShapes'
import { TOWNS_OF } from './towns'

export function weighPostalCodes(ledger: Ledger, columns: readonly InferredColumn[]): void {
  const cells = columns.filter(mayHoldPostalCodes).flatMap((column) => column.cells.slice(0, SAMPLE))
  if (cells.length === 0) return
  for (const country of ledger.scores.keys()) {
    if (!POSTAL_COUNTRIES.includes(country)) {
      ledger.add(country, -0.5)
      continue
    }
    const fits = cells.filter((cell) => isPostalCodeOf(cell, country) || lacksZero(cell, country)).length
    ledger.add(country, fits / cells.length > 0.8 ? 0.5 : -Math.min(4, 4 * (1 - fits / cells.length)))
    if (fits / cells.length > 0.8) ledger.say(country, 'postal', 'the postal codes fit')
  }
}

/** Codes of a form that little else has: letters among the digits, or a dash. */
export const TELLING_POSTAL =
  /^(?:\d{2}-\d{3}|\d{4}-\d{3}|\d{5}-\d{3}|[A-Z]{1,2}\d[A-Z\d]? ?\d[A-Z]{2}|[A-Z]\d[A-Z] ?\d[A-Z]\d|\d{4} ?[A-Z]{2}|〒\d{3}-\d{4})$/i

function mayHoldPostalCodes({ heading, cells }: InferredColumn): boolean {
  const named = fieldOfHeading(heading)?.field
  if (cells.length === 0) return false
  return named === 'postal-code' || (named === undefined && cells.every((cell) => TELLING_POSTAL.test(cell.trim())))
}

/** A spreadsheet takes a leading zero for nothing. */
const lacksZero = (cell: string, country: string): boolean =>
  /^\d{3,4}$/.test(cell.trim()) && isPostalCodeOf(`0${cell.trim()}`, country) === true

let regions: ReadonlyMap<string, ReadonlySet<string>> | null = null

/** Countries by the folded names and codes of their subdivisions (ISO 3166-2). */
function regionsOf(): ReadonlyMap<string, ReadonlySet<string>> {
  if (regions) return regions
  const found = new Map<string, Set<string>>()
  const put = (key: string, country: string) => {
    const countries = found.get(key) ?? new Set<string>()
    countries.add(country)
    found.set(key, countries)
  }
  for (const { code, name } of iso31662) {
    const country = code.slice(0, 2)
    if (/^[A-Z]{2,3}$/.test(code.slice(3))) put(code.slice(3).toLowerCase(), country)
    put(fold(name.replace(/\s*[([,].*$/, '')), country)
  }
  regions = found
  return found
}

export function weighRegions(ledger: Ledger, columns: readonly InferredColumn[]): void {
  for (const { heading, cells } of columns) {
    const named = fieldOfHeading(heading)?.field
    if (named !== 'region' && named !== undefined) continue
    const sample = cells.slice(0, SAMPLE)
    const found = sample.map((cell) => regionsOf().get(fold(cell.trim()).replace(/\./g, '')))
    const known = found.filter((countries) => countries !== undefined)
    if (known.length === 0 || (named === undefined && (known.length / sample.length < 0.8 || sample.length < 3)))
      continue
    for (const country of ledger.scores.keys()) {
      const n = known.filter((countries) => countries.has(country)).length
      if (n === 0) continue
      ledger.add(country, Math.min(4, n * 1.2) - (known.length - n) * 0.8)
      if (n / known.length > 0.5)
        ledger.say(country, 'regions', `regions such as ${examples(sample, (cell) => isRegionOf(cell, country))}`)
    }
  }
}

const isRegionOf = (cell: string, country: string): boolean =>
  regionsOf().get(fold(cell.trim()).replace(/\./g, ''))?.has(country) ?? false

export function weighTowns(ledger: Ledger, columns: readonly InferredColumn[]): void {
  const cells = columns
    .filter(({ heading }) => ['city', undefined].includes(fieldOfHeading(heading)?.field))
    .flatMap((column) => column.cells.slice(0, SAMPLE))
    .map((cell) => cell.trim().replace(/\s*[(,/].*$/, ''))
  const folded = new Map(cells.map((cell) => [cell, fold(cell)]))
  for (const [country, towns] of TOWNS_OF) {
    const isOf = (cell: string) => towns.has(folded.get(cell) ?? '')
    const found = cells.filter(isOf)
    if (found.length === 0) continue
    ledger.add(country, Math.min(4, found.length * 1.3))
    ledger.say(country, 'towns', `towns such as ${examples(cells, isOf)}`)
  }
}

function examples(cells: readonly string[], fits: (cell: string) => boolean): string {
  return [...new Set(cells.filter(fits).map((cell) => cell.trim()))].slice(0, 3).join(', ')
}
