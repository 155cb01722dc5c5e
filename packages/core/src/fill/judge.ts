import type { LineType, Reading } from '../phone'
import { WANTS, type Want } from './plan'

export const SET_ASIDE_REASONS = [
  'unreadable',
  /** The answer names another person. */
  'somebody-else',
  /** The provider is less sure of it than the plan asks for. */
  'score-too-low',
  'not-a-mobile',
  'fixed-line',
  'out-of-service',
  'already-known',
  'later-than-first',
  /** The line register gave no answer about it that can be read. */
  'not-checked',
  /** An address of a role, or of another kind than is wanted. */
  'not-wanted',
  'undeliverable',
  /** Its host takes everything, or nobody could say: it is kept as risky. */
  'risky-address',
] as const
export type SetAsideReason = (typeof SET_ASIDE_REASONS)[number]

/** What of a candidate is kept though it is not what was wanted: nothing that was paid for is lost. */
export const KEPT_AS = ['office', 'risky', 'besides'] as const
export type KeptAs = (typeof KEPT_AS)[number]

/** As what a value was taken into a contact. */
export const FOUND_AS = [...WANTS, ...KEPT_AS] as const
export type FoundAs = Want | KeptAs

export type Judgement =
  | { readonly outcome: 'accepted'; readonly value: string; readonly found: Want }
  | {
      readonly outcome: 'set-aside'
      readonly reason: SetAsideReason
      /** The number or address as it was read; null where it was not. */
      readonly value: string | null
      readonly keptAs: KeptAs | null
    }

/** Of whom and how sure: the same for numbers and addresses. */
interface Candidate {
  readonly wants: readonly Want[]
  /** What the contact has already. */
  readonly known: readonly string[]
  /** The answer names somebody else than was asked about. */
  readonly isOther?: boolean
  readonly isUnsure?: boolean
}

export interface NumberCandidate extends Candidate {
  readonly reading: Reading
  /** The register's answer, where the plan asks for one. */
  readonly register: { readonly lineType: LineType; readonly isOutOfService: boolean } | null
}

const aside = (reason: SetAsideReason, value: string | null, keptAs: KeptAs | null = null): Judgement => ({
  outcome: 'set-aside',
  reason,
  value,
  keptAs,
})

/** Why a candidate is not looked at any further, whatever it is; null where it is. */
function whyNot({ known, isOther, isUnsure }: Candidate, value: string): SetAsideReason | null {
  if (isOther) return 'somebody-else'
  if (known.includes(value)) return 'already-known'
  return isUnsure ? 'score-too-low' : null
}

/**
 * Judges one number. Without a line check a number that may be either is taken on trust. A fixed line that was not asked
 * for is kept as the office's.
 */
export function judgeNumber(candidate: NumberCandidate): Judgement {
  const { reading, register, wants } = candidate
  const number = reading.numbers.find(({ valid }) => valid)
  if (!number) return aside('unreadable', null)
  const { e164 } = number
  const why = whyNot(candidate, e164)
  if (why) return aside(why, e164)
  if (register?.isOutOfService) return aside('out-of-service', e164)
  const lineType = register && register.lineType !== 'unknown' ? register.lineType : number.lineType
  const isMobile = lineType === 'mobile' || lineType === 'fixed-or-mobile'
  if (isMobile && wants.includes('mobile')) return { outcome: 'accepted', value: e164, found: 'mobile' }
  if (wants.includes('any-number'))
    return { outcome: 'accepted', value: e164, found: isMobile ? 'mobile' : 'any-number' }
  if (isMobile) return aside('not-wanted', e164, 'besides')
  return lineType === 'fixed' ? aside('fixed-line', e164, 'office') : aside('not-a-mobile', e164)
}

export interface AddressCandidate extends Candidate {
  /** Null for what is no address. */
  readonly email: { readonly address: string; readonly kind: string } | null
  /** What a verifier says of it; null where nobody was asked: then it is taken on trust. */
  readonly verified: 'deliverable' | 'accept-all' | 'undeliverable' | 'unknown' | null
}

const WANT_OF: ReadonlyMap<string, Want> = new Map([
  ['work', 'work-email'],
  ['personal', 'personal-email'],
])

/** Judges one address: of the kind that is wanted, and such that it takes mail. */
export function judgeAddress(candidate: AddressCandidate): Judgement {
  const { email, verified, wants } = candidate
  if (!email) return aside('unreadable', null)
  const { address } = email
  const why = whyNot(candidate, address)
  if (why) return aside(why, address)
  const want = WANT_OF.get(email.kind)
  if (verified === 'undeliverable') return aside('undeliverable', address)
  if (!want || !wants.includes(want)) return aside('not-wanted', address, want ? 'besides' : null)
  if (verified === 'accept-all' || verified === 'unknown') return aside('risky-address', address, 'risky')
  return { outcome: 'accepted', value: address, found: want }
}
