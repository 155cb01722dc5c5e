import { AGES_AS } from '@upper-field/core/check'
import { ANSWER_FIELDS, CHARGED_PER, GIVES, INPUT_SETS, REQUEST_NAMES } from '@upper-field/core/connect'
import { ASKING, PERSON_INPUTS, WANTS } from '@upper-field/core/fill'
import { z } from 'zod'
import { ConnectorDocument } from './connector'
import { Id, Instant, Micros } from './words'

/** What can be checked: numbers at a line register, addresses at a verifier, numbers at do-not-call registers. */
export const CHECK_OF = ['numbers', 'addresses', 'do-not-call'] as const
export const CheckOf = z.enum(CHECK_OF)
export type CheckOf = z.infer<typeof CheckOf>

export const CheckEstimate = z.object({
  /** Distinct numbers or addresses of the chosen contacts. */
  subjects: z.number().int(),
  /** Answered lately: cost nothing again. */
  fresh: z.number().int(),
  /** Answered, but too long ago: asked again. */
  stale: z.number().int(),
  toAsk: z.number().int(),
  most: Micros,
})
export type CheckEstimate = z.infer<typeof CheckEstimate>

/** How long ago an answer was given: within 7, 30, 90 days, longer ago, or never. */
export const ANSWER_AGES = ['week', 'month', 'quarter', 'older', 'never'] as const
export const AnswerAge = z.enum(ANSWER_AGES)
export type AnswerAge = z.infer<typeof AnswerAge>

/** How old the answers are about what contacts of one country hold. */
export const AnswerAges = z.object({
  /** ISO 3166-1 alpha-2; empty where it is not known. */
  country: z.string(),
  /** Distinct numbers or addresses. */
  subjects: z.number().int(),
  byAge: z.record(AnswerAge, z.number().int()),
  /** Too old to rely on, by what answers of their kind keep. */
  stale: z.number().int(),
  /** Held by a do-not-call register, when it was last asked. */
  listed: z.number().int(),
})
export type AnswerAges = z.infer<typeof AnswerAges>

export const NewCheck = z.object({
  of: CheckOf.default('numbers'),
  filter: z.string().max(2000),
  /** What the operator agreed to at most: the job is refused where it would cost more. */
  agreed: Micros,
})

/** How checks are done: how many days answers of each kind count as fresh, and what a message costs. */
export const CheckSettings = z.object({
  freshDays: z.record(z.enum(AGES_AS), z.int().min(0).max(3650)),
  textPrice: Micros,
  mailPrice: Micros,
  /** When people may be called: by country (ISO 3166-1 alpha-2), `*` for all others. */
  callHours: z.record(
    z.union([z.string().length(2), z.literal('*')]),
    z.object({
      from: z.int().min(0).max(1440),
      to: z.int().min(0).max(1440),
      days: z.array(z.int().min(0).max(6)).max(7),
    }),
  ),
})
export type CheckSettings = z.infer<typeof CheckSettings>

const Order = z.array(z.string().max(40)).min(1).max(10)

/** What is wanted, and on which conditions and within which limits. */
export const FillOptions = z.object({
  wants: z.array(z.enum(WANTS)).min(1).default(['mobile']),
  /** Orders of their own for contacts of some countries; the first that names one decides. */
  branches: z
    .array(z.object({ countries: z.array(z.string().length(2)).min(1).max(250), order: Order }))
    .max(20)
    .default([]),
  /** By provider. */
  conditions: z
    .record(
      z.string().max(40),
      z.object({
        minScore: z.int().min(0).max(100).default(0),
        mostAsked: z.int().min(1).max(1_000_000).nullable().default(null),
        inputs: z.array(z.enum(PERSON_INPUTS)).default([]),
        countries: z.array(z.string().length(2)).max(250).default([]),
      }),
    )
    .default({}),
  /** Also for those who have it, but of whom it is not sure: a mobile that was never checked, a risky address. */
  alsoDoubtful: z.boolean().default(false),
  /** Addresses are accepted only where the verifier says that they take mail. */
  checksAddresses: z.boolean().default(true),
  /** At most for one contact, and on one day (UTC). */
  perContact: Micros.nullable().default(null),
  perDay: Micros.nullable().default(null),
})
export type FillOptions = z.infer<typeof FillOptions>

export const FillPlan = z.object({
  /** For everybody whose country has no branch. */
  order: Order,
  checksLines: z.boolean(),
  budget: Micros,
  /** Until all is found; or everybody, to learn what each is worth. */
  asking: z.enum(ASKING).default('until-found'),
  /** So many at random, and no others. */
  sample: z.int().min(1).max(2000).nullable().default(null),
  /** Whoever answered about a contact of this list within so many days is not asked about it again. */
  notAgainDays: z.int().min(0).max(365).default(30),
  /** Whom of those who lack it: a filter as it is typed; empty for all. */
  filter: z.string().max(2000).default(''),
  /** One contact alone. */
  contactId: z.int().nullable().default(null),
  options: FillOptions.prefault({}),
})
export type FillPlan = z.infer<typeof FillPlan>

/** By which plan new batches of a list are filled on their own, up to an amount each. */
export const StandingFill = z.object({
  isOn: z.boolean(),
  perBatch: Micros,
  plan: FillPlan.pick({ order: true, checksLines: true, notAgainDays: true, options: true }),
  changedBy: z.string(),
})
export type StandingFill = z.infer<typeof StandingFill>

/** Why somebody who lacks what is wanted is left out of a fill. */
export const LEFT_OUT = ['suppressed', 'no-lawful-basis', 'nobody-to-ask'] as const
export const FillEstimate = z.object({
  /** Contacts that lack what is wanted and may be asked about. */
  wanting: z.number().int(),
  /** Of how many it is known what a provider has to be told, by what that is. */
  known: z.record(z.enum(PERSON_INPUTS), z.number().int()),
  /** By what they lack. */
  lacking: z.partialRecord(z.enum(WANTS), z.number().int()),
  leftOut: z.partialRecord(z.enum(LEFT_OUT), z.number().int()),
  providers: z.array(
    z.object({
      provider: z.string(),
      askable: z.number().int(),
      /** Left out: it has answered about them lately. */
      askedLately: z.number().int(),
      /** What it would need to know of them is not there. */
      lacksInput: z.number().int(),
    }),
  ),
  most: Micros,
  /** What it will probably bring and cost, by what the latest sample taught; null where there is none. */
  expected: z.object({ usable: z.number().int(), cost: Micros }).nullable(),
})
export type FillEstimate = z.infer<typeof FillEstimate>

/** Countries in which personal data is bought only on a recorded lawful basis. */
export const LawfulRegions = z.object({ countries: z.array(z.string().length(2)).max(250) })
export type LawfulRegions = z.infer<typeof LawfulRegions>

/** A value told from a sample, with the range in which nine of ten samples lie. */
const Told = z.object({ value: z.number().int(), low: z.number().int(), high: z.number().int() })

/** An order of some providers: what it would bring of all who want a mobile. */
export const SampledOrder = z.object({ order: z.array(z.string()), usable: Told, cost: Told })
export type SampledOrder = z.infer<typeof SampledOrder>

/** What a sample teaches, in which everybody was asked about the same contacts. */
export const FillSample = z.object({
  jobId: Id,
  /** How many were asked of everybody, and what that cost. */
  contacts: z.number().int(),
  spent: Micros,
  /** For how many this is told: all who want a mobile. */
  wanting: z.number().int(),
  /** The order that was asked for, where all of it was in the sample. */
  today: SampledOrder.nullable(),
  /** Of all providers the cheapest order, without those that add nothing. */
  cheapest: SampledOrder,
  withinBudget: SampledOrder.nullable(),
  curve: z.array(SampledOrder),
  /** The cheapest order of every choice of providers: usable and cost. */
  choices: z.array(z.object({ usable: z.number().int(), cost: Micros })),
  providers: z.array(
    z.object({
      provider: z.string(),
      asked: z.number().int(),
      usable: z.number().int(),
      /** Of these nobody else found any. */
      onlyHere: z.number().int(),
      somebodyElse: z.number().int(),
      cost: Micros,
      /** Countries where it finds more than it does elsewhere, the best first. */
      goodIn: z.array(z.string()),
    }),
  ),
})
export type FillSample = z.infer<typeof FillSample>

export const FillResult = z.object({
  jobId: Id,
  plan: FillPlan,
  spent: Micros,
  /** Services that charge more than was agreed to: the run rests until somebody lets it go on at the new prices. */
  newPrices: z.array(z.object({ provider: z.string(), agreed: Micros, now: Micros })),
  contacts: z.number().int(),
  /** Of whom all that was wanted was found. */
  found: z.number().int(),
  /** Of whom some of it was. */
  partly: z.number().int(),
  leftOut: z.partialRecord(z.enum(LEFT_OUT), z.number().int()),
  startedAt: Instant,
  /** Where some were tried first: what that tells of the others who lack the same. */
  rest: z.object({ contacts: z.number().int(), usable: Told, cost: Told }).nullable(),
  providers: z.array(
    z.object({
      provider: z.string(),
      asked: z.number().int(),
      candidates: z.number().int(),
      accepted: z.number().int(),
      setAside: z.number().int(),
      waiting: z.number().int(),
      failed: z.number().int(),
      /** Accepted, and found by nobody else in this run. */
      onlyHere: z.number().int(),
      /** Middle time between question and answer, in milliseconds; null where nothing was answered. */
      medianWait: z.number().nullable(),
      /** It kept failing: the run went on without it. */
      isSetAside: z.boolean(),
      cost: Micros,
    }),
  ),
})
export type FillResult = z.infer<typeof FillResult>

export const CONNECTION_ROLES = ['provider', 'directory', 'register', 'verifier', 'do-not-call', 'other'] as const

export const Connection = z.object({
  provider: z.string(),
  name: z.string(),
  about: z.string(),
  /** What stages use it for. */
  role: z.enum(CONNECTION_ROLES),
  gives: z.array(z.enum(GIVES)),
  accepts: z.array(z.enum(INPUT_SETS)),
  /** Whose numbers it knows of; null for everybody's. */
  countries: z.array(z.string()).nullable(),
  baseUrl: z.string(),
  hasKey: z.boolean(),
  pricePer: z.enum(CHARGED_PER),
  price: Micros,
  /** A subscription: nothing more is charged. */
  isPaidFor: z.boolean(),
  changedAt: Instant.nullable(),
  lastAnswerAt: Instant.nullable(),
  /** Questions of the last thirty days without an answer that could be read. */
  failures: z.number().int(),
  spentThisMonth: Micros,
})
export type Connection = z.infer<typeof Connection>
export const ConnectionChange = z.object({ baseUrl: z.url().max(500), key: z.string().min(4).max(500).optional() })

/** A question to one service, to see what comes of it. Costs what a question costs. */
export const ConnectorTry = z.object({
  /** A connector that is not kept yet. */
  document: ConnectorDocument.optional(),
  /** The key to try with, where none is kept. */
  key: z.string().min(4).max(500).optional(),
  values: z.partialRecord(z.enum(REQUEST_NAMES), z.string().max(500)),
})

export const TriedRequest = z.object({
  method: z.string(),
  url: z.string(),
  /** Without the key. */
  headers: z.record(z.string(), z.string()),
  body: z.string().nullable(),
})

/** What was sent, what came back, and what was made of it. */
export const ConnectorTried = z.object({
  request: TriedRequest,
  /** Null where nothing came back. */
  status: z.number().int().nullable(),
  /** The beginning of the answer, as it came. */
  raw: z.string(),
  items: z.array(z.partialRecord(z.enum(ANSWER_FIELDS), z.union([z.string(), z.number(), z.boolean()]))),
  /** Why nothing was made of it: a code. */
  problem: z.string().nullable(),
  /** The answer comes later: by a call to us, or it is looked for. */
  isLater: z.boolean(),
  charged: Micros,
})
export type ConnectorTried = z.infer<typeof ConnectorTried>

/** Charges of one day, by one service, for one list and purpose. */
export const SpendLine = z.object({
  /** YYYY-MM-DD, UTC; of charges older than 400 days their month, YYYY-MM. */
  day: z.string(),
  provider: z.string(),
  name: z.string(),
  /** Null for a try of a connector. */
  listId: Id.nullable(),
  list: z.string(),
  reason: z.string(),
  charges: z.number().int(),
  amount: Micros,
})
const Booked = z.object({ charges: z.number().int(), amount: Micros })
/** What a service says it has charged this month, beside our ledger. */
export const ServiceStatement = z.object({
  provider: z.string(),
  name: z.string(),
  /** Why it could not be asked: a code. */
  problem: z.string().nullable(),
  days: z.array(z.object({ day: z.string(), ours: Booked, theirs: Booked })),
})
export type ServiceStatement = z.infer<typeof ServiceStatement>

/** What fills found of one service on a day, and what asking it cost, checks of what it gave included. */
export const UsableLine = z.object({
  /** YYYY-MM-DD, UTC. */
  day: z.string(),
  provider: z.string(),
  name: z.string(),
  usable: z.number().int(),
  amount: Micros,
})
export type UsableLine = z.infer<typeof UsableLine>

/** What was spent this calendar month (UTC), what work under way may still spend, and the most that may be. */
export const SpendMonth = z.object({
  limit: Micros.nullable(),
  spent: Micros,
  promised: Micros,
  /** Services that have charged something this month, or have a limit of their own; `waiting` is held for open questions. */
  providers: z.array(
    z.object({
      provider: z.string(),
      name: z.string(),
      limit: Micros.nullable(),
      spent: Micros,
      waiting: Micros,
    }),
  ),
})
export type SpendMonth = z.infer<typeof SpendMonth>

export type SpendLine = z.infer<typeof SpendLine>
