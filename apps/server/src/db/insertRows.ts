import { getTableColumns, getTableName, type SQL, sql } from 'drizzle-orm'
import type { PgTable } from 'drizzle-orm/pg-core'
import type { Db } from './database'

/**
 * Inserts many lines in one statement, sent as one value: built column by column they would take longer than the
 * database does. Columns that no line names take their defaults.
 * @param rows by the names the schema gives the columns; all name the same ones
 * @param more what follows: `on conflict …`, `returning …`
 * @returns the lines that are returned, by the names of the columns
 */
export async function insertRows<T extends PgTable>(
  tx: Db,
  table: T,
  rows: readonly T['$inferInsert'][],
  more: SQL = sql``,
): Promise<Record<string, unknown>[]> {
  const [first] = rows
  if (!first) return []
  const known: Readonly<Record<string, { readonly name: string }>> = getTableColumns(table)
  const columns = Object.keys(first).map((key) => ({ key, name: known[key]?.name ?? key }))
  const named = sql.join(
    columns.map(({ name }) => sql.identifier(name)),
    sql`, `,
  )
  const values = rows.map((row) =>
    Object.fromEntries(columns.map(({ key, name }) => [name, (row as Record<string, unknown>)[key]])),
  )
  const target = sql.identifier(getTableName(table))
  const { rows: returned } = await tx.execute(sql`
    insert into ${target} (${named}) select ${named} from jsonb_populate_recordset(null::${target}, ${JSON.stringify(values)}::jsonb) ${more}`)
  return returned
}

/** The columns of a conflicting line become those that were to be inserted: the end of `on conflict … do update`. */
export const asGiven = (...columns: readonly string[]): SQL =>
  sql`set ${sql.join(
    columns.map((column) => sql`${sql.identifier(column)} = ${sql.raw(`excluded.${column}`)}`),
    sql`, `,
  )}`
