import type { AnswerItem, Named, RecordState } from '@upper-field/core/connect'
import { bigint, boolean, index, integer, jsonb, pgTable, text, unique, uuid } from 'drizzle-orm/pg-core'
import { id, instant } from './columns'
import { ofList } from './lists'

/** Businesses of a trade at a place, fetched from a directory for one list. */
export const directorySearches = pgTable(
  'directory_searches',
  {
    id: id(),
    listId: ofList(),
    name: text('name').notNull(),
    provider: text('provider').notNull(),
    trade: jsonb('trade').$type<Named>().notNull(),
    place: jsonb('place').$type<Named>().notNull(),
    jobId: uuid('job_id'),
    /** The batch its businesses become. */
    batchId: uuid('batch_id'),
    budget: bigint('budget', { mode: 'number' }).notNull(),
    spent: bigint('spent', { mode: 'number' }).notNull().default(0),
    /** One charge, in millionths of a euro, by the directory's latest word. */
    price: bigint('price', { mode: 'number' }).notNull(),
    total: integer('total').notNull(),
    /** Left out by the directory as known. */
    leftOut: integer('left_out').notNull().default(0),
    /** What the next page is asked for by; null before the first. */
    cursor: text('cursor'),
    pages: integer('pages').notNull().default(0),
    isWhole: boolean('is_whole').notNull().default(false),
    madeBy: text('made_by').notNull(),
    madeAt: instant('made_at').notNull().defaultNow(),
  },
  (t) => [index('directory_searches_list').on(t.listId, t.madeAt)],
)

/** Businesses as a directory told of them, and what became of each. */
export const directoryRecords = pgTable(
  'directory_records',
  {
    id: bigint('id', { mode: 'number' }).primaryKey().generatedAlwaysAsIdentity(),
    searchId: uuid('search_id')
      .notNull()
      .references(() => directorySearches.id, { onDelete: 'cascade' }),
    /** The directory's own id. */
    record: text('record').notNull(),
    facts: jsonb('facts').$type<AnswerItem>().notNull(),
    state: text('state').$type<RecordState>().notNull(),
    /** Its numbers in E.164 and its addresses: whoever asks to be forgotten is found by them. */
    reach: text('reach').array().notNull(),
    /** The contact it became; null until its row is there. */
    contactId: bigint('contact_id', { mode: 'number' }),
  },
  (t) => [unique('directory_records_once').on(t.searchId, t.record)],
)
