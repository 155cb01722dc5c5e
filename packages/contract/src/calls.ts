import { CALL_STATES } from '@upper-field/core/check'
import { OUTCOMES } from '@upper-field/core/split'
import { z } from 'zod'
import { Id, Instant, LineStatus, LineType } from './words'

export const CallOutcome = z.enum(OUTCOMES)

/** One contact to be called. */
export const CallItem = z.object({
  contactId: z.number().int(),
  fullName: z.string(),
  title: z.string(),
  company: z.string(),
  city: z.string(),
  country: z.string(),
  e164: z.string(),
  lineType: LineType,
  lineStatus: LineStatus,
  isShared: z.boolean(),
  call: z.enum(CALL_STATES),
  /** What the clocks there show, HH:MM, and until when it may be called; null where that is not known. */
  clock: z.string().nullable(),
  until: z.string().nullable(),
  /** The last call that stands, where there was one. */
  last: z.object({ outcome: CallOutcome, at: Instant }).nullable(),
})
export type CallItem = z.infer<typeof CallItem>

export const CallSheet = z.object({
  next: z.array(CallItem),
  /** How many may be called now, later, and again another time. */
  now: z.number().int(),
  later: z.number().int(),
  resting: z.number().int(),
  /** There are more of them than were counted. */
  isCapped: z.boolean(),
  /** What came of the calls of this day (UTC). */
  today: z.record(CallOutcome, z.number().int()),
  /** The last call of this day by whoever looks, to be taken back. */
  lastCall: z.object({ id: Id, fullName: z.string(), outcome: CallOutcome }).nullable(),
})
export type CallSheet = z.infer<typeof CallSheet>

export const NewCall = z.object({
  contactId: z.number().int(),
  e164: z.string().max(20),
  outcome: CallOutcome,
  /** When it is to be called again, for `later`. */
  againAt: Instant.nullable().default(null),
})
