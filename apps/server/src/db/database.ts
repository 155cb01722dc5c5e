import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres'
import { migrate } from 'drizzle-orm/node-postgres/migrator'
import { Pool, type PoolClient } from 'pg'
import * as schema from './schema'

export type Db = NodePgDatabase<typeof schema>

export interface Database {
  readonly pool: Pool
  readonly db: Db
  close(): Promise<void>
}

export function openDatabase(url: string, { connections = 10 }: { connections?: number } = {}): Database {
  const pool = new Pool({ connectionString: url, max: connections })
  // A connection that breaks while idle must not bring the process down: the next query opens another.
  pool.on('error', () => {})
  pool.on('connect', (client) => client.on('error', () => {}))
  return { pool, db: drizzle(pool, { schema }), close: () => pool.end() }
}

/** Runs `work` in one transaction on one connection, with Drizzle on top of it for typed queries. */
export async function transaction<T>(pool: Pool, work: (tx: Db, client: PoolClient) => Promise<T>): Promise<T> {
  const client = await pool.connect()
  let broken: Error | undefined
  try {
    await client.query('begin')
    const result = await work(drizzle(client, { schema }), client)
    await client.query('commit')
    return result
  } catch (error) {
    await client.query('rollback').catch((cause: Error) => {
      broken = cause
    })
    throw error
  } finally {
    client.release(broken)
  }
}

/** Brings the schema up to date. Several processes may start at once: one migrates, the others wait. */
export async function migrateDatabase({ pool }: Database, folder: string): Promise<void> {
  const client = await pool.connect()
  try {
    await client.query('select pg_advisory_lock(7411)')
    await migrate(drizzle(client), { migrationsFolder: folder })
    await client.query('select pg_advisory_unlock(7411)')
  } finally {
    client.release()
  }
}
