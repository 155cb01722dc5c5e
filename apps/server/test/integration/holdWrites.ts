import { Client } from 'pg'
import type { TestServer } from './harness'
import { until } from './until'

/** Of which writes, as PostgreSQL has it for a trigger. */
export interface HeldWrites {
  readonly column: string
  readonly when: string
}

/** Key of the lock that such a write waits for. */
const LOCK = 52

/**
 * Holds writes of deliveries like these until they are let go.
 * @returns waits for one to be held, and lets all of them go
 */
export async function holdWrites({ sql, databaseUrl }: TestServer, { column, when }: HeldWrites) {
  const holder = new Client({ connectionString: databaseUrl })
  await holder.connect()
  await holder.query(`select pg_advisory_lock(${LOCK})`)
  await sql(`create function hold_write() returns trigger language plpgsql as
    $$ begin perform pg_advisory_xact_lock(${LOCK}); return new; end $$`)
  await sql(`create trigger held_write before update of ${column} on deliveries
    for each row when (${when}) execute function hold_write()`)
  const waiting = `select 1 from pg_locks where locktype = 'advisory' and objid = ${LOCK} and not granted`
  return {
    isHeld: () => until(async () => (await sql(waiting)).length > 0),
    letGo: () => holder.end(),
    forget: () => sql('drop function hold_write cascade'),
  }
}
