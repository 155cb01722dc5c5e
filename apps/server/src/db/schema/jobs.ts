import { bigint, index, integer, jsonb, pgTable, primaryKey, text, uniqueIndex, uuid } from 'drizzle-orm/pg-core'
import { id, instant } from './columns'
import { ofList } from './lists'

export const jobs = pgTable(
  'jobs',
  {
    id: id(),
    kind: text('kind').notNull(),
    listId: ofList(),
    state: text('state').notNull().default('queued'),
    phase: text('phase').notNull().default(''),
    done: bigint('done', { mode: 'number' }).notNull().default(0),
    total: bigint('total', { mode: 'number' }),
    unit: text('unit').notNull(),
    problem: text('problem'),
    payload: jsonb('payload').$type<Record<string, unknown>>().notNull(),
    /** Where to go on after a crash; written in the transaction of the step it belongs to. */
    /** How often it was cut off since its last step that came to an end. */
    cutOffs: integer('cut_offs').notNull().default(0),
    cursor: jsonb('cursor').$type<Record<string, unknown>>().notNull().default({}),
    result: jsonb('result').$type<Record<string, number | string>>().notNull().default({}),
    createdAt: instant('created_at').notNull().defaultNow(),
    startedAt: instant('started_at'),
    finishedAt: instant('finished_at'),
  },
  (t) => [index('jobs_list').on(t.listId, t.createdAt)],
)

/** Append-only. One subject is charged once in a job, however often the job is repeated. */
export const charges = pgTable(
  'charges',
  {
    id: bigint('id', { mode: 'number' }).primaryKey().generatedAlwaysAsIdentity(),
    listId: ofList(),
    jobId: uuid('job_id').notNull(),
    provider: text('provider').notNull(),
    /** The number asked about, or the contact. */
    subject: text('subject').notNull(),
    contactId: bigint('contact_id', { mode: 'number' }),
    amount: bigint('amount', { mode: 'number' }).notNull(),
    reason: text('reason').notNull(),
    at: instant('at').notNull().defaultNow(),
  },
  (t) => [uniqueIndex('charges_once').on(t.jobId, t.provider, t.subject), index('charges_list').on(t.listId)],
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
    answeredAt: instant('answered_at'),
  },
  (t) => [primaryKey({ columns: [t.jobId, t.e164] }), index('line_checks_e164').on(t.e164)],
)

/** Answers to calls that create or spend, so that a repeated call does neither twice. */
export const idempotencyKeys = pgTable(
  'idempotency_keys',
  {
    personId: text('person_id').notNull(),
    key: text('key').notNull(),
    call: text('call').notNull(),
    answer: jsonb('answer'),
    at: instant('at').notNull().defaultNow(),
  },
  (t) => [primaryKey({ columns: [t.personId, t.key] })],
)
