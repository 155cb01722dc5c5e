import type { SendField } from './destination'

/** What somebody has in a field: one text, or several; an empty one is nothing. */
export type MemberValue = string | readonly string[]

/** How many values somebody has in a field. */
export const countValues = (value: MemberValue = ''): number =>
  typeof value === 'string' ? Number(value !== '') : value.filter((one) => one !== '').length

/** People or companies before they are brought into a destination's form, field by field. */
export interface MemberColumns {
  readonly size: number
  /** ISO 3166-1 alpha-2, or empty: numbers and dates are read by it. */
  readonly countries: readonly string[]
  /** The country of each one's first number, where there is one. */
  readonly numberCountries: readonly (string | null)[]
  readonly values: Readonly<Partial<Record<SendField, readonly MemberValue[]>>>
}

/** Some of them, from a place to before another. */
export function membersFrom(members: MemberColumns, from: number, to: number): MemberColumns {
  const { countries, numberCountries, values } = members
  const some = Object.entries(values) as [SendField, readonly MemberValue[]][]
  return {
    size: Math.max(0, Math.min(members.size, to) - from),
    countries: countries.slice(from, to),
    numberCountries: numberCountries.slice(from, to),
    values: Object.fromEntries(some.map(([field, all]) => [field, all.slice(from, to)])),
  }
}
