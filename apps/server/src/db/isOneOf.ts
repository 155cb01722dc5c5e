import { type Column, type SQL, sql } from 'drizzle-orm'

/** A column that holds one of these ids: one parameter for all, where thousands of single ones take long to write and to plan. */
export const isOneOf = (column: Column, ids: readonly number[]): SQL =>
  sql`${column} = any(${sql.param([...ids])}::bigint[])`
