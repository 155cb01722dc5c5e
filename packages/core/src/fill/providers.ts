/** Money in millionths of a euro, so that sums are exact. */
export type Micros = number

/** What a provider must be told to look somebody up. */
export const PERSON_INPUTS = ['profile', 'name-and-company', 'name-and-domain', 'email'] as const
export type PersonInput = (typeof PERSON_INPUTS)[number]

/** A provider as a fill sees it: what it needs, and how it charges. */
export interface ProviderTerms {
  readonly id: string
  readonly gives: readonly string[]
  readonly accepts: readonly string[]
  readonly charge: {
    /** For every call; for every candidate; where there is an answer; for a value that is taken. */
    readonly per: 'call' | 'candidate' | 'answered' | 'accepted' | 'deliverable'
    readonly amount: Micros
  }
  /** Most candidates in one answer. */
  readonly mostCandidates: number
}

export interface Askable {
  readonly fullName: string
  readonly company: string
  readonly domain: string
  readonly profile: string
  readonly email: string
}

/**
 * The first of what a provider accepts that a contact can serve, in the provider's order; null where there is none.
 * @param only of these alone; empty for any
 */
export function inputFor(
  provider: Pick<ProviderTerms, 'accepts'>,
  contact: Askable,
  only: readonly PersonInput[] = [],
): PersonInput | null {
  const has: Record<PersonInput, boolean> = {
    profile: contact.profile !== '',
    'name-and-company': contact.fullName !== '' && contact.company !== '',
    'name-and-domain': contact.fullName !== '' && contact.domain !== '',
    email: contact.email !== '',
  }
  const isServed = (input: string): input is PersonInput =>
    Object.hasOwn(has, input) && has[input as PersonInput] && (only.length === 0 || only.includes(input as PersonInput))
  return provider.accepts.find(isServed) ?? null
}

/**
 * The most one asking can cost, line checks of its candidates included: reserved before the provider is asked.
 * @param checkPrice what the register charges for one candidate; 0 where none is checked
 */
export function mostCost({ charge, mostCandidates }: ProviderTerms, checkPrice: Micros): Micros {
  const own = charge.per === 'candidate' ? charge.amount * mostCandidates : charge.amount
  return own + checkPrice * mostCandidates
}

/** What of an answer it is charged by. */
export interface AnswerFacts {
  readonly candidates: number
  readonly accepted: boolean
  /** Addresses that take mail. */
  readonly deliverable: number
}

/** What the provider charges for one answer. */
export function costOfAnswer(
  { charge: { per, amount }, mostCandidates }: ProviderTerms,
  { candidates, accepted, deliverable }: AnswerFacts,
): Micros {
  switch (per) {
    case 'call':
      return amount
    case 'candidate':
      return amount * Math.min(candidates, mostCandidates)
    case 'answered':
      return candidates > 0 ? amount : 0
    case 'accepted':
      return accepted ? amount : 0
    case 'deliverable':
      return deliverable > 0 ? amount : 0
  }
}
