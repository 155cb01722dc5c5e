import { AsyncLocalStorage } from 'node:async_hooks'
import { setTimeout as sleep } from 'node:timers/promises'
import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres'
import { migrate } from 'drizzle-orm/node-postgres/migrator'
import { Pool, type PoolClient } from 'pg'
import { LOCKS } from './locks'

export type Db = NodePgDatabase

export interface Database {
  readonly pool: Pool
  readonly db: Db
  close(): Promise<void>
}

/** How long is waited on a connection before it is given up, in seconds. Zero waits without end. */
export interface Patience {
  /** For a free connection. */
  readonly connection: number
  readonly statement: number
  readonly lock: number
}

/** For what has the database to itself: migrations, tests. */
export const NO_HURRY: Patience = { connection: 60, statement: 0, lock: 0 }

/** A transaction that does nothing for so long holds others up, in seconds. */
const IDLE_IN_TRANSACTION = 600

/**
 * What it costs to have helpers, in the planner's units; ten times what PostgreSQL assumes. A page of a thousand contacts is
 * read in less time than it takes to begin a process, and this one works meanwhile. Whole lists are still read by several.
 */
const PARALLEL_SETUP = 10_000

export function openDatabase(
  url: string,
  { connections = 10, patience = NO_HURRY }: { connections?: number; patience?: Patience } = {},
): Database {
  const pool = new Pool({
    connectionString: url,
    max: connections,
    connectionTimeoutMillis: patience.connection * 1000,
    statement_timeout: patience.statement * 1000,
    lock_timeout: patience.lock * 1000,
    idle_in_transaction_session_timeout: IDLE_IN_TRANSACTION * 1000,
    // Days and months are those of UTC, wherever the database stands: the ledger and the limits count by them.
    options: `-c parallel_setup_cost=${PARALLEL_SETUP} -c TimeZone=UTC`,
  })
  // A connection that breaks while idle must not bring the process down: the next query opens another.
  pool.on('error', () => {})
  pool.on('connect', (client) => client.on('error', () => {}))
  return { pool, db: drizzle(pool), close: () => endOf(pool) }
}

/** Whoever still waits for a connection is let through first: an ended pool would leave them waiting. */
async function endOf(pool: Pool): Promise<void> {
  for (let i = 0; i < CLOSING && pool.waitingCount > 0; i++) await sleep(CLOSING_STEP)
  await pool.end()
}

/** How often, and for how many milliseconds each time, waiting ones are waited for when a pool ends. */
const CLOSING = 30
const CLOSING_STEP = 100

type BeforeCommit = (client: PoolClient) => Promise<void>
const beforeCommit = new AsyncLocalStorage<BeforeCommit>()

/** Runs `work`; every transaction in it ends with `last`, in the transaction itself. */
export const withLastWord = <T>(last: BeforeCommit, work: () => Promise<T>): Promise<T> => beforeCommit.run(last, work)

/** Runs `work` in one transaction on one connection, with Drizzle on top of it for typed queries. */
export async function transaction<T>(pool: Pool, work: (tx: Db, client: PoolClient) => Promise<T>): Promise<T> {
  const client = await pool.connect()
  let broken: Error | undefined
  try {
    await client.query('begin')
    const result = await work(drizzle(client), client)
    await beforeCommit.getStore()?.(client)
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
    await client.query('select pg_advisory_lock($1)', [LOCKS.migration])
    await migrate(drizzle(client), { migrationsFolder: folder })
    await client.query('select pg_advisory_unlock($1)', [LOCKS.migration])
  } finally {
    client.release()
  }
}
