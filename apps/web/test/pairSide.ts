import type { PairSide } from '@upper-field/contract'

/** One of two contacts that may be one person, made up. */
export const side = (more: Partial<PairSide>): PairSide => ({
  contactId: 1,
  batch: 'Fair',
  row: 2,
  fullName: 'Zo Orrick',
  title: '',
  company: '',
  domain: '',
  city: '',
  postalCode: '',
  street: '',
  birthDate: '',
  country: '',
  profile: '',
  numbers: [],
  emails: [],
  ...more,
})
