import { AUDIENCE_STATES, IDENTIFIER_KINDS, PURPOSES, TAKES } from '@upper-field/core/send'
import { z } from 'zod'
import { Id, Instant } from './words'

const Count = z.number().int()

/** Why something is refused or not allowed there, and what to do about it. */
export const ToldRefusal = z.object({
  code: z.string(),
  says: z.string(),
  remedy: z.string(),
  takes: z.string(),
})
export type ToldRefusal = z.infer<typeof ToldRefusal>

/** An account of ours at a network, and what it lacks. */
export const Account = z.object({
  id: z.string(),
  name: z.string(),
  lacks: z.array(ToldRefusal.extend({ stops: z.enum(['everything', 'aiming']) })),
})
export type Account = z.infer<typeof Account>

/** The key of a network; the key itself is never told. */
export const DestinationKey = z.object({
  destination: z.string(),
  address: z.string(),
  hasKey: z.boolean(),
})
export type DestinationKey = z.infer<typeof DestinationKey>

export const Forecast = z.object({
  low: Count,
  middle: Count,
  high: Count,
  people: Count,
  byKind: z.array(z.object({ kind: z.enum(IDENTIFIER_KINDS), people: Count, share: z.number() })).readonly(),
  oneMore: z.array(z.object({ kind: z.enum(IDENTIFIER_KINDS), lacking: Count, more: Count })).readonly(),
  learntFrom: Count,
})
export type Forecast = z.infer<typeof Forecast>

export const NewAudience = z.object({
  name: z.string().trim().min(1).max(120),
  destination: z.string().max(40),
  takes: z.enum(TAKES).default('people'),
  form: z.enum(['hashed', 'plain']).default('hashed'),
  filter: z.string().max(2000).default(''),
  purpose: z.enum(PURPOSES).default('aim'),
  account: z.object({ id: z.string().min(1).max(200), name: z.string().min(1).max(200) }),
  /** Whom to exclude: the entries of this suppression list, in place of contacts. */
  suppressionListId: Id.nullable().default(null),
  /** An audience of companies that its people are looked for in. */
  within: Id.nullable().default(null),
  /** How long people stay, where membership lapses. */
  keepsDays: z.int().min(1).max(3650).nullable().default(null),
  /** Every how many days it wants refreshing. */
  refreshDays: z.int().min(1).max(365).default(30),
  /** Whether those who said no are taken out by itself, a day after at the latest. */
  removesByItself: z.boolean().default(true),
  /** Everybody of the list is meant, not only those of a filter. */
  isWholeList: z.boolean().default(false),
})

export const DELIVERY_STATES = ['under-way', 'done', 'refused', 'failed', 'stopped'] as const

/** One sending of an edition. */
export const Delivery = z.object({
  id: Id,
  jobId: Id.nullable(),
  editionId: Id.nullable(),
  /** `changes`: additions and removals; `whole`: everybody anew; `removals`: only those who have to leave. */
  way: z.enum(['changes', 'whole', 'removals']),
  state: z.enum(DELIVERY_STATES),
  added: Count,
  removed: Count,
  renewed: Count,
  refusedLines: Count,
  refusedParts: Count,
  refusal: ToldRefusal.nullable(),
  /** What was foretold, and what the network told then; null where it told nothing. */
  forecast: Forecast.nullable(),
  matched: Count.nullable(),
  startedBy: z.string().nullable(),
  startedAt: Instant,
  endedAt: Instant.nullable(),
})
export type Delivery = z.infer<typeof Delivery>

/** An audience as the board shows it. */
export const Audience = z.object({
  id: Id,
  listId: Id,
  /** As it was given, with `{date}`, `{month}` and `{year}` as they stand. */
  name: z.string(),
  /** The same with the date of its last edition. */
  title: z.string(),
  destination: z.string(),
  takes: z.enum(TAKES),
  form: z.enum(['hashed', 'plain']),
  filter: z.string(),
  suppressionListId: Id.nullable(),
  purpose: z.enum(PURPOSES),
  account: z.object({ id: z.string(), name: z.string() }),
  within: Id.nullable(),
  keepsDays: Count.nullable(),
  refreshDays: Count,
  removesByItself: z.boolean(),
  /** `not-sent` before its first delivery. */
  state: z.enum(['not-sent', ...AUDIENCE_STATES]),
  refusal: ToldRefusal.nullable(),
  /** How many are in it by our books. */
  people: Count,
  /** What the network tells; null where it tells nothing yet, or the audience is too small for it. */
  matched: Count.nullable(),
  /** When its state was asked for last. */
  toldAt: Instant.nullable(),
  lapsesAt: Instant.nullable(),
  lastEditionAt: Instant.nullable(),
  dueAt: Instant.nullable(),
  /** Who came into what it is made of since, and who left it. */
  cameSince: Count,
  leftSince: Count,
  /** Of those in it, who said no or was forgotten: they have to leave. */
  owedRemovals: Count,
  owedSince: Instant.nullable(),
  /** Its list has changed since who came, left or has to leave was counted: that is being done, and is told when it is read again. */
  isBehind: z.boolean(),
  forecast: Forecast.nullable(),
  latest: Delivery.nullable(),
  /** Made by the network out of another audience; nothing is sent to it. */
  similarTo: z.object({ audienceId: Id, country: z.string(), closeness: Count }).nullable(),
  createdAt: Instant,
})
export type Audience = z.infer<typeof Audience>

/** What would change at the network by delivering an edition. */
export const Difference = z.object({
  editionId: Id,
  fileName: z.string(),
  way: z.enum(['changes', 'whole']),
  people: Count,
  leftOut: Count,
  comes: Count,
  leaves: Count,
  /** Of those who leave: suppressed or forgotten since. */
  leavesSuppressed: Count,
  /** Come and leave both: the same people with other values than before. */
  changed: Count,
  stays: Count,
  /** Of those who stay, how many are sent again so that they do not lapse. */
  renewed: Count,
  forecast: Forecast,
  /** Said no since the edition was prepared: left out of the delivery. */
  suppressedSince: Count,
  madeAt: Instant,
})
export type Difference = z.infer<typeof Difference>

export const Trial = z.object({
  id: Id,
  state: z.enum(['on', 'over', 'failed']),
  exclude: z.array(Id),
  daily: z.number(),
  days: Count,
  reach: Count.nullable(),
  spent: z.number().nullable(),
  /** How many are matched, inferred from the reach; null while nothing can be said. */
  inferred: z.object({ low: Count, high: Count }).nullable(),
  startedAt: Instant,
})
export type Trial = z.infer<typeof Trial>

/** What a part of an audience was worth: a batch, or what one provider found. */
export const MatchSource = z.object({
  kind: z.enum(['batch', 'provider']),
  name: z.string(),
  people: Count,
  /** Expected of them by what was told. */
  matched: Count,
  /** What it cost, in millionths of a euro; null where nothing is known of that. */
  cost: z.number().int().nullable(),
})

/** Everything about one audience. */
export const AudienceDetail = Audience.extend({
  difference: Difference.nullable(),
  /** The job that prepares its next edition; null where none does. */
  preparing: Id.nullable(),
  deliveries: z.array(Delivery),
  trials: z.array(Trial),
  sources: z.array(MatchSource),
})
export type AudienceDetail = z.infer<typeof AudienceDetail>
