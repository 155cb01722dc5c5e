import type { AudienceShape, SendField } from './destination'
import { IDENTIFIER_KINDS, type IdentifierKind } from './forecast'
import type { AudienceMember } from './prepareMember'

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

/** Fields that tell by which kinds a member may be matched: see `identifiersOf`. */
export const IDENTIFYING_FIELDS: readonly SendField[] = [
  ...(Object.keys(KINDS_OF) as SendField[]),
  'postal-code',
  'country',
]

/** By which kinds of identifiers a member may be matched there. */
export function identifiersOf(
  { values, country }: AudienceMember,
  known: KindsKnown,
  taken: readonly IdentifierKind[],
): ReadonlySet<IdentifierKind> {
  const has = (field: keyof AudienceMember['values']) => (values[field] ?? []).some((value) => value !== '')
  const isNamed = has('given-name') && has('family-name') && has('postal-code') && country !== ''
  const kinds: Readonly<Record<IdentifierKind, boolean>> = {
    'personal-email': known.hasPersonalEmail,
    'work-email': known.hasWorkEmail || (has('email') && !known.hasPersonalEmail),
    mobile: known.hasMobile,
    'other-number': has('number') && !known.hasMobile,
    'name-and-place': isNamed,
    device: has('device-id'),
    'company-page': has('company-page'),
    site: has('site'),
    'company-name': has('company'),
  }
  return new Set(taken.filter((kind) => kinds[kind]))
}
