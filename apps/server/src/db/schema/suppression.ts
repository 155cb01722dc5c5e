import { bigint, index, pgTable, text, uniqueIndex, uuid } from 'drizzle-orm/pg-core'
import { id, instant } from './columns'

/** People who must not be contacted, whatever list they are in. */
export const suppressionLists = pgTable('suppression_lists', {
  id: id(),
  name: text('name').notNull().unique(),
  /** `opt-outs`, `register`, `customers` or `competitors`. */
  kind: text('kind').notNull(),
  createdAt: instant('created_at').notNull().defaultNow(),
})

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
    reason: text('reason').notNull(),
    addedBy: text('added_by').notNull(),
    addedAt: instant('added_at').notNull().defaultNow(),
    expiresAt: instant('expires_at'),
  },
  (t) => [
    uniqueIndex('suppression_entries_once').on(t.suppressionListId, t.hash),
    index('suppression_entries_hash').on(t.hash),
  ],
)

/** Contacts whose person asked to be forgotten: that it was done, and nothing else of them. */
export const forgotten = pgTable('forgotten', {
  contactId: bigint('contact_id', { mode: 'number' }).primaryKey(),
  who: text('who').notNull(),
  at: instant('at').notNull().defaultNow(),
})
