import { CALL_STATES, DELIVERABILITIES } from '@upper-field/core/check'
import { FOUND_AS } from '@upper-field/core/fill'
import { OUTCOMES, SCOPES } from '@upper-field/core/split'
import { z } from 'zod'
import {
  AddressState,
  ChangeCode,
  EmailKind,
  Field,
  Id,
  Instant,
  Lane,
  LaneReason,
  LineStatus,
  LineType,
  Micros,
  NumberLabel,
  Problem,
  Repair,
  Sureness,
  SurvivorPart,
  Verdict,
} from './words'

/** In the order of their rows; or whoever may be called now first, then who may be called later. */
export const CONTACT_SORTS = ['row', 'call'] as const
export type ContactSort = (typeof CONTACT_SORTS)[number]

export const ContactLine = z.object({
  id: z.number().int(),
  fullName: z.string(),
  company: z.string(),
  title: z.string(),
  city: z.string(),
  country: z.string(),
  number: z.string().nullable(),
  rawNumber: z.string(),
  lineType: LineType,
  lineStatus: LineStatus,
  knownFrom: z.enum(['plan', 'register']),
  email: z.string().nullable(),
  emailKind: z.union([EmailKind, z.literal('none')]),
  emailState: AddressState,
  sureness: Sureness,
  verdict: Verdict,
  /** Codes of what was made another in its row. */
  changes: z.array(ChangeCode),
  lane: Lane,
  laneReason: LaneReason,
  /** What suppression lists forbid: by it the contact is not reached. */
  suppressedFor: z.array(z.enum(SCOPES)),
  batchId: Id,
  row: z.number().int(),
  joined: z.number().int(),
  joinedInto: z.number().int().nullable(),
  isShared: z.boolean(),
})
export type ContactLine = z.infer<typeof ContactLine>

export const ContactPage = z.object({
  contacts: z.array(ContactLine),
  next: z.string().nullable(),
  total: z.number().int(),
  /** True where counting stopped: there are more than `total`. */
  isCapped: z.boolean(),
})
export type ContactPage = z.infer<typeof ContactPage>

const ReadNumber = z.object({
  e164: z.string(),
  country: z.string().nullable(),
  lineType: LineType,
  extension: z.string().nullable(),
  label: NumberLabel.nullable(),
  valid: z.boolean(),
  possible: z.boolean(),
})
export const Reading = z.object({
  verdict: Verdict,
  numbers: z.array(ReadNumber),
  repairs: z.array(Repair),
  problem: Problem.nullable(),
  /** Words that stood beside the numbers and are no label. */
  remark: z.string().optional(),
})

/** What happened, as a code with its facts. The client writes the sentence. */
export const StoryFact = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('brought-in'), row: z.number(), batch: z.string() }),
  z.object({ kind: z.literal('read'), column: z.string(), raw: z.string(), reading: Reading }),
  z.object({
    kind: z.literal('tidied'),
    step: z.string(),
    code: ChangeCode,
    column: z.string(),
    was: z.string(),
    is: z.string(),
  }),
  /** `actId` takes it back; null once that was done. */
  z.object({ kind: z.literal('edited'), actId: Id.nullable(), column: z.string(), value: z.string(), by: z.string() }),
  z.object({ kind: z.literal('left-out'), actId: Id.nullable(), code: ChangeCode, by: z.string() }),
  z.object({ kind: z.literal('taken-back'), by: z.string() }),
  z.object({
    kind: z.literal('joined'),
    joinId: z.number(),
    otherRow: z.number(),
    otherBatch: z.string(),
    otherName: z.string(),
    /** The key they shared; or the score they were joined by, or a person's word. */
    by: z.enum(['number', 'email', 'likeness', 'person']),
    key: z.string(),
    isSurvivor: z.boolean(),
  }),
  /** Rows that were joined before those that are told one by one. */
  z.object({ kind: z.literal('joined-more'), rows: z.number() }),
  /** A person chose the row that a part of the contact is taken from. */
  z.object({
    kind: z.literal('value-chosen'),
    part: SurvivorPart,
    row: z.number(),
    batch: z.string(),
    by: z.string(),
  }),
  z.object({ kind: z.literal('taken-apart'), otherRow: z.number(), otherBatch: z.string() }),
  z.object({ kind: z.literal('shared-line'), e164: z.string(), holders: z.number() }),
  z.object({
    kind: z.literal('checked'),
    e164: z.string(),
    lineType: LineType,
    status: LineStatus,
    carrier: z.string().nullable(),
    cost: Micros,
  }),
  z.object({
    kind: z.literal('asked-register'),
    e164: z.string(),
    /** Null where it was not told. */
    isListed: z.boolean().nullable(),
    register: z.string().nullable(),
    cost: Micros,
  }),
  z.object({
    kind: z.literal('verified'),
    address: z.string(),
    deliverability: z.enum(DELIVERABILITIES),
    cost: Micros,
  }),
  z.object({
    kind: z.literal('asked'),
    provider: z.string(),
    state: z.string(),
    cost: Micros,
    candidates: z.array(z.object({ value: z.string().nullable(), outcome: z.string() })),
  }),
  z.object({
    kind: z.literal('filled'),
    /** Takes it back. */
    fillId: Id,
    provider: z.string(),
    value: z.string(),
    foundAs: z.enum(FOUND_AS),
  }),
  z.object({
    kind: z.literal('company-told'),
    provider: z.string(),
    site: z.string(),
    page: z.string(),
    industry: z.string(),
    headcount: z.number().int().nullable(),
  }),
  z.object({
    kind: z.literal('called'),
    e164: z.string(),
    outcome: z.enum(OUTCOMES),
    by: z.string(),
  }),
  z.object({ kind: z.literal('placed'), lane: Lane, reason: LaneReason }),
  z.object({ kind: z.literal('forgotten'), by: z.string() }),
  z.object({ kind: z.literal('sent'), destination: z.string(), fileName: z.string() }),
])
export type StoryFact = z.infer<typeof StoryFact>

export const ContactStory = z.object({
  contact: ContactLine,
  /** The row as it stood: every cell under its heading, with the field it became. */
  row: z.array(z.object({ heading: z.string(), cell: z.string(), field: Field.nullable() })),
  rowIsHere: z.boolean(),
  values: z.record(z.string(), z.string()),
  numbers: z.array(
    z.object({
      e164: z.string(),
      extension: z.string().nullable(),
      label: NumberLabel.nullable(),
      valid: z.boolean(),
      lineType: LineType,
      status: LineStatus,
      knownFrom: z.enum(['plan', 'register']),
      origin: z.enum(['row', 'join', 'fill']),
      isShared: z.boolean(),
      /** What the numbering plan tells: region by its name, time zones (IANA), whether it can be texted. */
      region: z.string().nullable(),
      timeZones: z.array(z.string()),
      textable: z.enum(['yes', 'no', 'unknown']),
      /** Whether it may be called at this moment, and what the clocks there show, HH:MM; null for what is no number. */
      call: z.enum(CALL_STATES).nullable(),
      clock: z.string().nullable(),
    }),
  ),
  /** The best number to text, and to call. */
  bestTo: z.object({ text: z.string().nullable(), call: z.string().nullable() }),
  emails: z.array(
    z.object({ address: z.string(), kind: EmailKind, state: AddressState, checkedAt: Instant.nullable() }),
  ),
  /** Suppression lists that say that the contact must not be contacted. */
  suppressedBy: z.array(
    z.object({
      list: z.string(),
      scope: z.enum(SCOPES),
      reason: z.string(),
      key: z.string().nullable(),
      addedAt: Instant,
    }),
  ),
  story: z.array(z.object({ at: Instant, what: StoryFact })),
})
export type ContactStory = z.infer<typeof ContactStory>

/** Who of all lists holds a number or an address. */
const Holder = z.object({
  contactId: z.number().int(),
  listId: Id,
  list: z.string(),
  fullName: z.string(),
  company: z.string(),
})
const Held = {
  holders: z.array(Holder),
  /** How many hold it; the first of them are named. */
  held: z.number().int(),
  suppressedBy: z.array(z.object({ list: z.string(), scope: z.enum(SCOPES), reason: z.string(), addedAt: Instant })),
  /** What asking about it costs; 0 where a fresh answer is known, null where nobody can be asked. */
  price: Micros.nullable(),
  checkedAt: Instant.nullable(),
}

/** One pasted text, read: what each number and address in it is, what is known, who holds it. */
export const LookedUp = z.object({
  reading: Reading,
  numbers: z.array(
    z.object({
      e164: z.string(),
      country: z.string().nullable(),
      valid: z.boolean(),
      lineType: LineType,
      status: LineStatus,
      knownFrom: z.enum(['plan', 'register']),
      region: z.string().nullable(),
      call: z.enum(CALL_STATES),
      ...Held,
    }),
  ),
  addresses: z.array(z.object({ address: z.string(), kind: EmailKind, state: AddressState, ...Held })),
})
export type LookedUp = z.infer<typeof LookedUp>
