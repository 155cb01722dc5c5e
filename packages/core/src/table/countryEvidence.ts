import { readCountry } from './countries'
import { type EvidenceKind, Ledger, UNUSUAL } from './countryLedger'
import { fieldOfHeading } from './headingWords'
import type { InferredColumn } from './inferCountry'
import { type NationalNumber, weighNumbers } from './numberEvidence'
import { weighPostalCodes, weighRegions, weighTowns } from './placeEvidence'
import { weighCurrency, weighDomains, weighLanguages } from './wordEvidence'

export interface CountryEvidence {
  /** How much likelier the list is of each country than of any, in powers of ten. */
  readonly scores: ReadonlyMap<string, number>
  /** What speaks for a country, in words, by kind. */
  readonly said: ReadonlyMap<string, ReadonlyMap<EvidenceKind, string>>
  readonly national: readonly NationalNumber[]
  /** Countries of the numbers that have a code. */
  readonly coded: readonly string[]
  /** How many rows name each country, where a column does so. */
  readonly rowsSay: ReadonlyMap<string, number> | null
}

/** Weighs everything in some columns that tells a country. Blank cells are left out before. */
export function evidenceIn(
  columns: readonly InferredColumn[],
  languages: ReadonlyMap<string, number>,
): CountryEvidence {
  const ledger = new Ledger()
  const { national, coded } = weighNumbers(ledger, columns)
  weighPostalCodes(ledger, columns)
  weighRegions(ledger, columns)
  weighTowns(ledger, columns)
  weighDomains(ledger, columns)
  weighLanguages(ledger, languages)
  weighCurrency(ledger, columns)
  return { scores: evened(ledger.scores), said: ledger.said, national, coded, rowsSay: countriesOfRows(columns) }
}

/** Held against a country of which nothing was told: above zero only what the list itself has told. */
function evened(scores: ReadonlyMap<string, number>): Map<string, number> {
  const sorted = [...scores.values()].sort((a, b) => a - b)
  const middle = sorted[Math.floor(sorted.length / 2)] ?? 0
  return new Map([...scores].map(([country, score]) => [country, score - middle + UNUSUAL]))
}

/** A column that names the country of most rows. */
function countriesOfRows(columns: readonly InferredColumn[]): ReadonlyMap<string, number> | null {
  for (const { heading, cells } of columns) {
    if (fieldOfHeading(heading)?.field !== 'country' || cells.length === 0) continue
    const found = cells.flatMap((cell) => readCountry(cell) ?? [])
    if (found.length / cells.length < 0.6) continue
    const rows = new Map<string, number>()
    for (const country of found) rows.set(country, (rows.get(country) ?? 0) + 1)
    return rows
  }
  return null
}
