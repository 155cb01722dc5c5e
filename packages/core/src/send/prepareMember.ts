import type { AudienceShape, SendField } from './destination'
import {
  createMembersPreparer,
  type LeftOut,
  type MemberColumns,
  type Mend,
  type PrepareOptions,
} from './prepareMembers'

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
    const prepared = prepare(columnsOf(member))
    const [reason, mends] = [prepared.leftOutAt(0), prepared.mendsAt(0)]
    return reason ? { status: 'left-out', reason, mends } : { status: 'ready', cells: prepared.cellsAt(0), mends }
  }
}

const columnsOf = ({ country, numberCountry, values }: AudienceMember): MemberColumns => ({
  size: 1,
  countries: [country],
  numberCountries: [numberCountry],
  values: Object.fromEntries(Object.entries(values).map(([field, all]) => [field, [all]])),
})
