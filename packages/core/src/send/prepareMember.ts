import { remember } from '../remember'
import { harmlessCell } from '../table'
import type { AudienceShape, SendField } from './destination'
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
 * Brings people or companies into a destination's form, one after the other. Blank values stay blank: they are never
 * hashed, and no country code is put before an empty number. What a shape asks for is worked out once, and what stands
 * in many rows is brought into form once.
 */
export function createPreparer(
  shape: AudienceShape,
  { hash }: PrepareOptions,
): (member: AudienceMember) => PreparedMember {
  const columns = columnsOf(shape, hash)
  const { everyRow, someOf, together } = shape.rules
  const atOf = (field: SendField) => columns.flatMap((column, at) => (column.field === field ? at : []))
  const every = everyRow.map((field) => ({ field, at: atOf(field) }))
  const some = someOf.map(atOf)
  const groups = together.map((group) => ({
    group,
    at: group.map(atOf),
    loses: group.filter((field) => !everyRow.includes(field)).flatMap(atOf),
  }))
  return (member) => {
    const mends: Mend[] = []
    const country = countryOf(member, mends)
    const normal = columns.map((column) => column.read(member, country, mends))
    const isThere = (at: readonly number[]) => at.some((one) => (normal[one]?.length ?? 0) > 0)
    const notWhole = groups.filter(({ at }) => at.some(isThere) && !at.every(isThere))
    for (const { group, loses } of notWhole) {
      mends.push({ what: 'group-left-blank', group })
      for (const one of loses) normal[one] = NO_FORMS
    }
    if (!some.some(isThere)) return { status: 'left-out', reason: { why: 'nothing-to-match' }, mends }
    const missing = every.find(({ at }) => !isThere(at))
    if (missing) return { status: 'left-out', reason: { why: 'missing', field: missing.field }, mends }
    const cells: string[] = []
    for (const [at, column] of columns.entries()) {
      for (let i = 0; i < column.repeats; i++) {
        const value = normal[at]?.[i]
        cells.push(value === undefined ? '' : column.cellOf(value))
      }
    }
    return { status: 'ready', cells, mends }
  }
}

const NOTHING: readonly string[] = []

/** A value in the form of its column, and as it stands in a cell; null where that is not worked out yet. */
interface InForm {
  readonly form: string
  readonly cell: string | null
}

interface PreparedColumn {
  readonly field: SendField
  /** A member's values in the form of the column: none that is blank, and each once. */
  read(member: AudienceMember, country: string, mends: Mend[]): readonly InForm[]
  /** So many cells of a line are its own. */
  readonly repeats: number
  cellOf(value: InForm): string
}

const columnsOf = ({ columns }: AudienceShape, hash: PrepareOptions['hash']): readonly PreparedColumn[] =>
  columns.map(({ field, form, repeats, isHashed }) => {
    // A plain file is opened by people too. Numbers in E.164 stay as the network compares them: they compute nothing.
    const asCell = isHashed && hash ? hash : harmlessCell
    const inForm = remembered(field, form, asCell)
    return {
      field,
      repeats,
      cellOf: ({ form, cell }) => cell ?? asCell(form),
      read: (member, country, mends) => {
        const raw = field === 'country' ? [country] : (member.values[field] ?? NOTHING)
        const [only] = raw
        if (only === undefined) return NO_FORMS
        // One value of a field is the usual case, and this runs for every cell of a file.
        const forms = raw.length === 1 ? [inForm(only, country)] : raw.map((value) => inForm(value, country))
        if (forms.some(({ form }, i) => form === '' && raw[i]?.trim() !== '')) mends.push({ what: 'unreadable', field })
        return distinct(forms)
      },
    }
  })

/** Nearly everybody has an address and a number of their own: there is nothing to remember. */
const OF_ONE_S_OWN: ReadonlySet<SendField> = new Set(['email', 'number', 'full-name', 'device-id'])

/** A value is brought into form, and hashed, once for all rows it stands in. */
function remembered(
  field: SendField,
  form: readonly string[],
  asCell: (text: string) => string,
): (value: string, country: string) => InForm {
  const isOwn = OF_ONE_S_OWN.has(field)
  const inForm = (value: string, country: string): InForm => {
    const text = normalForm(value, form, { country: country || null })
    return text === '' ? BLANK : { form: text, cell: isOwn ? null : asCell(text) }
  }
  if (isOwn) return inForm
  const byCountry = remember((country) => remember((value) => inForm(value, country), REMEMBERED), COUNTRIES)
  return (value, country) => byCountry(country)(value)
}

const BLANK: InForm = { form: '', cell: '' }
const NO_FORMS: readonly InForm[] = []

/** So many values of a column are remembered, and of so many countries. */
const REMEMBERED = 5000
const COUNTRIES = 50

function countryOf({ country, numberCountry }: AudienceMember, mends: Mend[]): string {
  if (country !== '' || numberCountry === null) return country
  mends.push({ what: 'country-from-number' })
  return numberCountry
}

function distinct(values: readonly InForm[]): readonly InForm[] {
  if (values.length === 1) return values[0] === BLANK ? NO_FORMS : values
  const all = new Map(values.filter((value) => value !== BLANK).map((value) => [value.form, value]))
  return [...all.values()]
}
