import type { LEFT_OUT } from '@upper-field/contract'
import type { FoundAs, Want } from '@upper-field/core/fill'

/** Why somebody who lacks what is wanted is left out of a fill. */
export const LEFT_OUT_OF_FILL: Record<(typeof LEFT_OUT)[number], string> = {
  suppressed: 'on a suppression list',
  'no-lawful-basis': 'no lawful basis is recorded where their country needs one',
  'nobody-to-ask': 'no provider of the plan can be asked about them',
}

/** What a fill looks for. */
export const WANT: Record<Want, string> = {
  mobile: 'A mobile',
  'any-number': 'Any number',
  'work-email': 'Work e-mail',
  'personal-email': 'Personal e-mail',
}

export const FOUND_AS: Record<FoundAs, string> = {
  mobile: 'Mobile',
  'any-number': 'Number',
  'work-email': 'Work e-mail',
  'personal-email': 'Personal e-mail',
  office: 'Number of the office',
  risky: 'Risky address',
  besides: 'Something more',
}

export const CANDIDATE: Record<string, string> = {
  accepted: 'accepted',
  unreadable: 'not a number',
  'somebody-else': 'of somebody else',
  'not-a-mobile': 'not a mobile',
  'fixed-line': 'a fixed line',
  'out-of-service': 'out of service',
  'already-known': 'known already',
  'later-than-first': 'not needed any more',
  'not-checked': 'the line register gave no answer that can be read',
  'score-too-low': 'the provider is not sure enough',
  'not-wanted': 'not what was looked for',
  undeliverable: 'takes no mail',
  'risky-address': 'may not take mail: kept as risky',
}
