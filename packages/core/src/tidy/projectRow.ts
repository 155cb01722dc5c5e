import { isUnsure, type Reading, type ReadNumber, readPhoneCell } from '../phone'
import type { Field, Mapping } from '../table'
import { readBirthDate } from './birthDate'
import type { Change } from './changes'
import { countryOf } from './country'
import { countryOfRow } from './countryOfRow'
import type { Draft } from './draft'
import { type ReadEmail, readEmails } from './emails'
import { type HandCell, handOf } from './hand'
import { addColumn, addMore, isMoreField, type MoreValues } from './moreValues'
import { joinName, splitName } from './names'
import { readDomain, readProfile } from './web'

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
  /** Street and house. */
  readonly street: string
  /** ISO 8601, or the year alone. */
  readonly birthDate: string
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
  /** The same by the key of their column, where that is known, and what has a place of its own besides. */
  readonly more: MoreValues
  /** Every value that a routine or a person made another; empty where no routine was used. */
  readonly changes: readonly Change[]
  /** Cells that need a person, the most promising first; none where no routine was used. */
  readonly hand: readonly HandCell[]
}

export interface ProjectOptions {
  readonly mapping: Mapping
  /** ISO 3166-1 alpha-2 that counts where the row names no country. */
  readonly defaultCountry?: string | null
  /** Mail hosts that are nobody's own, beside those that are known everywhere. */
  readonly publicHosts?: ReadonlySet<string>
  /** Given and family name are told apart in a full name; on unless a routine says otherwise. */
  readonly splitsNames?: boolean
}

/** What a routine tells of the row it has worked on. */
export interface RoutineTraces extends ProjectOptions {
  /** Names of the columns, and the keys of those that became no field. */
  readonly names: readonly string[]
  readonly keys: readonly string[]
  /** Ids of the steps that read numbers and e-mails; null where they are off: then only what needs no mending is read. */
  readonly numbersStep: string | null
  readonly emailsStep: string | null
  readonly draft: Draft
}

/**
 * Projects the cells of one row into a contact. A pure function of the row and the batch's settings: projecting
 * again gives the same contact.
 */
export function projectRow(cells: readonly string[], options: ProjectOptions | RoutineTraces): ProjectedContact {
  const { mapping, defaultCountry = null, publicHosts, splitsNames = true } = options
  const traces = 'draft' in options ? options : null
  const { byField, extras, more } = gather(cells, mapping, traces?.keys)
  const stated = byField.country === undefined ? null : countryOf(byField.country[0] ?? '')
  const country = stated ?? defaultCountry ?? countryOfRow(byField) ?? ''
  const readings = readCells(cells, mapping, country, traces)
  const numbers = uniqueBy(
    // Of two readings that compete, a person chooses: until then the contact holds neither.
    readings.flatMap(({ reading }) => (isUnsure(reading) ? [] : reading.numbers)),
    (number) => `${number.e164};${number.extension}`,
  )
  const emails = atPublicHosts(emailsOf(cells, mapping, traces), publicHosts)
  const name = nameOf(byField, splitsNames)
  const place = country || (numbers.find((number) => number.valid)?.country ?? '')
  return {
    // Each property is named: on a path that runs for every row, a spread costs more than all the rest.
    values: {
      givenName: name.given,
      familyName: name.family,
      fullName: name.full,
      company: singleSpaced(first(byField.company)),
      title: first(byField.title),
      city: first(byField.city),
      region: first(byField.region),
      postalCode: first(byField['postal-code']),
      street: singleSpaced(first(byField.street)),
      birthDate: readBirthDate(first(byField['birth-date']), country) ?? '',
      domain: domainOf(first(byField.web), emails),
      profile: readProfile(first(byField.profile)) ?? '',
      country: place,
    },
    numbers,
    emails,
    readings,
    extras,
    more,
    changes: traces?.draft.changes ?? NO_CHANGES,
    hand:
      traces === null
        ? NO_HAND
        : handOf({
            cells,
            mapping,
            readings,
            numbers,
            country: place,
            rowSays: () => countryOfRow(byField),
            publicHosts,
          }),
  }
}

const NO_HAND: readonly HandCell[] = []
const NO_CHANGES: readonly Change[] = []
const first = (cells: readonly string[] | undefined): string => cells?.[0] ?? ''
const singleSpaced = (text: string): string =>
  text.includes('  ') || /[\t\n\r\u00a0]/.test(text) ? text.replace(/\s+/g, ' ') : text

/** The cells that are not blank, by the field of their column, in one pass: this runs for every row. */
export function gather(
  cells: readonly string[],
  mapping: Mapping,
  keys?: readonly string[],
): {
  readonly byField: Partial<Record<Field, string[]>>
  readonly extras: readonly string[]
  readonly more: MoreValues
} {
  const byField: Partial<Record<Field, string[]>> = {}
  const extras: string[] = []
  const more: Record<string, string> = {}
  for (let i = 0; i < mapping.length; i++) {
    const field = mapping[i]
    const cell = cells[i]?.trim()
    if (!cell) continue
    if (!field) {
      extras.push(cell)
      if (keys) addColumn(more, keys[i] ?? '', cell)
      continue
    }
    if (isMoreField(field)) {
      addMore(more, field, cell)
      continue
    }
    const found = byField[field]
    if (found) found.push(cell)
    else byField[field] = [cell]
  }
  return { byField, extras, more }
}

function readCells(
  cells: readonly string[],
  mapping: Mapping,
  country: string,
  traces: RoutineTraces | null,
): CellReading[] {
  const readings: CellReading[] = []
  for (let column = 0; column < mapping.length; column++) {
    if (mapping[column] !== 'number') continue
    const raw = cells[column] ?? ''
    const read = readPhoneCell(raw, { country })
    const reading = traces === null ? read : traceReading(read, raw, traces.names[column] ?? '', traces)
    readings.push({ column, raw, reading })
  }
  return readings
}

const LEFT_OUT: Reading = { verdict: 'unreadable', numbers: [], repairs: [], problem: 'left-out' }

/** Tells of what the reading mended, or gives the reading back as none where one of its repairs is left out. */
function traceReading(reading: Reading, was: string, column: string, { numbersStep, draft }: RoutineTraces): Reading {
  if (reading.numbers.length === 0) return reading
  if (reading.repairs.length > 0 && (numbersStep === null || reading.repairs.some((code) => draft.leftOut.has(code))))
    return LEFT_OUT
  if (numbersStep === null) return reading
  const is =
    reading.numbers.length === 1 ? (reading.numbers[0]?.e164 ?? '') : reading.numbers.map(({ e164 }) => e164).join(', ')
  for (const code of reading.repairs) draft.changes.push({ step: numbersStep, code, column, was, is })
  if (reading.repairs.length === 0 && is !== was)
    draft.changes.push({ step: numbersStep, code: 'number-form', column, was, is })
  return reading
}

function emailsOf(cells: readonly string[], mapping: Mapping, traces: RoutineTraces | null): readonly ReadEmail[] {
  let found: readonly ReadEmail[] = NO_EMAILS
  for (let column = 0; column < mapping.length; column++) {
    if (mapping[column] !== 'email') continue
    const was = cells[column]?.trim()
    if (!was) continue
    const read = readEmails(was)
    const taken = traces === null ? read : traceEmails(read, was, traces.names[column] ?? '', traces)
    found = found.length === 0 ? taken : uniqueBy([...found, ...taken], (email) => email.address)
  }
  return found
}

/** Addresses at hosts that serve everybody are people's own. */
function atPublicHosts(emails: readonly ReadEmail[], hosts: ReadonlySet<string> | undefined): readonly ReadEmail[] {
  if (hosts === undefined || hosts.size === 0 || emails.length === 0) return emails
  const isPublic = ({ address, kind }: ReadEmail) =>
    kind === 'work' && hosts.has(address.slice(address.lastIndexOf('@') + 1))
  return emails.some(isPublic)
    ? emails.map((email) => (isPublic(email) ? { ...email, kind: 'personal' as const } : email))
    : emails
}

const NO_EMAILS: readonly ReadEmail[] = []

function traceEmails(
  read: readonly ReadEmail[],
  was: string,
  column: string,
  { emailsStep, draft }: RoutineTraces,
): readonly ReadEmail[] {
  if (read.length === 0) return read
  const is = read.length === 1 ? (read[0]?.address ?? '') : read.map(({ address }) => address).join(', ')
  if (is === was) return read
  const code = read.length > 1 ? 'several-emails' : 'email-form'
  if (emailsStep === null || draft.leftOut.has(code)) return NO_EMAILS
  draft.changes.push({ step: emailsStep, code, column, was, is })
  return read
}

function nameOf(
  byField: Partial<Record<Field, string[]>>,
  splits: boolean,
): { readonly given: string; readonly family: string; readonly full: string } {
  const given = first(byField['given-name'])
  const family = first(byField['family-name'])
  const full = first(byField['full-name'])
  if (given === '' && family === '' && !splits) return { given: '', family: '', full }
  const parts = given !== '' || family !== '' ? { given, family } : splitName(full)
  return { given: parts.given, family: parts.family, full: joinName(parts) }
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
