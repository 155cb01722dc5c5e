import { readPhoneCell } from '../phone'
import { countryOfEnding, type Field, fold, isPostalCodeOf, TELLING_POSTAL, TOWNS_OF } from '../table'

/** Countries whose postal codes look like nobody else's. */
const TELLING = ['GB', 'NL', 'CA', 'PL', 'PT', 'BR'] as const
/** So many things must say the same country: a number read under a wrong one costs more than one that is not read. */
const ENOUGH = 2

/**
 * The country of a row that names none, by what else it says: its town, its postal code, the endings of its addresses.
 * Null unless two of them say the same and nothing says otherwise. Where there is but one of them, numbers with that
 * country's code are the second: those of another do not count, since people move and keep theirs.
 */
export function countryOfRow(byField: Partial<Record<Field, readonly string[]>>): string | null {
  const votes = [
    ...new Set([...(byField.email ?? []), ...(byField.web ?? [])].flatMap(endingOf)),
    ...(byField.city ?? []).flatMap(countryOfTown),
    ...(byField['postal-code'] ?? []).flatMap(countryOfCode),
  ]
  const [first] = votes
  if (first === undefined || votes.some((vote) => vote !== first)) return null
  return votes.length >= ENOUGH || hasCodeOf(first, byField.number ?? []) ? first : null
}

/** Whether numbers are written with the code of this country, and none with another's. */
function hasCodeOf(country: string, cells: readonly string[]): boolean {
  const coded = cells
    .filter((cell) => cell.includes('+'))
    .flatMap((cell) => readPhoneCell(cell).numbers)
    .filter(({ valid }) => valid)
  return coded.length > 0 && coded.every((number) => number.country === country)
}

function endingOf(cell: string): string[] {
  const ending = /\.([a-z]{2})(?:[/?#:>]|$)/i.exec(cell.trim())?.[1]
  return ending === undefined ? [] : [countryOfEnding(ending)].flatMap((country) => country ?? [])
}

/** Towns of one name in several countries tell nothing. */
function countryOfTown(cell: string): string[] {
  const country = countriesByTown().get(fold(cell.trim()).replace(/\s*[(,/].*$/, ''))
  return country === undefined || country === null ? [] : [country]
}

let byTown: Map<string, string | null> | null = null

/** The country of each town; null where it is in several. */
function countriesByTown(): ReadonlyMap<string, string | null> {
  if (byTown) return byTown
  byTown = new Map()
  for (const [country, towns] of TOWNS_OF)
    for (const town of towns) byTown.set(town, byTown.has(town) && byTown.get(town) !== country ? null : country)
  return byTown
}

function countryOfCode(cell: string): string[] {
  const code = cell.trim()
  if (!TELLING_POSTAL.test(code)) return []
  const found = TELLING.filter((country) => isPostalCodeOf(code, country))
  return found.length === 1 ? [...found] : []
}
