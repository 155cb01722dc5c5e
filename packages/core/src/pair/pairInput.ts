import type { LineType } from '../phone'
import type { PairInput } from './pairTable'

/** A contact as pairing looks at it, whatever else is known of it. */
export interface Pairable {
  readonly values: Omit<PairInput, 'numbers' | 'emails'>
  readonly numbers: readonly { readonly e164: string; readonly valid: boolean; readonly lineType: LineType }[]
  readonly emails: readonly { readonly address: string; readonly kind: string }[]
}

/** Where the plan cannot tell, a line may be a mobile: whether several people hold it, the list tells. */
const MOBILES: ReadonlySet<LineType> = new Set(['mobile', 'fixed-or-mobile'])

/** What pairing looks at in a contact: valid numbers, of which mobiles are one person's, and role addresses apart. */
export const pairInputOf = ({ values, numbers, emails }: Pairable): PairInput => ({
  fullName: values.fullName,
  givenName: values.givenName,
  familyName: values.familyName,
  company: values.company,
  domain: values.domain,
  profile: values.profile,
  city: values.city,
  postalCode: values.postalCode,
  country: values.country,
  street: values.street ?? '',
  birthDate: values.birthDate ?? '',
  numbers: numbers
    .filter(({ valid }) => valid)
    .map(({ e164, lineType }) => ({ e164, isMobile: MOBILES.has(lineType), mayBeFixed: lineType !== 'mobile' })),
  emails: emails.map(({ address, kind }) => ({ address, isRole: kind === 'role' })),
})
