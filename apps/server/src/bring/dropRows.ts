import { eq, sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { heldRows, rows } from '../db/schema'

/** Deletes all that was read of a batch which was never shown. */
export async function dropRows(tx: Db, batchId: string): Promise<void> {
  const mine = sql`select id from contacts where batch_id = ${batchId}`
  await tx.execute(sql`delete from contact_numbers where contact_id in (${mine})`)
  await tx.execute(sql`delete from contact_emails where contact_id in (${mine})`)
  await tx.execute(sql`delete from contacts where batch_id = ${batchId}`)
  await tx.delete(rows).where(eq(rows.batchId, batchId))
  await tx.delete(heldRows).where(eq(heldRows.batchId, batchId))
}
