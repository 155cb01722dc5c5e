import { serves, stillWanted, type Want } from './plan'
import type { ProviderTerms } from './providers'

export const ATTEMPT_STATES = ['waiting', 'accepted', 'set-aside', 'nothing', 'failed', 'late'] as const
/** `waiting` for a late answer; `late` where it never came in time. */
export type AttemptState = (typeof ATTEMPT_STATES)[number]

export interface AttemptFacts {
  readonly provider: string
  readonly state: AttemptState
  /** What of the wanted was accepted. */
  readonly found: readonly Want[]
}

export const SEARCH_OUTCOMES = ['found', 'partly', 'not-found'] as const
export type SearchOutcome = (typeof SEARCH_OUTCOMES)[number]

export type NextAct =
  | { readonly act: 'ask'; readonly provider: string }
  | { readonly act: 'wait' }
  | { readonly act: 'end'; readonly outcome: SearchOutcome }

/** Until all that is wanted is found; or everybody, to learn what each is worth. */
export const ASKING = ['until-found', 'everybody'] as const
export type Asking = (typeof ASKING)[number]

/** The search for what one contact lacks. */
export interface Search {
  /** The providers of the plan that can be asked about this contact, in the plan's order. */
  readonly eligible: readonly Pick<ProviderTerms, 'id' | 'gives'>[]
  readonly attempts: readonly AttemptFacts[]
  readonly wants: readonly Want[]
  readonly asking?: Asking
}

/**
 * What to do next for one contact: the providers that may give what is still wanted are asked in order, until all of it
 * is accepted. Where everybody is asked, nothing ends it before all were, and late answers are not waited for in between.
 */
export function nextAct({ eligible, attempts, wants, asking = 'until-found' }: Search): NextAct {
  const open = stillWanted(
    wants,
    attempts.flatMap(({ found }) => found),
  )
  const isWaiting = attempts.some(({ state }) => state === 'waiting')
  if (asking === 'until-found') {
    if (open.length === 0) return { act: 'end', outcome: 'found' }
    if (isWaiting) return { act: 'wait' }
  }
  const asked = new Set(attempts.map(({ provider }) => provider))
  const looksFor = asking === 'everybody' ? wants : open
  const next = eligible.find(({ id, gives }) => !asked.has(id) && looksFor.some((want) => serves(gives, want)))
  if (next) return { act: 'ask', provider: next.id }
  if (isWaiting) return { act: 'wait' }
  return { act: 'end', outcome: open.length === 0 ? 'found' : open.length < wants.length ? 'partly' : 'not-found' }
}
