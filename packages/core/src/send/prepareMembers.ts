import { remember } from '../remember'
import { csvCell, harmlessCell } from '../table'
import type { AudienceShape, SendField } from './destination'
import type { MemberColumns, MemberValue } from './memberColumns'
import { normalForm } from './normalForms'

/** Why somebody is not sent: a field is missing that has to be there, or nothing to match by. */
export type LeftOut = { readonly why: 'missing'; readonly field: SendField } | { readonly why: 'nothing-to-match' }

/** What was mended on the way, or left blank. */
export type Mend =
  | { readonly what: 'country-from-number' }
  | { readonly what: 'group-left-blank'; readonly group: readonly SendField[] }
  /** A value that is not what its form asks for: no number, no country, no date. */
  | { readonly what: 'unreadable'; readonly field: SendField }

export interface PrepareOptions {
  /** SHA-256 of a text in UTF-8 as lower-case hex; null for a plain file. */
  readonly hash: ((text: string) => string) | null
}

/** Members in a destination's form, by their places. */
export interface PreparedMembers {
  /** Null for whom is ready. */
  leftOutAt(at: number): LeftOut | null
  mendsAt(at: number): readonly Mend[]
  /** The cells of somebody who is ready. */
  cellsAt(at: number): readonly string[]
  /** The same as a line of CSV. */
  lineAt(at: number): string
}

/** Brings people or companies into the form of one destination. */
export type PrepareMembers = (members: MemberColumns) => PreparedMembers

/**
 * Brings people or companies into a destination's form, many at a time and column by column, which takes a fraction of
 * doing it one by one. Blank values stay blank: they are never hashed, and no country code is put before an empty number.
 * What a shape asks for is worked out once, and what stands in many rows is brought into form once.
 */
export function createMembersPreparer(shape: AudienceShape, { hash }: PrepareOptions): PrepareMembers {
  const columns = shape.columns.map((column) => preparedColumn(column, hash))
  const leavesOut = leftOutBy(shape)
  return (members) => {
    const mends = new Map<number, Mend[]>()
    const note = (at: number, mend: Mend) => {
      const known = mends.get(at)
      if (known) known.push(mend)
      else mends.set(at, [mend])
    }
    const countries = countriesOf(members, note)
    const forms = columns.map((column) => column.formsOf(members, countries, note))
    const leftOut = leavesOut(forms, members.size, note)
    return {
      leftOutAt: (at) => leftOut.get(at) ?? null,
      mendsAt: (at) => mends.get(at) ?? NO_MENDS,
      cellsAt: (at) => cellsAt(columns, forms, at, 'cellOf'),
      lineAt: (at) => `${cellsAt(columns, forms, at, 'csvOf').join(',')}\r\n`,
    }
  }
}

const NO_MENDS: readonly Mend[] = []

type Note = (at: number, mend: Mend) => void

/** Each one's values in the form of a column, by their places: none that is blank, and each once. */
type Forms = MemberValue[]

interface PreparedColumn {
  /** So many cells of a line are its own. */
  readonly repeats: number
  formsOf(members: MemberColumns, countries: readonly string[], note: Note): Forms
  cellOf(form: string): string
  /** The cell as CSV has it. */
  csvOf(form: string): string
}

/** Nearly everybody has an address and a number of their own: there is nothing to remember. */
const OF_ONE_S_OWN: ReadonlySet<SendField> = new Set(['email', 'number', 'full-name', 'device-id'])

/** So many values of a column are remembered, and of so many countries. */
const REMEMBERED = 5000
const COUNTRIES = 50

function preparedColumn(
  { field, form, repeats, isHashed }: AudienceShape['columns'][number],
  hash: PrepareOptions['hash'],
): PreparedColumn {
  const isOwn = OF_ONE_S_OWN.has(field)
  const kept = <T>(answer: (text: string) => T) => (isOwn ? answer : remember(answer, REMEMBERED))
  const formIn = remember(
    (country) => kept((value) => normalForm(value, form, { country: country || null })),
    COUNTRIES,
  )
  const hashOf = isHashed ? hash : null
  return {
    repeats,
    // A plain file is opened by people too. Numbers in E.164 stay as the network compares them: they compute nothing.
    cellOf: kept(hashOf ?? harmlessCell),
    // No digit of a hash needs quotes.
    csvOf: kept(hashOf ?? ((text) => csvCell(harmlessCell(text)))),
    formsOf: ({ size, values }, countries, note) => {
      const raw: readonly MemberValue[] = field === 'country' ? countries : (values[field] ?? NOTHING)
      const forms: Forms = new Array(size)
      const unreadable: Mend = { what: 'unreadable', field }
      for (let at = 0; at < size; at++) {
        const value = raw[at] ?? ''
        const inForm = formIn(countries[at] ?? '')
        if (typeof value !== 'string') forms[at] = severalForms(value, inForm, () => note(at, unreadable))
        else {
          const text = value === '' ? '' : inForm(value)
          if (text === '' && value !== '' && value.trim() !== '') note(at, unreadable)
          forms[at] = text
        }
      }
      return forms
    },
  }
}

const NOTHING: readonly string[] = []

/** @param onUnreadable told once where the form cannot read a value */
function severalForms(
  values: readonly string[],
  inForm: (value: string) => string,
  onUnreadable: () => void,
): MemberValue {
  const forms = values.map(inForm)
  if (forms.some((form, i) => form === '' && values[i]?.trim() !== '')) onUnreadable()
  const distinct = [...new Set(forms.filter((form) => form !== ''))]
  return distinct.length > 1 ? distinct : (distinct[0] ?? '')
}

/** Where somebody's country is not known, that of their number is. */
function countriesOf({ size, countries, numberCountries }: MemberColumns, note: Note): readonly string[] {
  const known: string[] = new Array(size)
  for (let at = 0; at < size; at++) {
    const own = countries[at] ?? ''
    const ofNumber = own === '' ? (numberCountries[at] ?? null) : null
    if (ofNumber !== null) note(at, { what: 'country-from-number' })
    known[at] = ofNumber ?? own
  }
  return known
}

/** Whom the rules of a shape leave out, by their places; where a group is not whole, its forms are made blank. */
function leftOutBy({ columns, rules: { everyRow, someOf, together } }: AudienceShape) {
  const placesOf = (field: SendField) => columns.flatMap((column, i) => (column.field === field ? i : []))
  const every = everyRow.map((field) => ({ field, places: placesOf(field) }))
  const some = someOf.flatMap(placesOf)
  const groups = together.map((group) => ({
    group,
    places: group.map(placesOf),
    loses: group.filter((field) => !everyRow.includes(field)).flatMap(placesOf),
  }))
  return (forms: readonly Forms[], size: number, note: Note): ReadonlyMap<number, LeftOut> => {
    const leftOut = new Map<number, LeftOut>()
    for (let at = 0; at < size; at++) {
      const isThere = (place: number) => (forms[place]?.[at] ?? '') !== ''
      const notWhole = groups.filter(({ places }) => {
        const those = places.filter((of) => of.some(isThere)).length
        return those > 0 && those < places.length
      })
      for (const { group, loses } of notWhole) {
        note(at, { what: 'group-left-blank', group })
        for (const place of loses) {
          const column = forms[place]
          if (column) column[at] = ''
        }
      }
      const missing = some.some(isThere) ? every.find(({ places }) => !places.some(isThere)) : null
      if (missing === null) leftOut.set(at, { why: 'nothing-to-match' })
      else if (missing) leftOut.set(at, { why: 'missing', field: missing.field })
    }
    return leftOut
  }
}

const formAt = (value: MemberValue, i: number): string =>
  typeof value === 'string' ? (i === 0 ? value : '') : (value[i] ?? '')

/** The cells of somebody's line, as they are or as CSV has them. */
function cellsAt(
  columns: readonly PreparedColumn[],
  forms: readonly Forms[],
  at: number,
  written: 'cellOf' | 'csvOf',
): string[] {
  const cells: string[] = []
  for (const [place, column] of columns.entries()) {
    const value = forms[place]?.[at] ?? ''
    for (let i = 0; i < column.repeats; i++) {
      const form = formAt(value, i)
      cells.push(form === '' ? '' : column[written](form))
    }
  }
  return cells
}
