import type {
  AudienceState,
  Destination,
  FileLayout,
  Forecast,
  IdentifierMix,
  Purpose,
  Takes,
} from '@upper-field/core/send'
import { sql } from 'drizzle-orm'
import {
  bigint,
  bit,
  boolean,
  index,
  integer,
  jsonb,
  numeric,
  pgTable,
  primaryKey,
  text,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core'
import { SPAN } from '../spans'
import { bytea, id, instant } from './columns'
import { ofList } from './lists'

/** Mixes of identifiers by source: a batch, or what a provider found; of these, with its values and without. */
export type MixBySource = Readonly<
  Record<string, { readonly mix: IdentifierMix; readonly without: IdentifierMix | null }>
>

/** A named set of contacts that is kept at a network. */
export const audiences = pgTable(
  'audiences',
  {
    id: id(),
    listId: ofList(),
    name: text('name').notNull(),
    destination: text('destination').notNull(),
    takes: text('takes').$type<Takes>().notNull(),
    form: text('form').$type<'hashed' | 'plain'>().notNull(),
    filter: text('filter').notNull(),
    /** Made of the entries of a suppression list, to exclude them; null where it is made of the list's contacts. */
    suppressionListId: uuid('suppression_list_id'),
    purpose: text('purpose').$type<Purpose>().notNull(),
    accountId: text('account_id').notNull(),
    accountName: text('account_name').notNull(),
    within: uuid('within'),
    keepsDays: integer('keeps_days'),
    refreshDays: integer('refresh_days').notNull(),
    removesByItself: boolean('removes_by_itself').notNull(),
    /** Its id at the network; null before it was made there. */
    remoteId: text('remote_id'),
    state: text('state').$type<'not-sent' | AudienceState>().notNull().default('not-sent'),
    reason: text('reason'),
    matched: integer('matched'),
    lapsesAt: instant('lapses_at'),
    toldAt: instant('told_at'),
    /** When the network is asked again how it stands; null where nothing is expected. */
    lookAt: instant('look_at'),
    /** How many its network holds by our books: counted with every line that comes and goes. */
    people: integer('people').notNull().default(0),
    /** Who came into what it is made of since its last edition, and who left it, when it was held against its list last. */
    cameSince: integer('came_since').notNull().default(0),
    leftSince: integer('left_since').notNull().default(0),
    /** What the version of the list was then; below zero where something else has changed since. */
    seenVersion: bigint('seen_version', { mode: 'number' }).notNull().default(-1),
    seenAt: instant('seen_at'),
    similarTo: jsonb('similar_to').$type<{ audienceId: string; country: string; closeness: number }>(),
    removedAt: instant('removed_at'),
    madeBy: text('made_by').notNull(),
    createdAt: instant('created_at').notNull().defaultNow(),
  },
  (t) => [index('audiences_list').on(t.listId, t.createdAt)],
)

/** Lines of an edition of an audience, each once: what was compared to tell who comes and who leaves. */
export const editionLines = pgTable(
  'edition_lines',
  {
    editionId: uuid('edition_id')
      .notNull()
      .references(() => editions.id, { onDelete: 'cascade' }),
    /** SHA-256 of the cells. */
    key: bytea('key').notNull(),
    /** Null for somebody who is known by an entry of a suppression list alone, or was forgotten. */
    contactId: bigint('contact_id', { mode: 'number' }),
    cells: text('cells').array().notNull(),
  },
  (t) => [primaryKey({ columns: [t.editionId, t.key] }), index('edition_lines_contact').on(t.contactId)],
)

/** Contacts that were chosen for an edition and have no line in it: nothing to match by, or another has the same line. */
export const editionLeftOut = pgTable(
  'edition_left_out',
  {
    editionId: uuid('edition_id')
      .notNull()
      .references(() => editions.id, { onDelete: 'cascade' }),
    contactId: bigint('contact_id', { mode: 'number' }).notNull(),
  },
  (t) => [primaryKey({ columns: [t.editionId, t.contactId] })],
)

/** Who is in an audience by our books: every line the network took and was not told to take out since. */
export const audienceMembers = pgTable(
  'audience_members',
  {
    audienceId: uuid('audience_id')
      .notNull()
      .references(() => audiences.id, { onDelete: 'cascade' }),
    key: bytea('key').notNull(),
    /** Null as in the lines of an edition; the line of somebody forgotten is kept until the network has taken it out. */
    contactId: bigint('contact_id', { mode: 'number' }),
    cells: text('cells').array().notNull(),
    /** The delivery it came with last, and when. */
    deliveryId: uuid('delivery_id').notNull(),
    since: instant('since').notNull().defaultNow(),
    /** Since when it has to leave: suppressed, forgotten, or its rows put back. */
    owedSince: instant('owed_since'),
  },
  (t) => [
    primaryKey({ columns: [t.audienceId, t.key] }),
    index('audience_members_contact').on(t.contactId),
    index('audience_members_owed').on(t.audienceId).where(sql`owed_since is not null`),
  ],
)

export const deliveries = pgTable(
  'deliveries',
  {
    id: id(),
    audienceId: uuid('audience_id')
      .notNull()
      .references(() => audiences.id, { onDelete: 'cascade' }),
    editionId: uuid('edition_id'),
    jobId: uuid('job_id'),
    way: text('way').$type<'changes' | 'whole' | 'removals'>().notNull(),
    state: text('state').notNull().default('under-way'),
    added: integer('added').notNull().default(0),
    removed: integer('removed').notNull().default(0),
    renewed: integer('renewed').notNull().default(0),
    refusedLines: integer('refused_lines').notNull().default(0),
    refusedParts: integer('refused_parts').notNull().default(0),
    /** The network's code of what it refused. */
    refusal: text('refusal'),
    forecast: jsonb('forecast').$type<Forecast>(),
    matched: integer('matched'),
    startedBy: text('started_by'),
    startedAt: instant('started_at').notNull().defaultNow(),
    endedAt: instant('ended_at'),
  },
  (t) => [
    index('deliveries_audience').on(t.audienceId, t.startedAt),
    uniqueIndex('deliveries_one_at_a_time').on(t.audienceId).where(sql`state = 'under-way'`),
  ],
)

/** Small campaigns run to learn how many match. */
export const trials = pgTable(
  'trials',
  {
    id: id(),
    audienceId: uuid('audience_id')
      .notNull()
      .references(() => audiences.id, { onDelete: 'cascade' }),
    remoteId: text('remote_id').notNull(),
    exclude: uuid('exclude').array().notNull(),
    daily: numeric('daily', { mode: 'number' }).notNull(),
    days: integer('days').notNull(),
    state: text('state').$type<'on' | 'over' | 'failed'>().notNull().default('on'),
    reach: integer('reach'),
    spent: numeric('spent', { mode: 'number' }),
    startedAt: instant('started_at').notNull().defaultNow(),
  },
  (t) => [index('trials_audience').on(t.audienceId, t.startedAt)],
)

/** Keys of networks, sealed. */
export const destinationKeys = pgTable('destination_keys', {
  destination: text('destination').primaryKey(),
  address: text('address').notNull(),
  sealedKey: text('sealed_key').notNull(),
  changedAt: instant('changed_at').notNull().defaultNow(),
})

export const editions = pgTable(
  'editions',
  {
    id: id(),
    listId: ofList(),
    jobId: uuid('job_id').notNull(),
    destination: text('destination').notNull(),
    /** `people` or `companies`: which kind of audience of the destination; `people` for a file for people. */
    takes: text('takes').$type<Takes>().notNull().default('people'),
    form: text('form').notNull(),
    filter: text('filter').notNull(),
    /** Of a file for people; null for the usual one. */
    layout: jsonb('layout').$type<FileLayout>(),
    fileName: text('file_name').notNull(),
    state: text('state').notNull().default('preparing'),
    people: integer('people').notNull().default(0),
    leftOut: integer('left_out').notNull().default(0),
    bytes: bigint('bytes', { mode: 'number' }).notNull().default(0),
    sha256: text('sha256'),
    /** Of a file as it came: the batch whose rows it has. */
    batchId: uuid('batch_id'),
    /** The audience it is an edition of; null for a file. Its lines are kept one by one then. */
    audienceId: uuid('audience_id').references(() => audiences.id, { onDelete: 'cascade' }),
    /** How many have each set of identifiers, and the same by where they came from. */
    mix: jsonb('mix').$type<IdentifierMix>().notNull().default({}),
    mixBySource: jsonb('mix_by_source').$type<MixBySource>().notNull().default({}),
    createdAt: instant('created_at').notNull().defaultNow(),
  },
  (t) => [index('editions_list').on(t.listId, t.createdAt), index('editions_audience').on(t.audienceId, t.createdAt)],
)

/** Who is in a file: a bit for each id of a span. */
export const editionMembers = pgTable(
  'edition_members',
  {
    editionId: uuid('edition_id').notNull(),
    span: integer('span').notNull(),
    bits: bit('bits', { dimensions: SPAN }).notNull(),
  },
  (t) => [primaryKey({ columns: [t.editionId, t.span] }), index('edition_members_span').on(t.span)],
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

/** Companies that stand in a file already: each is sent once, however many people of it are chosen. */
export const editionCompanies = pgTable(
  'edition_companies',
  { editionId: uuid('edition_id').notNull(), key: text('key').notNull() },
  (t) => [primaryKey({ columns: [t.editionId, t.key] })],
)

/** Ad networks that audiences are prepared for, each as it is declared. */
export const destinations = pgTable('destinations', {
  id: text('id').primaryKey(),
  document: jsonb('document').$type<Destination>().notNull(),
  changedBy: text('changed_by').notNull(),
  changedAt: instant('changed_at').notNull().defaultNow(),
})

/** Layouts of files for people, kept by name for all lists. */
export const fileLayouts = pgTable('file_layouts', {
  name: text('name').primaryKey(),
  layout: jsonb('layout').$type<FileLayout>().notNull(),
  changedBy: text('changed_by').notNull(),
  changedAt: instant('changed_at').notNull().defaultNow(),
})

/** Whose reminders may be read as a calendar, by a secret of which only the hash is kept. */
export const calendars = pgTable('calendars', {
  personId: text('person_id').primaryKey(),
  secretHash: text('secret_hash').notNull().unique(),
  madeAt: instant('made_at').notNull().defaultNow(),
})
