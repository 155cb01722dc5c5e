import type { AnswerItem, Connector } from '@upper-field/core/connect'
import type { Asking } from '@upper-field/core/fill'
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
  /** Whom of those who want a mobile. */
  filter: text('filter').notNull().default(''),
  spent: bigint('spent', { mode: 'number' }).notNull().default(0),
  /** Held for askings under way: `spent + reserved` never passes the budget. */
  reserved: bigint('reserved', { mode: 'number' }).notNull().default(0),
  startedAt: instant('started_at').notNull().defaultNow(),
})

export const fillSearches = pgTable(
  'fill_searches',
  {
    jobId: uuid('job_id').notNull(),
    contactId: bigint('contact_id', { mode: 'number' }).notNull(),
    /** `open`, `waiting`, `found`, `not-found` or `budget`. */
    state: text('state').notNull(),
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
    state: text('state').notNull(),
    /** Why it failed: a code. */
    reason: text('reason'),
    /** A late answer as it came, kept until it is judged. */
    answer: jsonb('answer').$type<AnswerItem[]>(),
    reserved: bigint('reserved', { mode: 'number' }).notNull(),
    askedAt: instant('asked_at').notNull().defaultNow(),
    answeredAt: instant('answered_at'),
    deadline: instant('deadline'),
    /** What a late answer is looked for by, where it does not come by itself. */
    receipt: text('receipt'),
  },
  (t) => [uniqueIndex('attempts_once').on(t.jobId, t.contactId, t.provider), index('attempts_contact').on(t.contactId)],
)

export const candidates = pgTable(
  'candidates',
  {
    attemptId: uuid('attempt_id').notNull(),
    position: smallint('position').notNull(),
    raw: text('raw').notNull(),
    score: integer('score').notNull(),
    e164: text('e164'),
    outcome: text('outcome').notNull(),
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
    attemptId: uuid('attempt_id').notNull().unique(),
    provider: text('provider').notNull(),
    e164: text('e164').notNull(),
    madeAt: instant('made_at').notNull().defaultNow(),
    undoneAt: instant('undone_at'),
  },
  (t) => [index('fills_contact').on(t.contactId)],
)

export const connections = pgTable('connections', {
  provider: text('provider').primaryKey(),
  /** The connector; null is the one that ships under this id. */
  document: jsonb('document').$type<Connector>(),
  baseUrl: text('base_url').notNull(),
  /** AES-256-GCM, base64; never sent to the browser. */
  sealedKey: text('sealed_key'),
  changedAt: instant('changed_at').notNull().defaultNow(),
})
