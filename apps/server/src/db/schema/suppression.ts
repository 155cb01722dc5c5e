import type { Scope } from '@upper-field/core/split'
import { sql } from 'drizzle-orm'
import { bigint, boolean, index, integer, pgTable, text, unique, uuid } from 'drizzle-orm/pg-core'
import { id, instant } from './columns'

/** People who must not be contacted, whatever list they are in. */
export const suppressionLists = pgTable('suppression_lists', {
  id: id(),
  name: text('name').notNull().unique(),
  /** `opt-outs`, `register`, `customers` or `competitors`. */
  kind: text('kind').notNull(),
  scope: text('scope').$type<Scope>().notNull().default('all'),
  createdAt: instant('created_at').notNull().defaultNow(),
})

/** A file of people who must not be contacted, as it was brought in. Its rows are not kept: their keys are. */
export const suppressionBatches = pgTable(
  'suppression_batches',
  {
    id: id(),
    suppressionListId: uuid('suppression_list_id')
      .notNull()
      .references(() => suppressionLists.id),
    name: text('name').notNull(),
    sha256: text('sha256').notNull(),
    /** ISO 3166-1 alpha-2 for numbers without a country code. */
    country: text('country'),
    reason: text('reason').notNull(),
    asHashes: boolean('as_hashes').notNull(),
    expiresAt: instant('expires_at'),
    rows: integer('rows').notNull().default(0),
    unread: integer('unread').notNull().default(0),
    addedBy: text('added_by').notNull(),
    addedAt: instant('added_at').notNull().defaultNow(),
    takenBackAt: instant('taken_back_at'),
  },
  (t) => [index('suppression_batches_list').on(t.suppressionListId, t.addedAt)],
)

/** One number, address or domain. The hash is what matches; the key itself is kept only where it may be. */
export const suppressionEntries = pgTable(
  'suppression_entries',
  {
    id: id(),
    suppressionListId: uuid('suppression_list_id')
      .notNull()
      .references(() => suppressionLists.id),
    kind: text('kind').notNull(),
    /** SHA-256 of the key in its one form, in lower-case hexadecimal digits. */
    hash: text('hash').notNull(),
    key: text('key'),
    /** The file it came with; null where it was added by hand, by API or from a contact. */
    batchId: uuid('batch_id').references(() => suppressionBatches.id),
    reason: text('reason').notNull(),
    addedBy: text('added_by').notNull(),
    addedAt: instant('added_at').notNull().defaultNow(),
    expiresAt: instant('expires_at'),
    /** True once those whom it held were let go after it had expired. */
    isLetGo: boolean('is_let_go').notNull().default(false),
  },
  (t) => [
    // A key stands once for each file that holds it, and once beside all files.
    unique('suppression_entries_once').on(t.suppressionListId, t.hash, t.batchId).nullsNotDistinct(),
    index('suppression_entries_hash').on(t.hash),
    index('suppression_entries_added').on(t.addedAt),
    index('suppression_entries_batch').on(t.batchId),
    index('suppression_entries_expiry').on(t.expiresAt).where(sql`expires_at is not null and not is_let_go`),
  ],
)

/** Contacts whose person asked to be forgotten: that it was done, and nothing else of them. */
export const forgotten = pgTable('forgotten', {
  contactId: bigint('contact_id', { mode: 'number' }).primaryKey(),
  who: text('who').notNull(),
  at: instant('at').notNull().defaultNow(),
})
