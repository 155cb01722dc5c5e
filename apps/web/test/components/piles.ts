import type { Piles } from '@upper-field/contract'

const NOTHING: Piles = {
  batch: {},
  country: {},
  verdict: {},
  line: {},
  status: {},
  lane: {},
  reason: {},
  is: {},
  sure: {},
  kind: {},
  address: {},
  call: {},
  suppressed: {},
  lines: {},
  countries: {},
  addresses: {},
  isEstimate: false,
}

/** Counts of a list by some facets. */
export const counted = (some: Partial<Piles>): Piles => ({ ...NOTHING, ...some })
