import type { AudienceShape, SendField } from './destination'
import { IDENTIFIER_KINDS, type IdentifierKind } from './forecast'
import { countValues, type MemberColumns } from './memberColumns'

/** What is known of a member beyond the values that are sent: of what kind its addresses and numbers are. */
export interface KindsKnown {
  readonly hasPersonalEmail: boolean
  readonly hasWorkEmail: boolean
  readonly hasMobile: boolean
}

/** The kinds of identifiers a destination can match by: those that its rules name as such. */
export function kindsTaken({ rules: { someOf } }: Pick<AudienceShape, 'rules'>): readonly IdentifierKind[] {
  const kinds = someOf.flatMap((field) => KINDS_OF[field] ?? [])
  return IDENTIFIER_KINDS.filter((kind) => kinds.includes(kind))
}

const KINDS_OF: Readonly<Partial<Record<SendField, readonly IdentifierKind[]>>> = {
  email: ['personal-email', 'work-email'],
  number: ['mobile', 'other-number'],
  'given-name': ['name-and-place'],
  'family-name': ['name-and-place'],
  'full-name': ['name-and-place'],
  'device-id': ['device'],
  'company-page': ['company-page'],
  site: ['site'],
  company: ['company-name'],
}

/** Fields that tell by which kinds a member may be matched: see `identifiersAt`. */
export const IDENTIFYING_FIELDS: readonly SendField[] = [
  ...(Object.keys(KINDS_OF) as SendField[]),
  'postal-code',
  'country',
]

/** By which kinds of identifiers the member at a place may be matched there. */
export function identifiersAt(
  { values, countries }: Pick<MemberColumns, 'values' | 'countries'>,
  at: number,
  known: KindsKnown,
  taken: readonly IdentifierKind[],
): ReadonlySet<IdentifierKind> {
  const has = (field: SendField) => countValues(values[field]?.[at]) > 0
  const isOf = (kind: IdentifierKind): boolean => {
    switch (kind) {
      case 'personal-email':
        return known.hasPersonalEmail
      case 'work-email':
        return known.hasWorkEmail || (has('email') && !known.hasPersonalEmail)
      case 'mobile':
        return known.hasMobile
      case 'other-number':
        return has('number') && !known.hasMobile
      case 'name-and-place':
        return countries[at] !== '' && has('given-name') && has('family-name') && has('postal-code')
      case 'device':
        return has('device-id')
      case 'company-page':
        return has('company-page')
      case 'site':
        return has('site')
      case 'company-name':
        return has('company')
    }
  }
  return new Set(taken.filter(isOf))
}
