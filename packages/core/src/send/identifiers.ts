import type { AudienceShape } from './destination'
import type { IdentifierKind } from './forecast'
import type { AudienceMember } from './prepareMember'

/** What is known of a member beyond the values that are sent: of what kind its addresses and numbers are. */
export interface KindsKnown {
  readonly hasPersonalEmail: boolean
  readonly hasWorkEmail: boolean
  readonly hasMobile: boolean
}

/** The kinds of identifiers a destination can match by. */
export function kindsTaken({ columns }: AudienceShape): readonly IdentifierKind[] {
  const fields = new Set(columns.map(({ field }) => field))
  const named = (['given-name', 'family-name', 'postal-code', 'country'] as const).every((field) => fields.has(field))
  return [
    ...(fields.has('email') ? (['personal-email', 'work-email'] as const) : []),
    ...(fields.has('number') ? (['mobile', 'other-number'] as const) : []),
    ...(named ? (['name-and-place'] as const) : []),
    ...(fields.has('device-id') ? (['device'] as const) : []),
    ...(fields.has('company-page') ? (['company-page'] as const) : []),
    ...(fields.has('site') ? (['site'] as const) : []),
    ...(fields.has('company') && !fields.has('email') ? (['company-name'] as const) : []),
  ]
}

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
