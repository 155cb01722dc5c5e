import type { LineType, Reading } from '../phone'

export const ATTEMPT_STATES = ['waiting', 'accepted', 'set-aside', 'nothing', 'failed', 'late'] as const
/** `waiting` for a late answer; `late` where it never came in time. */
export type AttemptState = (typeof ATTEMPT_STATES)[number]

export interface AttemptFacts {
  readonly provider: string
  readonly state: AttemptState
}

export type NextAct =
  | { readonly act: 'ask'; readonly provider: string }
  | { readonly act: 'wait' }
  | { readonly act: 'end'; readonly outcome: 'found' | 'not-found' }

/** Until one finds somebody; or everybody, to learn what each is worth. */
export const ASKING = ['until-found', 'everybody'] as const
export type Asking = (typeof ASKING)[number]

/**
 * What to do next for one contact: the providers are asked in order, the first accepted candidate ends the search. Where
 * everybody is asked, nothing ends it before all were, and late answers are not waited for in between.
 * @param eligible the providers of the plan that can be asked about this contact, in the plan's order
 */
export function nextAct(
  eligible: readonly string[],
  attempts: readonly AttemptFacts[],
  asking: Asking = 'until-found',
): NextAct {
  const isFound = attempts.some(({ state }) => state === 'accepted')
  const isWaiting = attempts.some(({ state }) => state === 'waiting')
  if (asking === 'until-found') {
    if (isFound) return { act: 'end', outcome: 'found' }
    if (isWaiting) return { act: 'wait' }
  }
  const asked = new Set(attempts.map(({ provider }) => provider))
  const provider = eligible.find((id) => !asked.has(id))
  if (provider !== undefined) return { act: 'ask', provider }
  return isWaiting ? { act: 'wait' } : { act: 'end', outcome: isFound ? 'found' : 'not-found' }
}

export const SET_ASIDE_REASONS = [
  'unreadable',
  /** The answer names another person. */
  'somebody-else',
  'not-a-mobile',
  'fixed-line',
  'out-of-service',
  'already-known',
  'later-than-first',
  /** The line register gave no answer about it that can be read. */
  'not-checked',
] as const
export type SetAsideReason = (typeof SET_ASIDE_REASONS)[number]

export type CandidateJudgement =
  | { readonly outcome: 'accepted'; readonly e164: string }
  | { readonly outcome: 'set-aside'; readonly reason: SetAsideReason; readonly e164: string | null }

export interface CandidateInput {
  readonly reading: Reading
  /** The register's answer, where the plan asks for one. */
  readonly register: { readonly lineType: LineType; readonly isOutOfService: boolean } | null
  readonly known: readonly string[]
  /** The answer names somebody else than was asked about. */
  readonly isOther?: boolean
}

/** Judges one candidate for a mobile. Without a line check a number that may be either is taken on trust. */
export function judgeCandidate({ reading, register, known, isOther = false }: CandidateInput): CandidateJudgement {
  const number = reading.numbers.find(({ valid }) => valid)
  if (!number) return { outcome: 'set-aside', reason: 'unreadable', e164: null }
  const { e164 } = number
  const aside = (reason: SetAsideReason): CandidateJudgement => ({ outcome: 'set-aside', reason, e164 })
  if (isOther) return aside('somebody-else')
  if (known.includes(e164)) return aside('already-known')
  const lineType = register && register.lineType !== 'unknown' ? register.lineType : number.lineType
  if (lineType === 'fixed') return aside('fixed-line')
  if (lineType !== 'mobile' && lineType !== 'fixed-or-mobile') return aside('not-a-mobile')
  if (register?.isOutOfService) return aside('out-of-service')
  return { outcome: 'accepted', e164 }
}
