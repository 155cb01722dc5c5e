import type { SQL } from 'drizzle-orm'
import { PgDialect } from 'drizzle-orm/pg-core'
import type { CustomTypesConfig, Pool, PoolClient } from 'pg'
import type { Db } from './database'

/** A line of the answer: its columns in order, each as PostgreSQL writes it. */
export type TextRow = readonly (string | null)[]

const dialect = new PgDialect()
const AS_TEXT: CustomTypesConfig = { getTypeParser: () => (value: unknown) => value }

/** Reads many lines of few columns: as lists of texts, which takes a fraction of what objects with values take. */
export async function readRows(db: Db, query: SQL): Promise<readonly TextRow[]> {
  const { sql: text, params } = dialect.sqlToQuery(query)
  const client = (db as Db & { readonly $client: Pool | PoolClient }).$client
  const { rows } = await client.query<(string | null)[]>({ text, values: params, rowMode: 'array', types: AS_TEXT })
  return rows
}
