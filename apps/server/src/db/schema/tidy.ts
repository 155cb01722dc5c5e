import type { Routine } from '@upper-field/core/tidy'
import { sql } from 'drizzle-orm'
import { bigint, index, jsonb, pgTable, text, uniqueIndex, uuid } from 'drizzle-orm/pg-core'
import { id, instant } from './columns'
import { ofList } from './lists'

/** Routines saved by name, for other lists. */
export const routines = pgTable('routines', {
  id: id(),
  name: text('name').notNull().unique(),
  routine: jsonb('routine').$type<Routine>().notNull(),
  savedAt: instant('saved_at').notNull().defaultNow(),
})

export interface RoutineBefore {
  readonly routine: Routine | null
  readonly name: string | null
}

export interface ReadingBefore {
  readonly batchId: string
  readonly defaultCountry: string | null
  readonly mapping: (string | null)[]
}

/** What a person has changed at once, and can take back at once. */
export const acts = pgTable(
  'acts',
  {
    id: id(),
    listId: ofList(),
    /** `edit`, `bulk-edit`, `leave-out`, `routine` or `reading`. */
    kind: text('kind').notNull(),
    /** How many contacts it was made for; null where that is the whole list. */
    contacts: bigint('contacts', { mode: 'number' }),
    detail: text('detail').notNull(),
    /** What stood before, where the act is a change of the routine or of how a batch is read. */
    before: jsonb('before').$type<RoutineBefore | ReadingBefore>(),
    madeBy: text('made_by').notNull(),
    madeAt: instant('made_at').notNull().defaultNow(),
    undoneAt: instant('undone_at'),
  },
  (t) => [index('acts_list').on(t.listId, t.madeAt)],
)

/** A value a person has given, in place of what the routine makes of the cell. */
export const edits = pgTable(
  'edits',
  {
    id: bigint('id', { mode: 'number' }).primaryKey().generatedAlwaysAsIdentity(),
    actId: uuid('act_id')
      .notNull()
      .references(() => acts.id),
    contactId: bigint('contact_id', { mode: 'number' }).notNull(),
    column: text('column_name').notNull(),
    value: text('value').notNull(),
    undoneAt: instant('undone_at'),
  },
  (t) => [
    index('edits_contact').on(t.contactId).where(sql`undone_at is null`),
    uniqueIndex('edits_once').on(t.actId, t.contactId, t.column),
  ],
)

/** A repair that is not to be made: for one contact, one batch, or the whole list. */
export const leftOut = pgTable(
  'left_out',
  {
    actId: uuid('act_id')
      .primaryKey()
      .references(() => acts.id),
    listId: ofList(),
    code: text('code').notNull(),
    batchId: uuid('batch_id'),
    contactId: bigint('contact_id', { mode: 'number' }),
    undoneAt: instant('undone_at'),
  },
  (t) => [index('left_out_list').on(t.listId), index('left_out_contact').on(t.contactId)],
)
