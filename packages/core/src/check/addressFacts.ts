/** What a verifier says of an address. A host that accepts everything tells nothing of the one letter box. */
export const DELIVERABILITIES = ['deliverable', 'accept-all', 'undeliverable', 'unknown'] as const
export type Deliverability = (typeof DELIVERABILITIES)[number]

/** Of a contact's best address: also that nobody was asked about it, or that there is none. */
export const ADDRESS_STATES = ['deliverable', 'accept-all', 'unknown', 'not-checked', 'undeliverable', 'none'] as const
export type AddressState = (typeof ADDRESS_STATES)[number]

const RANK: Readonly<Record<AddressState, number>> = {
  deliverable: 0,
  'not-checked': 1,
  unknown: 1,
  'accept-all': 2,
  undeliverable: 3,
  none: 4,
}

/**
 * Addresses that take mail first, those that do not last; of two alike the one that stood first.
 * @param stateOf what the verifier has said of an address
 */
export function rankAddresses<E extends { readonly address: string }>(
  emails: readonly E[],
  stateOf: (address: string) => AddressState,
): readonly E[] {
  if (emails.length < 2) return emails
  return [...emails].sort((a, b) => RANK[stateOf(a.address)] - RANK[stateOf(b.address)])
}
