import type { Survivorship } from '@upper-field/core/pair'
import type { Use } from '@upper-field/core/split'
import type { HeldReason, RowMend } from '@upper-field/core/table'
import type { Routine } from '@upper-field/core/tidy'
import { sql } from 'drizzle-orm'
import {
  bigint,
  boolean,
  date,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  unique,
  uuid,
} from 'drizzle-orm/pg-core'
import { bytea, id, instant } from './columns'

export const lists = pgTable('lists', {
  id: id(),
  name: text('name').notNull(),
  createdAt: instant('created_at').notNull().defaultNow(),
  changedAt: instant('changed_at').notNull().defaultNow(),
  archivedAt: instant('archived_at'),
  /** The routine that its contacts are projected with; null for the one proposed. */
  routine: jsonb('routine').$type<Routine>(),
  routineName: text('routine_name'),
  /** Whose values come first where several rows are one person; null for the first row's. */
  survivorship: jsonb('survivorship').$type<Survivorship>(),
  /** Grows with every change of its contacts: what was worked out beside the list is held against it. */
  version: bigint('version', { mode: 'number' }).notNull().default(0),
  /** Changes that stand in its counts one by one since they were last summed up. */
  unsummed: integer('unsummed').notNull().default(0),
})

/** The list that a line belongs to. */
export const ofList = () =>
  uuid('list_id')
    .notNull()
    .references(() => lists.id)

/** How far a file is read that is still arriving, and what it holds so far. */
interface ReadAhead {
  readonly offset: number
  readonly row: number
  readonly mends: Partial<Record<RowMend, number>>
  readonly tidiedBy: string
  readonly rows: number
  readonly held: number
  readonly withMobile: number
}

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
    format: text('format').notNull().default('csv'),
    sheet: text('sheet'),
    firstRow: integer('first_row').notNull().default(1),
    headingsRow: integer('headings_row'),
    merged: text('merged').notNull().default('every'),
    takesHidden: boolean('takes_hidden').notNull().default(false),
    notes: jsonb('notes').$type<{ code: string; text: string }[]>().notNull().default([]),
    price: bigint('price', { mode: 'number' }),
    headings: jsonb('headings').$type<string[]>().notNull(),
    mapping: jsonb('mapping').$type<(string | null)[]>().notNull(),
    defaultCountry: text('default_country'),
    /** Mail hosts that serve people of many companies, learnt from the file. */
    publicHosts: text('public_hosts').array().notNull().default(sql`'{}'::text[]`),
    sourceKind: text('source_kind').notNull(),
    gatheredOn: date('gathered_on'),
    lawfulBasis: text('lawful_basis').notNull(),
    note: text('note').notNull().default(''),
    state: text('state').notNull(),
    problem: text('problem'),
    sha256: text('sha256'),
    /** Digest of the first megabyte, with the size: known before the whole file is here. */
    fingerprint: text('fingerprint'),
    /** True once its contacts stand in the index of the search; until then the search looks at them one by one. */
    isIndexed: boolean('is_indexed').notNull().default(false),
    /** Size of the plain text that the file was unpacked into; null before, and where it needs no unpacking. */
    tableBytes: bigint('table_bytes', { mode: 'number' }),
    rows: integer('rows').notNull().default(0),
    held: integer('held').notNull().default(0),
    withMobile: integer('with_mobile').notNull().default(0),
    jobId: uuid('job_id'),
    /** Bytes of the file that are stored in whole pieces: an upload that broke off goes on behind them. */
    received: bigint('received', { mode: 'number' }).notNull().default(0),
    /** How far it is read while it arrives; null before, and once its job goes on from there. */
    readAhead: jsonb('read_ahead').$type<ReadAhead>(),
    /** Whoever sends the file now holds this; it is theirs until the time beside it, which grows as bytes come. */
    uploadLease: uuid('upload_lease'),
    uploadLeaseUntil: instant('upload_lease_until'),
    createdAt: instant('created_at').notNull().defaultNow(),
  },
  (t) => [index('batches_list').on(t.listId, t.createdAt), index('batches_fingerprint').on(t.fingerprint)],
)

/** The file while it is being read, and the table unpacked from it: pieces in order. Gone once every row is stored. */
export const batchPieces = pgTable(
  'batch_pieces',
  {
    batchId: uuid('batch_id').notNull(),
    /** `file` as it arrived, or `table` as it was unpacked. */
    part: text('part').notNull().default('file'),
    offset: bigint('byte_offset', { mode: 'number' }).notNull(),
    bytes: bytea('bytes').notNull(),
  },
  (t) => [primaryKey({ columns: [t.batchId, t.part, t.offset] })],
)

/** Rows as they stood. Never changed, never deleted by a step; blanked only for a person who asks to be forgotten. */
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
    reason: text('reason').$type<HeldReason>().notNull(),
    /** The bytes exactly as they stood: text columns cannot hold every byte. */
    bytes: bytea('bytes').notNull(),
    /** Set once the row was let in, as it stood or mended. */
    letInAt: instant('let_in_at'),
  },
  (t) => [primaryKey({ columns: [t.batchId, t.row] })],
)

/** How files of one layout were brought in last. */
export const layouts = pgTable('layouts', {
  key: text('key').primaryKey(),
  mapping: jsonb('mapping').$type<(string | null)[]>().notNull(),
  defaultCountry: text('default_country'),
  sourceKind: text('source_kind').notNull(),
  lawfulBasis: text('lawful_basis').notNull(),
  batchName: text('batch_name').notNull(),
  usedAt: instant('used_at').notNull().defaultNow(),
})

/** The rules of a list's lanes, where it has rules of its own. */
export const laneRules = pgTable(
  'lane_rules',
  {
    listId: uuid('list_id').notNull(),
    position: integer('position').notNull(),
    lane: text('lane').notNull(),
    name: text('name').notNull(),
    use: text('use').$type<Use>().notNull(),
    filter: text('filter').notNull(),
  },
  (t) => [primaryKey({ columns: [t.listId, t.lane] })],
)

/** A filter that was saved by a name. */
export const segments = pgTable(
  'segments',
  {
    id: id(),
    listId: uuid('list_id').notNull(),
    name: text('name').notNull(),
    filter: text('filter').notNull(),
    madeBy: text('made_by').notNull(),
    madeAt: instant('made_at').notNull().defaultNow(),
  },
  (t) => [unique('segments_name').on(t.listId, t.name)],
)
