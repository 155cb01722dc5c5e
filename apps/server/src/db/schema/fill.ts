import type { FillOptions, StandingFill } from '@upper-field/contract'
import type { AnswerItem, Connector } from '@upper-field/core/connect'
import type { AgreedPrices, Asking, AttemptState, KeptAs, NewPrices, Want } from '@upper-field/core/fill'
import { sql } from 'drizzle-orm'
import {
  bigint,
  boolean,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  smallint,
  text,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core'
import { id, instant } from './columns'
import { ofList } from './lists'

/** A plan that looks for mobiles alone, without conditions or limits. */
const PLAIN_OPTIONS: FillOptions = {
  wants: ['mobile'],
  branches: [],
  conditions: {},
  alsoDoubtful: false,
  checksAddresses: true,
  perContact: null,
  perDay: null,
}

export const fillRuns = pgTable('fill_runs', {
  jobId: uuid('job_id').primaryKey(),
  listId: ofList(),
  order: text('provider_order').array().notNull(),
  checksLines: boolean('checks_lines').notNull(),
  budget: bigint('budget', { mode: 'number' }).notNull(),
  /** `until-found` or `everybody`. */
  asking: text('asking').$type<Asking>().notNull().default('until-found'),
  /** How many were taken at random; null where all who want one were. */
  sample: integer('sample'),
  notAgainDays: integer('not_again_days').notNull().default(0),
  /** What is wanted, on which conditions and within which limits. */
  options: jsonb('options').$type<FillOptions>().notNull().default(PLAIN_OPTIONS),
  /** How many were left out, by why. */
  leftOut: jsonb('left_out').$type<Record<string, number>>().notNull().default({}),
  /** Whom of those who want a mobile. */
  filter: text('filter').notNull().default(''),
  spent: bigint('spent', { mode: 'number' }).notNull().default(0),
  /** Held for askings under way: `spent + reserved` never passes the budget. */
  reserved: bigint('reserved', { mode: 'number' }).notNull().default(0),
  startedAt: instant('started_at').notNull().defaultNow(),
  /** What each service charged when that was agreed to, and by its own word since. */
  prices: jsonb('prices').$type<AgreedPrices>().notNull().default({}),
  /** Services that were found to charge more, until somebody agrees to that. */
  newPrices: jsonb('new_prices').$type<NewPrices>().notNull().default({}),
})

export const fillSearches = pgTable(
  'fill_searches',
  {
    jobId: uuid('job_id').notNull(),
    contactId: bigint('contact_id', { mode: 'number' }).notNull(),
    /** `open`, `waiting`, `found`, `partly`, `not-found`, `budget` or `left-out`. */
    state: text('state').notNull(),
    /** What it lacked at the start. */
    wants: text('wants').array().$type<Want[]>().notNull().default(sql`'{mobile}'::text[]`),
  },
  (t) => [
    primaryKey({ columns: [t.jobId, t.contactId] }),
    index('fill_searches_state').on(t.jobId, t.state, t.contactId),
  ],
)

export const attempts = pgTable(
  'attempts',
  {
    id: id(),
    jobId: uuid('job_id').notNull(),
    listId: ofList(),
    contactId: bigint('contact_id', { mode: 'number' }).notNull(),
    provider: text('provider').notNull(),
    state: text('state').$type<AttemptState>().notNull(),
    /** Why it failed: a code. */
    reason: text('reason'),
    /** What of the wanted it brought. */
    found: text('found').array().$type<Want[]>().notNull().default(sql`'{}'::text[]`),
    /** A late answer as it came, kept until it is judged. */
    answer: jsonb('answer').$type<AnswerItem[]>(),
    /** What one charge costs by that answer's own word. */
    toldPrice: bigint('told_price', { mode: 'number' }),
    reserved: bigint('reserved', { mode: 'number' }).notNull(),
    /** What of it is set aside for services that check what is found, by their ids. */
    checks: jsonb('checks').$type<Readonly<Record<string, number>>>().notNull().default({}),
    askedAt: instant('asked_at').notNull().defaultNow(),
    answeredAt: instant('answered_at'),
    deadline: instant('deadline'),
    /** What a late answer is looked for by, where it does not come by itself. */
    receipt: text('receipt'),
  },
  (t) => [
    uniqueIndex('attempts_once').on(t.jobId, t.contactId, t.provider),
    index('attempts_contact').on(t.contactId),
    index('attempts_waiting').on(t.jobId).where(sql`state = 'waiting'`),
    index('attempts_answered').on(t.jobId, t.provider, t.answeredAt.desc(), t.id),
  ],
)

export const candidates = pgTable(
  'candidates',
  {
    attemptId: uuid('attempt_id').notNull(),
    position: smallint('position').notNull(),
    raw: text('raw').notNull(),
    score: integer('score').notNull(),
    e164: text('e164'),
    /** An address, where it is none of a number. */
    address: text('address'),
    outcome: text('outcome').notNull(),
    /** `office` or `risky`, where it is kept though it is not what was wanted. */
    keptAs: text('kept_as'),
  },
  (t) => [primaryKey({ columns: [t.attemptId, t.position] })],
)

/** Accepted values. A small fact on top of the row, that can be taken back. */
export const fills = pgTable(
  'fills',
  {
    id: id(),
    listId: ofList(),
    contactId: bigint('contact_id', { mode: 'number' }).notNull(),
    attemptId: uuid('attempt_id').notNull(),
    provider: text('provider').notNull(),
    /** The number or the address. */
    e164: text('e164'),
    address: text('address'),
    /** What was wanted and found; `office` or `risky` for what is kept besides. */
    foundAs: text('found_as').$type<Want | KeptAs>().notNull().default('mobile'),
    madeAt: instant('made_at').notNull().defaultNow(),
    undoneAt: instant('undone_at'),
  },
  (t) => [index('fills_contact').on(t.contactId), index('fills_attempt').on(t.attemptId)],
)

/** By which plan new batches of a list are filled on their own. */
export const fillStanding = pgTable('fill_standing', {
  listId: uuid('list_id').primaryKey(),
  isOn: boolean('is_on').notNull(),
  /** The most a batch may cost. */
  perBatch: bigint('per_batch', { mode: 'number' }).notNull(),
  plan: jsonb('plan').$type<StandingFill['plan']>().notNull(),
  changedBy: text('changed_by').notNull(),
})

/** Countries in which personal data is bought only on a recorded lawful basis. One row, or none. */
export const lawfulRegions = pgTable('lawful_regions', {
  isOnly: boolean('is_only').primaryKey().default(true),
  countries: text('countries').array().notNull(),
})

export const connections = pgTable('connections', {
  provider: text('provider').primaryKey(),
  /** The connector; null is the one that ships under this id. */
  document: jsonb('document').$type<Connector>(),
  baseUrl: text('base_url').notNull(),
  /** AES-256-GCM, base64; never sent to the browser. */
  sealedKey: text('sealed_key'),
  changedAt: instant('changed_at').notNull().defaultNow(),
})

/** What a provider told of the company a contact works for, besides what it was asked for. */
export const companyFacts = pgTable('company_facts', {
  contactId: bigint('contact_id', { mode: 'number' }).primaryKey(),
  listId: ofList(),
  attemptId: uuid('attempt_id').notNull(),
  provider: text('provider').notNull(),
  /** Of the site, in small letters; empty where none was told. */
  domain: text('domain').notNull(),
  site: text('site').notNull(),
  page: text('page').notNull(),
  industry: text('industry').notNull(),
  headcount: integer('headcount'),
  toldAt: instant('told_at').notNull(),
})
