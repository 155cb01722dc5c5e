import { bigint, boolean, pgTable, text } from 'drizzle-orm/pg-core'
import { instant } from './columns'

/** The most that may be spent in a calendar month, by everybody together. One row, or none where nobody has set it. */
export const spendLimit = pgTable('spend_limit', {
  isOnly: boolean('is_only').primaryKey().default(true),
  month: bigint('month', { mode: 'number' }).notNull(),
  changedBy: text('changed_by').notNull(),
  changedAt: instant('changed_at').notNull().defaultNow(),
})

/** The most that one service may charge in a calendar month. */
export const providerLimits = pgTable('provider_limits', {
  provider: text('provider').primaryKey(),
  month: bigint('month', { mode: 'number' }).notNull(),
  changedBy: text('changed_by').notNull(),
  changedAt: instant('changed_at').notNull().defaultNow(),
})
