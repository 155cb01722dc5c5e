import type { Destination, FileLayout, Takes } from '@upper-field/core/send'
import { bigint, index, integer, jsonb, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core'
import { bytea, id, instant } from './columns'
import { ofList } from './lists'

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
