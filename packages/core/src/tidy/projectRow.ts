import { type Reading, type ReadNumber, readPhoneCell } from '../phone'
import { remember } from '../remember'
import type { Field, Mapping } from '../table'
import { readCountry } from '../table'
import { type ReadEmail, readEmails } from './emails'
import { joinName, splitName } from './names'
import { readDomain, readProfile } from './web'

const countryOf = remember(readCountry)

/** One phone cell of the row and what was made of it. */
export interface CellReading {
  readonly column: number
  readonly raw: string
  readonly reading: Reading
}

/** The values of a contact that are plain text; empty where nothing is known. */
export interface ContactValues {
  readonly givenName: string
  readonly familyName: string
  readonly fullName: string
  readonly company: string
  readonly title: string
  readonly city: string
  readonly region: string
  readonly postalCode: string
  readonly domain: string
  readonly profile: string
  /** ISO 3166-1 alpha-2, or empty. */
  readonly country: string
}

/** A row after mapping: what it says about one contact. */
export interface ProjectedContact {
  readonly values: ContactValues
  readonly numbers: readonly ReadNumber[]
  readonly emails: readonly ReadEmail[]
  readonly readings: readonly CellReading[]
  /** Filled cells of columns that became no field, in order. */
  readonly extras: readonly string[]
}

export interface ProjectOptions {
  readonly mapping: Mapping
  /** ISO 3166-1 alpha-2 that counts where the row names no country. */
  readonly defaultCountry?: string | null
}

/**
 * Projects the cells of one row into a contact. A pure function of the row and the batch's settings: projecting
 * again gives the same contact.
 */
export function projectRow(
  cells: readonly string[],
  { mapping, defaultCountry = null }: ProjectOptions,
): ProjectedContact {
  const { byField, extras } = gather(cells, mapping)
  const first = (field: Field): string => byField[field]?.[0] ?? ''
  const stated = first('country') === '' ? null : countryOf(first('country'))
  const country = stated ?? defaultCountry ?? ''
  const readings = readCells(cells, mapping, country)
  const numbers = uniqueBy(
    readings.flatMap(({ reading }) => reading.numbers),
    (number) => `${number.e164};${number.extension}`,
  )
  const emails = uniqueBy((byField.email ?? []).flatMap(readEmails), (email) => email.address)
  const name = nameOf(first('full-name'), first('given-name'), first('family-name'))
  return {
    // Each property is named: on a path that runs for every row, a spread costs more than all the rest.
    values: {
      givenName: name.givenName,
      familyName: name.familyName,
      fullName: name.fullName,
      company: first('company').replace(/\s+/g, ' '),
      title: first('title'),
      city: first('city'),
      region: first('region'),
      postalCode: first('postal-code'),
      domain: domainOf(first('web'), emails),
      profile: readProfile(first('profile')) ?? '',
      country: country || (numbers.find((number) => number.valid)?.country ?? ''),
    },
    numbers,
    emails,
    readings,
    extras,
  }
}

/** The cells that are not blank, by the field of their column, in one pass: this runs for every row. */
function gather(
  cells: readonly string[],
  mapping: Mapping,
): { readonly byField: Partial<Record<Field, string[]>>; readonly extras: readonly string[] } {
  const byField: Partial<Record<Field, string[]>> = {}
  const extras: string[] = []
  for (let i = 0; i < mapping.length; i++) {
    const field = mapping[i]
    const cell = cells[i]?.trim()
    if (!cell) continue
    if (!field) {
      extras.push(cell)
      continue
    }
    const found = byField[field]
    if (found) found.push(cell)
    else byField[field] = [cell]
  }
  return { byField, extras }
}

function readCells(cells: readonly string[], mapping: Mapping, country: string): CellReading[] {
  const readings: CellReading[] = []
  for (let column = 0; column < mapping.length; column++) {
    if (mapping[column] !== 'number') continue
    const raw = cells[column] ?? ''
    readings.push({ column, raw, reading: readPhoneCell(raw, { country }) })
  }
  return readings
}

function nameOf(
  full: string,
  given: string,
  family: string,
): Pick<ContactValues, 'givenName' | 'familyName' | 'fullName'> {
  const parts = given || family ? { given, family } : splitName(full)
  return { givenName: parts.given, familyName: parts.family, fullName: joinName(parts) }
}

/** The company's site, else the domain of a work e-mail. */
function domainOf(web: string, emails: readonly ReadEmail[]): string {
  const stated = readDomain(web)
  if (stated) return stated
  const work = emails.find(({ kind }) => kind !== 'personal')
  return (work && readDomain(work.address)) ?? ''
}

function uniqueBy<T>(items: readonly T[], keyOf: (item: T) => string): readonly T[] {
  if (items.length < 2) return items
  const seen = new Set<string>()
  return items.filter((item) => {
    const key = keyOf(item)
    if (seen.has(key)) return false
    seen.add(key)
    return true
  })
}
