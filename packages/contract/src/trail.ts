import { ATTEMPT_STATES, FOUND_AS, KEPT_AS, SEARCH_OUTCOMES, SET_ASIDE_REASONS, WANTS } from '@upper-field/core/fill'
import { z } from 'zod'
import { Id, Instant, Micros } from './words'

/** How a search stands: under way, ended, or ended from outside. */
export const SEARCH_STATES = ['open', 'waiting', ...SEARCH_OUTCOMES, 'budget', 'left-out'] as const

/** One provider that was asked about a contact. */
export const TrailStep = z.object({
  provider: z.string(),
  state: z.enum(ATTEMPT_STATES),
  /** Why it failed: a code. */
  reason: z.string().nullable(),
  /** Why what it gave was set aside, each once. */
  aside: z.array(z.enum(SET_ASIDE_REASONS)),
})
export type TrailStep = z.infer<typeof TrailStep>

/** The course of one contact through a fill. */
export const TrailLine = z.object({
  contactId: z.number().int(),
  fullName: z.string(),
  country: z.string(),
  state: z.enum(SEARCH_STATES),
  steps: z.array(TrailStep),
  /** What was taken into the contact. */
  taken: z.array(z.object({ value: z.string(), foundAs: z.enum(FOUND_AS) })),
  cost: Micros,
})
export type TrailLine = z.infer<typeof TrailLine>

export const TrailPage = z.object({
  jobId: Id,
  startedAt: Instant,
  total: z.number().int(),
  /** Contacts by the provider that found something, and by why something was set aside. */
  foundBy: z.record(z.string(), z.number().int()),
  because: z.record(z.string(), z.number().int()),
  lines: z.array(TrailLine),
  next: z.string().nullable(),
})
export type TrailPage = z.infer<typeof TrailPage>

/** Why somebody of the plan was not asked about a contact. */
export const NOT_ASKED = ['no-input', 'asked-lately', 'ended-before', 'not-yet'] as const

export const TrailCandidate = z.object({
  position: z.number().int(),
  raw: z.string(),
  score: z.number().int(),
  value: z.string().nullable(),
  outcome: z.union([z.literal('accepted'), z.enum(SET_ASIDE_REASONS)]),
  keptAs: z.enum(KEPT_AS).nullable(),
  /** It can be taken by hand, for so much; null where it cannot. */
  mayTake: Micros.nullable(),
})
export type TrailCandidate = z.infer<typeof TrailCandidate>

/** What one provider was asked, said and charged, or why it was not asked. */
export const ContactStep = z.object({
  provider: z.string(),
  attempt: z
    .object({
      id: Id,
      state: z.enum(ATTEMPT_STATES),
      reason: z.string().nullable(),
      askedAt: Instant,
      answeredAt: Instant.nullable(),
      cost: Micros,
      checks: Micros,
      candidates: z.array(TrailCandidate),
    })
    .nullable(),
  notAsked: z.enum(NOT_ASKED).nullable(),
  /** What asking it about this contact alone costs at most; null where it cannot be asked. */
  mayAsk: Micros.nullable(),
})
export type ContactStep = z.infer<typeof ContactStep>

/** The course of one contact, opened. */
export const ContactTrail = z.object({
  jobId: Id,
  state: z.enum(SEARCH_STATES),
  wants: z.array(z.enum(WANTS)),
  steps: z.array(ContactStep),
})
export type ContactTrail = z.infer<typeof ContactTrail>
