import type { Evidence, Thresholds } from '@upper-field/contract'
import type { SurvivorPart } from '@upper-field/core/pair'
import { sql } from 'drizzle-orm'
import { bigint, index, integer, jsonb, pgTable, real, text, uniqueIndex, uuid } from 'drizzle-orm/pg-core'
import { instant } from './columns'
import { ofList } from './lists'

/** Pairs with a score between a whole number of bits and the next; some of them by the ids of their contacts. */
export interface StoredBin {
  readonly from: number
  readonly pairs: number
  readonly examples: readonly { readonly a: number; readonly b: number; readonly score: number }[]
}

/** How likeness was last looked for in a list. */
export const pairStates = pgTable('pair_states', {
  listId: uuid('list_id').primaryKey(),
  ranAt: instant('ran_at').notNull().defaultNow(),
  contacts: integer('contacts').notNull(),
  thresholds: jsonb('thresholds').$type<Thresholds>().notNull(),
  bins: jsonb('bins').$type<StoredBin[]>().notNull(),
  groups: jsonb('groups').$type<{ from: number; groups: number }[]>().notNull().default([]),
})

/** What a person decided at once: of one pair, or of all that look alike. */
export const pairDecisions = pgTable(
  'pair_decisions',
  {
    id: bigint('id', { mode: 'number' }).primaryKey().generatedAlwaysAsIdentity(),
    listId: ofList(),
    /** `join` or `apart`. */
    decision: text('decision').notNull(),
    pairs: integer('pairs').notNull(),
    who: text('who').notNull(),
    madeAt: instant('made_at').notNull().defaultNow(),
    undoneAt: instant('undone_at'),
  },
  (t) => [index('pair_decisions_list').on(t.listId, t.madeAt)],
)

/** Two contacts that may be one person. Those without a decision are found anew by each run; decided ones stay. */
export const pairs = pgTable(
  'pairs',
  {
    id: bigint('id', { mode: 'number' }).primaryKey().generatedAlwaysAsIdentity(),
    listId: ofList(),
    aId: bigint('a_id', { mode: 'number' }).notNull(),
    bId: bigint('b_id', { mode: 'number' }).notNull(),
    score: real('score').notNull(),
    key: text('key').notNull(),
    evidence: jsonb('evidence').$type<Evidence[]>().notNull(),
    against: real('against').notNull(),
    /** Key and levels: pairs with the same look alike in every field. */
    pattern: text('pattern').notNull(),
    decisionId: bigint('decision_id', { mode: 'number' }).references(() => pairDecisions.id),
    joinId: bigint('join_id', { mode: 'number' }),
  },
  (t) => [
    uniqueIndex('pairs_once').on(t.listId, t.aId, t.bId),
    index('pairs_waiting').on(t.listId, t.score.desc(), t.id).where(sql`decision_id is null`),
    index('pairs_pattern').on(t.listId, t.pattern).where(sql`decision_id is null`),
    index('pairs_b').on(t.bId).where(sql`decision_id is null`),
    index('pairs_a').on(t.aId).where(sql`decision_id is null`),
    index('pairs_decision').on(t.decisionId),
  ],
)

/** A row that a person chose to give a part of the contact it is joined to. It waits where the join is taken apart. */
export const valueChoices = pgTable(
  'value_choices',
  {
    id: bigint('id', { mode: 'number' }).primaryKey().generatedAlwaysAsIdentity(),
    contactId: bigint('contact_id', { mode: 'number' }).notNull(),
    part: text('part').$type<SurvivorPart>().notNull(),
    decisionId: bigint('decision_id', { mode: 'number' })
      .notNull()
      .references(() => pairDecisions.id),
    madeAt: instant('made_at').notNull().defaultNow(),
  },
  (t) => [index('value_choices_contact').on(t.contactId), index('value_choices_decision').on(t.decisionId)],
)
