import { bigint, boolean, date, index, integer, jsonb, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core'
import { bytea, id, instant } from './columns'

export const lists = pgTable('lists', {
  id: id(),
  name: text('name').notNull(),
  createdAt: instant('created_at').notNull().defaultNow(),
  changedAt: instant('changed_at').notNull().defaultNow(),
  archivedAt: instant('archived_at'),
})

/** The list that a line belongs to. */
export const ofList = () =>
  uuid('list_id')
    .notNull()
    .references(() => lists.id)

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
