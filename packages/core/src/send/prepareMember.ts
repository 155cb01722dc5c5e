import { harmlessCell } from '../table'
import type { AudienceShape, DestinationColumn, SendField } from './destination'
import { normalForm } from './normalForms'

/** What is sent of one person or company, before it is brought into the destination's form: values of each field. */
export interface AudienceMember {
  /** ISO 3166-1 alpha-2, or empty: numbers and dates are read by it. */
  readonly country: string
  readonly values: Readonly<Partial<Record<SendField, readonly string[]>>>
  /** The country of the first number, where there is one. */
  readonly numberCountry: string | null
}

/** Why somebody is not sent: a field is missing that has to be there, or nothing to match by. */
export type LeftOut = { readonly why: 'missing'; readonly field: SendField } | { readonly why: 'nothing-to-match' }

/** What was mended on the way, or left blank. */
export type Mend =
  | { readonly what: 'country-from-number' }
  | { readonly what: 'group-left-blank'; readonly group: readonly SendField[] }
  /** A value that is not what its form asks for: no number, no country, no date. */
  | { readonly what: 'unreadable'; readonly field: SendField }

export type PreparedMember =
  | { readonly status: 'ready'; readonly cells: readonly string[]; readonly mends: readonly Mend[] }
  | { readonly status: 'left-out'; readonly reason: LeftOut; readonly mends: readonly Mend[] }

export interface PrepareOptions {
  /** SHA-256 of a text in UTF-8 as lower-case hex; null for a plain file. */
  readonly hash: ((text: string) => string) | null
}

/**
 * Brings one person or company into a destination's form. Blank values stay blank: they are never hashed, and no
 * country code is put before an empty number.
 */
export function prepareMember(member: AudienceMember, shape: AudienceShape, { hash }: PrepareOptions): PreparedMember {
  const mends: Mend[] = []
  const country = countryOf(member, mends)
  const normal = normalValues({ ...member, country }, shape, mends)
  const blank = blankGroups(shape, normal, mends)
  const has = (field: SendField) => !blank.has(field) && (normal.get(field)?.some((all) => all.length > 0) ?? false)
  const { everyRow, someOf } = shape.rules
  if (!someOf.some(has)) return { status: 'left-out', reason: { why: 'nothing-to-match' }, mends }
  const missing = everyRow.find((field) => !has(field))
  if (missing) return { status: 'left-out', reason: { why: 'missing', field: missing }, mends }
  const seen = new Map<SendField, number>()
  const cells = shape.columns.flatMap((column) => {
    const at = seen.get(column.field) ?? 0
    seen.set(column.field, at + 1)
    const values = blank.has(column.field) ? [] : (normal.get(column.field)?.[at] ?? [])
    return Array.from({ length: column.repeats }, (_, i) => cellOf(values[i] ?? '', column, hash))
  })
  return { status: 'ready', cells, mends }
}

/** A plain file is opened by people too. Numbers in E.164 stay as the network compares them: they compute nothing. */
const cellOf = (value: string, { isHashed }: DestinationColumn, hash: PrepareOptions['hash']): string =>
  value !== '' && isHashed && hash ? hash(value) : harmlessCell(value)

function countryOf({ country, numberCountry }: AudienceMember, mends: Mend[]): string {
  if (country !== '' || numberCountry === null) return country
  mends.push({ what: 'country-from-number' })
  return numberCountry
}

/** The normal values of each column, by its field and in the order of the columns of that field. */
function normalValues(
  member: AudienceMember,
  { columns }: AudienceShape,
  mends: Mend[],
): Map<SendField, readonly (readonly string[])[]> {
  const normal = new Map<SendField, readonly (readonly string[])[]>()
  for (const { field, form } of columns) {
    const raw = valuesOf(member, field)
    const forms = raw.map((value) => normalForm(value, form, { country: member.country || null }))
    if (raw.some((value, i) => value.trim() !== '' && forms[i] === '')) mends.push({ what: 'unreadable', field })
    normal.set(field, [...(normal.get(field) ?? []), distinct(forms)])
  }
  return normal
}

const valuesOf = ({ values, country }: AudienceMember, field: SendField): readonly string[] =>
  field === 'country' ? [country] : (values[field] ?? [])

const distinct = (values: readonly string[]): string[] => [...new Set(values.filter((value) => value !== ''))]

/** Fields of groups that are not whole: a network takes all of a group, or none of it. */
function blankGroups(
  { rules: { together, everyRow } }: AudienceShape,
  normal: ReadonlyMap<SendField, readonly (readonly string[])[]>,
  mends: Mend[],
): ReadonlySet<SendField> {
  const blank = new Set<SendField>()
  const isThere = (field: SendField) => normal.get(field)?.some((all) => all.length > 0) ?? false
  for (const group of together) {
    const there = group.filter(isThere)
    if (there.length === 0 || there.length === group.length) continue
    mends.push({ what: 'group-left-blank', group })
    for (const field of group) if (!everyRow.includes(field)) blank.add(field)
  }
  return blank
}
