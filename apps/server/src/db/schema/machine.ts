import { sql } from 'drizzle-orm'
import { bigint, boolean, index, integer, jsonb, pgTable, primaryKey, text, unique, uuid } from 'drizzle-orm/pg-core'
import { id, instant } from './columns'
import { ofList } from './lists'

/** Keys for other programs. The secret itself is nowhere kept. */
export const machineKeys = pgTable(
  'machine_keys',
  {
    id: id(),
    name: text('name').notNull(),
    scopes: text('scopes').array().notNull(),
    /** SHA-256 of the secret. */
    hash: text('hash').notNull(),
    /** Its first letters, by which people tell keys apart. */
    start: text('start').notNull(),
    perMinute: integer('per_minute').notNull(),
    /** What it may spend in a month, in millionths of a euro. */
    budget: bigint('budget', { mode: 'number' }).notNull().default(0),
    expiresAt: instant('expires_at'),
    lastUsedAt: instant('last_used_at'),
    withdrawnAt: instant('withdrawn_at'),
    madeBy: text('made_by').notNull(),
    madeAt: instant('made_at').notNull().defaultNow(),
  },
  (t) => [unique('machine_keys_hash').on(t.hash)],
)

/** Every call of a program: which and how it ended, nothing of whom it was about. */
export const machineCalls = pgTable(
  'machine_calls',
  {
    id: bigint('id', { mode: 'number' }).primaryKey().generatedAlwaysAsIdentity(),
    keyId: uuid('key_id').notNull(),
    call: text('call').notNull(),
    status: integer('status').notNull(),
    milliseconds: integer('milliseconds').notNull(),
    at: instant('at').notNull().defaultNow(),
  },
  (t) => [index('machine_calls_key').on(t.keyId, t.at)],
)

/** The batch of a day to which a program adds contacts. */
export const machineBatches = pgTable(
  'machine_batches',
  {
    listId: ofList(),
    keyId: uuid('key_id').notNull(),
    /** ISO 8601, UTC. */
    day: text('day').notNull(),
    batchId: uuid('batch_id').notNull(),
  },
  (t) => [primaryKey({ columns: [t.listId, t.keyId, t.day] })],
)

/** Contacts a program has added, under its own ids. */
export const machineContacts = pgTable(
  'machine_contacts',
  {
    listId: ofList(),
    keyId: uuid('key_id').notNull(),
    theirId: text('their_id').notNull(),
    contactId: bigint('contact_id', { mode: 'number' }).notNull(),
    /** SHA-256 of what was sent: the same id with other values is another contact's slip. */
    sent: text('sent').notNull(),
    at: instant('at').notNull().defaultNow(),
  },
  (t) => [primaryKey({ columns: [t.listId, t.keyId, t.theirId] }), index('machine_contacts_contact').on(t.contactId)],
)

/** Where other programs want to be told what happens. */
export const webhooks = pgTable('webhooks', {
  id: id(),
  /** Null for all lists. */
  listId: uuid('list_id'),
  url: text('url').notNull(),
  events: text('events').array().notNull(),
  /** Sealed: the secret that signs, as Standard Webhooks are. */
  secret: text('secret').notNull(),
  isOn: boolean('is_on').notNull().default(true),
  madeBy: text('made_by').notNull(),
  madeAt: instant('made_at').notNull().defaultNow(),
})

/** What was told to a webhook, or is to be. */
export const webhookMessages = pgTable(
  'webhook_messages',
  {
    id: id(),
    webhookId: uuid('webhook_id').notNull(),
    event: text('event').notNull(),
    payload: jsonb('payload').$type<Record<string, unknown>>().notNull(),
    /** `waiting`, `sent`, `failed`. */
    state: text('state').notNull().default('waiting'),
    tries: integer('tries').notNull().default(0),
    nextAt: instant('next_at').notNull().defaultNow(),
    /** What was answered last. */
    status: integer('status'),
    problem: text('problem'),
    answer: text('answer').notNull().default(''),
    madeAt: instant('made_at').notNull().defaultNow(),
    sentAt: instant('sent_at'),
  },
  (t) => [
    index('webhook_messages_due').on(t.webhookId, t.nextAt).where(sql`state = 'waiting'`),
    index('webhook_messages_webhook').on(t.webhookId, t.madeAt),
  ],
)
