import type { AudienceShape, SendField } from './destination'
import type { MemberColumns, MemberValue } from './memberColumns'
import { createMembersPreparer, type LeftOut, type Mend, type PrepareOptions } from './prepareMembers'

/** What is sent of one person or company, before it is brought into the destination's form: values of each field. */
export interface AudienceMember {
  /** ISO 3166-1 alpha-2, or empty: numbers and dates are read by it. */
  readonly country: string
  readonly values: Readonly<Partial<Record<SendField, readonly string[]>>>
  /** The country of the first number, where there is one. */
  readonly numberCountry: string | null
}

export type PreparedMember =
  | { readonly status: 'ready'; readonly cells: readonly string[]; readonly mends: readonly Mend[] }
  | { readonly status: 'left-out'; readonly reason: LeftOut; readonly mends: readonly Mend[] }

/** Brings one after the other into a destination's form: for those who are not there column by column. */
export function createPreparer(
  shape: AudienceShape,
  options: PrepareOptions,
): (member: AudienceMember) => PreparedMember {
  const prepare = createMembersPreparer(shape, options)
  return (member) => {
    const prepared = prepare(columnsOf([member]))
    const [reason, mends] = [prepared.leftOutAt(0), prepared.mendsAt(0)]
    return reason ? { status: 'left-out', reason, mends } : { status: 'ready', cells: prepared.cellsAt(0), mends }
  }
}

/** The same people or companies field by field. */
export function columnsOf(members: readonly AudienceMember[]): MemberColumns {
  const fields = new Set(members.flatMap(({ values }) => Object.keys(values) as SendField[]))
  return {
    size: members.length,
    countries: members.map(({ country }) => country),
    numberCountries: members.map(({ numberCountry }) => numberCountry),
    values: Object.fromEntries(
      [...fields].map((field): [SendField, readonly MemberValue[]] => [
        field,
        members.map(({ values }) => oneOrSeveral(values[field])),
      ]),
    ),
  }
}

const oneOrSeveral = (values: readonly string[] = []): MemberValue => (values.length === 1 ? (values[0] ?? '') : values)
