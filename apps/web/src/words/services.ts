import type { Connection } from '@upper-field/contract'
import type { INPUT_SETS as ACCEPTED, GIVES as GIVEN, CHARGED_PER as PER } from '@upper-field/core/connect'
import { money } from './format'

/** What a charge is for. */
export const CHARGED_PER: Record<(typeof PER)[number], string> = {
  call: 'call',
  candidate: 'candidate',
  answered: 'answer',
  accepted: 'accepted value',
  deliverable: 'deliverable address',
}

export const GIVES: Record<(typeof GIVEN)[number], string> = {
  mobile: 'mobiles',
  'any-number': 'any number',
  'work-email': 'work e-mails',
  'personal-email': 'personal e-mails',
  'company-site': 'sites of companies',
  'company-page': 'page addresses of companies',
  'company-industry': 'industries',
  'company-headcount': 'headcounts',
  'line-facts': 'line type and status',
  'email-facts': 'deliverability',
  'do-not-call': 'do-not-call answers',
  businesses: 'businesses of a trade at a place',
}

export const ACCEPTS: Record<(typeof ACCEPTED)[number], string> = {
  profile: 'a profile address',
  'name-and-company': 'name and company',
  'name-and-domain': 'name and domain',
  email: 'an e-mail',
  number: 'a number',
  'trade-and-place': 'trade and place',
}

/** What one charge of a service is, and what for. */
export const priceText = ({
  price,
  pricePer,
  isPaidFor,
}: Pick<Connection, 'price' | 'pricePer' | 'isPaidFor'>): string =>
  isPaidFor ? 'paid for already' : `${money(price)} per ${CHARGED_PER[pricePer]}`
