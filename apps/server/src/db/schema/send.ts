import { bigint, index, integer, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core'
import { bytea, id, instant } from './columns'
import { ofList } from './lists'

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
