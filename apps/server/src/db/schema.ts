import { sql } from 'drizzle-orm'
import {
  bigint,
  boolean,
  customType,
  date,
  index,
  integer,
  jsonb,
  pgSequence,
  pgTable,
  primaryKey,
  smallint,
  text,
  timestamp,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core'

export * from './authSchema'

const bytea = customType<{ data: Buffer }>({ dataType: () => 'bytea' })
const instant = (name: string) => timestamp(name, { withTimezone: true })
const id = () => uuid('id').primaryKey().defaultRandom()
const ofList = () =>
  uuid('list_id')
    .notNull()
    .references(() => lists.id)

export const lists = pgTable('lists', {
  id: id(),
  name: text('name').notNull(),
  createdAt: instant('created_at').notNull().defaultNow(),
  changedAt: instant('changed_at').notNull().defaultNow(),
  archivedAt: instant('archived_at'),
})

export const batches = pgTable(
  'batches',
  {
    id: id(),
    listId: ofList(),
    name: text('name').notNull(),
    fileName: text('file_name').notNull(),
    bytes: bigint('bytes', { mode: 'number' }).notNull(),
    encoding: text('encoding').notNull(),
    delimiter: text('delimiter').notNull(),
    bom: integer('bom').notNull(),
    hasHeadings: boolean('has_headings').notNull(),
    headings: jsonb('headings').$type<string[]>().notNull(),
    mapping: jsonb('mapping').$type<(string | null)[]>().notNull(),
    defaultCountry: text('default_country'),
    sourceKind: text('source_kind').notNull(),
    gatheredOn: date('gathered_on'),
    lawfulBasis: text('lawful_basis').notNull(),
    note: text('note').notNull().default(''),
    state: text('state').notNull(),
    problem: text('problem'),
    sha256: text('sha256'),
    rows: integer('rows').notNull().default(0),
    held: integer('held').notNull().default(0),
    withMobile: integer('with_mobile').notNull().default(0),
    jobId: uuid('job_id'),
    createdAt: instant('created_at').notNull().defaultNow(),
  },
  (t) => [index('batches_list').on(t.listId, t.createdAt)],
)

/** The file while it is being read: pieces in order. Gone once every row of it is stored. */
export const batchPieces = pgTable(
  'batch_pieces',
  {
    batchId: uuid('batch_id').notNull(),
    offset: bigint('byte_offset', { mode: 'number' }).notNull(),
    bytes: bytea('bytes').notNull(),
  },
  (t) => [primaryKey({ columns: [t.batchId, t.offset] })],
)

/** Rows as they stood. Never changed, never deleted by a step. */
export const rows = pgTable(
  'rows',
  {
    batchId: uuid('batch_id').notNull(),
    row: integer('row').notNull(),
    text: text('text').notNull(),
  },
  (t) => [primaryKey({ columns: [t.batchId, t.row] })],
)

export const heldRows = pgTable(
  'held_rows',
  {
    batchId: uuid('batch_id').notNull(),
    row: integer('row').notNull(),
    reason: text('reason').notNull(),
    /** The bytes exactly as they stood: text columns cannot hold every byte. */
    bytes: bytea('bytes').notNull(),
  },
  (t) => [primaryKey({ columns: [t.batchId, t.row] })],
)

export const contactIds = pgSequence('contact_ids')

/** A projection of rows, joins, fills and line facts: can be rebuilt, and rebuilding gives the same. */
export const contacts = pgTable(
  'contacts',
  {
    id: bigint('id', { mode: 'number' }).primaryKey(),
    listId: uuid('list_id').notNull(),
    batchId: uuid('batch_id').notNull(),
    row: integer('row').notNull(),
    fullName: text('full_name').notNull(),
    givenName: text('given_name').notNull(),
    familyName: text('family_name').notNull(),
    company: text('company').notNull(),
    title: text('title').notNull(),
    city: text('city').notNull(),
    region: text('region').notNull(),
    postalCode: text('postal_code').notNull(),
    domain: text('domain').notNull(),
    profile: text('profile').notNull(),
    country: text('country').notNull(),
    number: text('number'),
    rawNumber: text('raw_number').notNull(),
    email: text('email'),
    lineType: text('line_type').notNull(),
    lineStatus: text('line_status').notNull(),
    knownFrom: text('known_from').notNull(),
    verdict: text('verdict').notNull(),
    repairs: text('repairs').array().notNull(),
    /** The row itself holds a readable number or e-mail. */
    isReadable: boolean('is_readable').notNull(),
    /** What the row holds is known to be dead: no e-mail, and no line in service. */
    isDead: boolean('is_dead').notNull(),
    /** Reached by a filled value, where the row alone would not do. */
    isFilled: boolean('is_filled').notNull(),
    wantsMobile: boolean('wants_mobile').notNull(),
    isShared: boolean('is_shared').notNull().default(false),
    isSent: boolean('is_sent').notNull().default(false),
    lane: text('lane').notNull(),
    laneReason: text('lane_reason').notNull(),
    joined: integer('joined').notNull().default(0),
    joinedInto: bigint('joined_into', { mode: 'number' }),
    search: text('search').notNull(),
  },
  (t) => [
    index('contacts_list').on(t.listId, t.id),
    index('contacts_batch').on(t.batchId, t.row),
    index('contacts_joined_into').on(t.joinedInto).where(sql`joined_into is not null`),
    index('contacts_search').using('gin', sql`search gin_trgm_ops`),
  ],
)

export const contactNumbers = pgTable(
  'contact_numbers',
  {
    listId: uuid('list_id').notNull(),
    contactId: bigint('contact_id', { mode: 'number' }).notNull(),
    position: smallint('position').notNull(),
    e164: text('e164').notNull(),
    extension: text('extension'),
    label: text('label'),
    country: text('country'),
    lineType: text('line_type').notNull(),
    isValid: boolean('is_valid').notNull(),
    /** `row`, `join` (from another row of the same person) or `fill`. */
    origin: text('origin').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.contactId, t.position] }),
    index('contact_numbers_e164').on(t.e164, t.listId),
    index('contact_numbers_list').on(t.listId),
  ],
)

export const contactEmails = pgTable(
  'contact_emails',
  {
    listId: uuid('list_id').notNull(),
    contactId: bigint('contact_id', { mode: 'number' }).notNull(),
    position: smallint('position').notNull(),
    address: text('address').notNull(),
    kind: text('kind').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.contactId, t.position] }),
    index('contact_emails_address').on(t.address, t.listId),
    index('contact_emails_list').on(t.listId),
  ],
)

/** What the line register has said about a number, for all lists. */
export const numbers = pgTable('numbers', {
  e164: text('e164').primaryKey(),
  lineType: text('line_type'),
  status: text('status'),
  carrier: text('carrier'),
  isPorted: boolean('is_ported'),
  timeZone: text('time_zone'),
  lastSeen: date('last_seen'),
  checkedAt: instant('checked_at'),
})

export const joins = pgTable(
  'joins',
  {
    id: bigint('id', { mode: 'number' }).primaryKey().generatedAlwaysAsIdentity(),
    listId: ofList(),
    survivorId: bigint('survivor_id', { mode: 'number' }).notNull(),
    memberId: bigint('member_id', { mode: 'number' }).notNull(),
    keyKind: text('key_kind').notNull(),
    key: text('key').notNull(),
    madeAt: instant('made_at').notNull().defaultNow(),
    undoneAt: instant('undone_at'),
  },
  (t) => [
    uniqueIndex('joins_member_once').on(t.memberId).where(sql`undone_at is null`),
    index('joins_survivor').on(t.survivorId),
    index('joins_list').on(t.listId),
  ],
)

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

export const fillRuns = pgTable('fill_runs', {
  jobId: uuid('job_id').primaryKey(),
  listId: ofList(),
  order: text('provider_order').array().notNull(),
  checksLines: boolean('checks_lines').notNull(),
  budget: bigint('budget', { mode: 'number' }).notNull(),
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
    /** Candidates as they came, kept until they are judged. */
    answer: jsonb('answer').$type<{ number: string; score: number }[]>(),
    reserved: bigint('reserved', { mode: 'number' }).notNull(),
    askedAt: instant('asked_at').notNull().defaultNow(),
    answeredAt: instant('answered_at'),
    deadline: instant('deadline'),
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
  baseUrl: text('base_url').notNull(),
  /** AES-256-GCM, base64; never sent to the browser. */
  sealedKey: text('sealed_key'),
  changedAt: instant('changed_at').notNull().defaultNow(),
})

export const editions = pgTable(
  'editions',
  {
    id: id(),
    listId: ofList(),
    jobId: uuid('job_id').notNull(),
    destination: text('destination').notNull(),
    form: text('form').notNull(),
    filter: text('filter').notNull(),
    fileName: text('file_name').notNull(),
    state: text('state').notNull().default('preparing'),
    people: integer('people').notNull().default(0),
    leftOut: integer('left_out').notNull().default(0),
    bytes: bigint('bytes', { mode: 'number' }).notNull().default(0),
    sha256: text('sha256'),
    createdAt: instant('created_at').notNull().defaultNow(),
  },
  (t) => [index('editions_list').on(t.listId, t.createdAt)],
)

export const editionMembers = pgTable(
  'edition_members',
  {
    editionId: uuid('edition_id').notNull(),
    contactId: bigint('contact_id', { mode: 'number' }).notNull(),
  },
  (t) => [primaryKey({ columns: [t.editionId, t.contactId] }), index('edition_members_contact').on(t.contactId)],
)

export const editionPieces = pgTable(
  'edition_pieces',
  {
    editionId: uuid('edition_id').notNull(),
    position: integer('position').notNull(),
    bytes: bytea('bytes').notNull(),
  },
  (t) => [primaryKey({ columns: [t.editionId, t.position] })],
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

/** Counts of a list's contacts by everything the sieve and the terrace show. */
export const contactCube = pgTable(
  'contact_cube',
  {
    listId: uuid('list_id').notNull(),
    batchId: uuid('batch_id').notNull(),
    country: text('country').notNull(),
    verdict: text('verdict').notNull(),
    lineType: text('line_type').notNull(),
    lineStatus: text('line_status').notNull(),
    knownFrom: text('known_from').notNull(),
    lane: text('lane').notNull(),
    laneReason: text('lane_reason').notNull(),
    isReadable: boolean('is_readable').notNull(),
    isDead: boolean('is_dead').notNull(),
    isFilled: boolean('is_filled').notNull(),
    wantsMobile: boolean('wants_mobile').notNull(),
    isShared: boolean('is_shared').notNull(),
    isSent: boolean('is_sent').notNull(),
    isJoined: boolean('is_joined').notNull(),
    hasJoined: boolean('has_joined').notNull(),
    contacts: integer('contacts').notNull(),
  },
  (t) => [index('contact_cube_list').on(t.listId)],
)
