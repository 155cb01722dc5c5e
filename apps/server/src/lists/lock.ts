import { sql } from 'drizzle-orm'
import type { Db } from '../db/database'

/** Batches, joins and tidying of one list take turns: each must see the contacts of the one before. Held to the end of the transaction. */
export async function lockList(tx: Db, listId: string): Promise<void> {
  await tx.execute(sql`select pg_advisory_xact_lock(hashtextextended(${listId}::text, 7416))`)
}
