import { type Column, type SQL, sql } from 'drizzle-orm'

/** A column that holds one of these values: one parameter for all, where thousands of single ones take long to write and to plan. */
export const isOneOf = (column: Column, values: readonly (number | string)[]): SQL =>
  sql`${column} = any(${sql.param([...values])}::${sql.raw(column.getSQLType())}[])`
