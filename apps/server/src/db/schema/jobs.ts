import { sql } from 'drizzle-orm'
import {
  bigint,
  boolean,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  real,
  text,
  uniqueIndex,
  uuid,
  varchar,
} from 'drizzle-orm/pg-core'
import { id, instant } from './columns'
import { lists, ofList } from './lists'

export const jobs = pgTable(
  'jobs',
  {
    id: id(),
    kind: text('kind').notNull(),
    listId: ofList(),
    state: text('state').notNull().default('queued'),
    phase: text('phase').notNull().default(''),
    /** How much of its phase is done, from 0 to 1; null where that is not told apart from the whole. */
    phaseShare: real('phase_share'),
    done: bigint('done', { mode: 'number' }).notNull().default(0),
    total: bigint('total', { mode: 'number' }),
    /** How much of it was done when it began. */
    before: bigint('before', { mode: 'number' }).notNull().default(0),
    unit: text('unit').notNull(),
    problem: text('problem'),
    payload: jsonb('payload').$type<Record<string, unknown>>().notNull(),
    /** How often it was cut off since its last step that came to an end. */
    cutOffs: integer('cut_offs').notNull().default(0),
    /** Where to go on after a crash; written in the transaction of the step it belongs to. */
    cursor: jsonb('cursor').$type<Record<string, unknown>>().notNull().default({}),
    result: jsonb('result').$type<Record<string, number | string>>().notNull().default({}),
    /** Name of who asked for it; null where the application did so by itself. */
    startedBy: text('started_by'),
    createdAt: instant('created_at').notNull().defaultNow(),
    startedAt: instant('started_at'),
    finishedAt: instant('finished_at'),
  },
  (t) => [index('jobs_list').on(t.listId, t.createdAt)],
)

/**
 * Append-only. One question to a provider is charged once: the key under which it was asked is unique, here as in the
 * provider's own books, however often it is repeated and for however many contacts the answer serves.
 */
export const charges = pgTable(
  'charges',
  {
    id: bigint('id', { mode: 'number' }).primaryKey().generatedAlwaysAsIdentity(),
    /** Null for a try of a connector. */
    listId: uuid('list_id').references(() => lists.id),
    jobId: uuid('job_id'),
    provider: text('provider').notNull(),
    /** The number asked about, or the contact. */
    subject: text('subject').notNull(),
    contactId: bigint('contact_id', { mode: 'number' }),
    /** The attempt of a fill that it was for. */
    attemptId: uuid('attempt_id'),
    /** The idempotency key of the asking; for one of many in a call, with its subject. */
    question: text('question').notNull(),
    amount: bigint('amount', { mode: 'number' }).notNull(),
    reason: text('reason').notNull(),
    at: instant('at').notNull().defaultNow(),
  },
  (t) => [
    uniqueIndex('charges_once').on(t.provider, t.question),
    index('charges_list').on(t.listId),
    index('charges_job').on(t.jobId),
  ],
)

/** Numbers a check job asks about, and the register's answers. */
export const lineChecks = pgTable(
  'line_checks',
  {
    jobId: uuid('job_id').notNull(),
    e164: text('e164').notNull(),
    lineType: text('line_type'),
    status: text('status'),
    carrier: text('carrier'),
    cost: bigint('cost', { mode: 'number' }),
    /** The order at the register that holds the question: what is bought is fetched, however late it is ready. */
    orderId: text('order_id'),
    orderedAt: instant('ordered_at'),
    answeredAt: instant('answered_at'),
  },
  (t) => [
    primaryKey({ columns: [t.jobId, t.e164] }),
    index('line_checks_e164').on(t.e164),
    // What is still to be ordered, and what an order still owes.
    index('line_checks_open').on(t.jobId, t.orderId, t.e164).where(sql`answered_at is null`),
  ],
)

/** The same for addresses and the verifier. */
export const addressChecks = pgTable(
  'address_checks',
  {
    jobId: uuid('job_id').notNull(),
    address: text('address').notNull(),
    deliverability: text('deliverability'),
    cost: bigint('cost', { mode: 'number' }),
    orderId: text('order_id'),
    orderedAt: instant('ordered_at'),
    answeredAt: instant('answered_at'),
  },
  (t) => [
    primaryKey({ columns: [t.jobId, t.address] }),
    index('address_checks_address').on(t.address),
    // What is still to be ordered, and what an order still owes.
    index('address_checks_open').on(t.jobId, t.orderId, t.address).where(sql`answered_at is null`),
  ],
)

/** The same for numbers and do-not-call registers. */
export const doNotCallChecks = pgTable(
  'do_not_call_checks',
  {
    jobId: uuid('job_id').notNull(),
    e164: text('e164').notNull(),
    isListed: boolean('is_listed'),
    register: text('register'),
    cost: bigint('cost', { mode: 'number' }),
    orderId: text('order_id'),
    orderedAt: instant('ordered_at'),
    answeredAt: instant('answered_at'),
  },
  (t) => [
    primaryKey({ columns: [t.jobId, t.e164] }),
    index('do_not_call_checks_e164').on(t.e164),
    // What is still to be ordered, and what an order still owes.
    index('do_not_call_checks_open').on(t.jobId, t.orderId, t.e164).where(sql`answered_at is null`),
  ],
)

/** Answers to calls that create or spend, so that a repeated call does neither twice. */
export const idempotencyKeys = pgTable(
  'idempotency_keys',
  {
    personId: text('person_id').notNull(),
    key: text('key').notNull(),
    call: text('call').notNull(),
    /** SHA-256 of what was asked: the same key does not stand for another call. */
    request: text('request').notNull().default(''),
    /** Held by whoever carries the call out. */
    token: uuid('token'),
    /** Set in the transaction of the effect: from then on the call is never carried out again. */
    carriedOutAt: instant('carried_out_at'),
    answer: jsonb('answer'),
    at: instant('at').notNull().defaultNow(),
  },
  (t) => [primaryKey({ columns: [t.personId, t.key] }), index('idempotency_keys_at').on(t.at)],
)

/** How often somebody has called of late, in the shape that the library for it asks for. */
export const callLimits = pgTable('call_limits', {
  key: varchar('key', { length: 255 }).primaryKey(),
  points: integer('points').notNull().default(0),
  expire: bigint('expire', { mode: 'number' }),
})
