import { sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { insertRows } from '../db/insertRows'
import { charges } from '../db/schema'

/** Books charges, each question once. @returns the sum of those that were not booked before */
export async function charge(tx: Db, rows: readonly (typeof charges.$inferInsert)[]): Promise<number> {
  const made = await insertRows(tx, charges, rows, sql`on conflict do nothing returning amount`)
  return made.reduce((sum, { amount }) => sum + Number(amount), 0)
}
