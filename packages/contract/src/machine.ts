import { CALL_STATES } from '@upper-field/core/check'
import { SCOPES as SUPPRESSED_FROM } from '@upper-field/core/split'
import { z } from 'zod'
import {
  AddressState,
  CountryCode,
  EmailKind,
  Field,
  Id,
  Instant,
  Lane,
  LineStatus,
  LineType,
  Micros,
  Problem,
  Verdict,
} from './words'

/** What a key for a program may do. */
export const KEY_SCOPES = ['check', 'add', 'read', 'suppress', 'deliver'] as const
export const KeyScope = z.enum(KEY_SCOPES)
export type KeyScope = z.infer<typeof KeyScope>

export const NewMachineKey = z.object({
  name: z.string().trim().min(1, 'A key needs a name.').max(80),
  scopes: z.array(KeyScope).min(1, 'A key without a scope can do nothing.'),
  perMinute: z.number().int().min(1).max(60_000).default(600),
  /** What it may spend in a month; 0 where it may ask nobody that charges. */
  budget: Micros.default(0),
  expiresOn: z.iso.date().nullable().default(null),
})
export const MachineKey = z.object({
  id: Id,
  name: z.string(),
  scopes: z.array(KeyScope),
  start: z.string(),
  perMinute: z.number().int(),
  budget: Micros,
  /** This month. */
  spent: Micros,
  expiresAt: Instant.nullable(),
  lastUsedAt: Instant.nullable(),
  withdrawnAt: Instant.nullable(),
  madeBy: z.string(),
  madeAt: Instant,
  callsToday: z.number().int(),
})
export type MachineKey = z.infer<typeof MachineKey>
/** The secret is shown this once. */
export const MadeMachineKey = z.object({ key: MachineKey, secret: z.string() })

export const MachineCall = z.object({
  call: z.string(),
  status: z.number().int(),
  milliseconds: z.number().int(),
  at: Instant,
})
export type MachineCall = z.infer<typeof MachineCall>

const Value = z.string().trim().min(1).max(320)
export const JudgeAsked = z
  .object({
    value: Value.optional(),
    values: z.array(Value).min(1).max(100).optional(),
    /** For numbers that are written without their country. */
    country: CountryCode.nullable().default(null),
    /** Ask the line register where nothing fresh is known, for money. */
    ask: z.boolean().default(false),
  })
  .refine((asked) => (asked.value === undefined) !== (asked.values === undefined), 'Give one value, or several values.')

const Held = z.object({ listId: Id, contactId: z.number().int() })
export const Judgement = z.object({
  /** As it was sent. */
  value: z.string(),
  kind: z.enum(['number', 'email', 'unreadable']),
  verdict: Verdict,
  problem: Problem.nullable(),
  /** E.164, or the address in small letters. */
  normal: z.string().nullable(),
  country: z.string().nullable(),
  lineType: LineType.nullable(),
  lineStatus: LineStatus.nullable(),
  knownFrom: z.enum(['plan', 'register']).nullable(),
  emailKind: EmailKind.nullable(),
  addressState: AddressState.nullable(),
  checkedAt: Instant.nullable(),
  /** What suppression lists forbid. */
  suppressedFor: z.array(z.enum(SUPPRESSED_FROM)),
  /** Contacts of lists that hold it; the first of them. */
  inLists: z.array(Held),
  mayBeTexted: z.boolean(),
  /** Whether it may be called at this moment, and why not. */
  call: z.enum(CALL_STATES).nullable(),
  cost: Micros,
  /** Why the register was not asked, where it was wanted. */
  notAsked: z.enum(['fresh', 'no-register', 'no-budget', 'failed', 'not-valid']).nullable(),
})
export type Judgement = z.infer<typeof Judgement>
export const Judged = z.object({ judgements: z.array(Judgement), cost: Micros })

/** Fields a program can send of a contact; numbers and e-mails may be several. */
const Sent = z
  .partialRecord(Field, z.union([z.string().max(2000), z.array(z.string().max(2000)).max(10)]))
  .refine((fields) => Object.keys(fields).length > 0, 'A contact needs a field.')
export const AddedContacts = z.object({
  contacts: z
    .array(
      z.object({
        id: z.string().trim().min(1).max(200),
        fields: Sent,
        extra: z.record(z.string().max(80), z.string().max(2000)).default({}),
      }),
    )
    .min(1)
    .max(500),
  /** For numbers that are written without their country. */
  country: CountryCode.nullable().default(null),
})

export const BECAME = ['contact', 'joined', 'suppressed', 'nothing-readable'] as const
export const AddedContact = z.object({
  /** The caller's own. */
  id: z.string(),
  contactId: z.number().int(),
  /** Where it was joined into another, that one. */
  standsAs: z.number().int(),
  became: z.enum(BECAME),
  lane: Lane,
  verdict: Verdict,
  number: z.string().nullable(),
  email: z.string().nullable(),
  lineType: LineType,
  lineStatus: LineStatus,
  suppressedFor: z.array(z.enum(SUPPRESSED_FROM)),
  /** It was there already by this id. */
  isKnown: z.boolean(),
})
export type AddedContact = z.infer<typeof AddedContact>
export const Added = z.object({ batchId: Id, contacts: z.array(AddedContact) })

export const WEBHOOK_EVENTS = [
  'contact.judged',
  'contact.filled',
  'contact.placed',
  'contact.suppressed',
  'batch.ready',
  'delivery.state',
  'budget.reached',
] as const
export const WebhookEvent = z.enum(WEBHOOK_EVENTS)
export type WebhookEvent = z.infer<typeof WebhookEvent>

export const NewWebhook = z.object({
  url: z.url().max(2000),
  events: z.array(WebhookEvent).min(1, 'Choose what is told.'),
  listId: Id.nullable().default(null),
})
export const WebhookChange = z.object({ isOn: z.boolean() })
export const WebhookLine = z.object({
  id: Id,
  url: z.string(),
  events: z.array(WebhookEvent),
  listId: Id.nullable(),
  isOn: z.boolean(),
  madeBy: z.string(),
  madeAt: Instant,
  waiting: z.number().int(),
  failed: z.number().int(),
  lastSentAt: Instant.nullable(),
})
export type WebhookLine = z.infer<typeof WebhookLine>
export const MadeWebhook = z.object({ webhook: WebhookLine, secret: z.string() })
export const WebhookMessage = z.object({
  id: Id,
  event: WebhookEvent,
  state: z.enum(['waiting', 'sent', 'failed']),
  tries: z.number().int(),
  status: z.number().int().nullable(),
  problem: z.string().nullable(),
  answer: z.string(),
  payload: z.record(z.string(), z.unknown()),
  madeAt: Instant,
  nextAt: Instant,
  sentAt: Instant.nullable(),
})
export type WebhookMessage = z.infer<typeof WebhookMessage>
