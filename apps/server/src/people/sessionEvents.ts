import { sql } from 'drizzle-orm'
import type { Db } from '../db/database'

/** Channel on which the end of a session is told to all server processes. */
export const SESSION_CHANNEL = 'upper_field_sessions'

/** Told when the transaction commits. */
export async function announceEnded(tx: Db, sessionId: string): Promise<void> {
  await tx.execute(sql`select pg_notify(${SESSION_CHANNEL}, ${sessionId})`)
}
