import { sql } from 'drizzle-orm'
import type { Db } from '../db/database'

/**
 * Sets money aside before a provider is asked. The row's own lock makes the sum exact, whoever asks at the same time.
 * @returns false where the budget would be passed: then nobody may be asked
 */
export async function reserve(tx: Db, jobId: string, amount: number): Promise<boolean> {
  const { rows } = await tx.execute(sql`
    update fill_runs set reserved = reserved + ${amount}
    where job_id = ${jobId} and spent + reserved + ${amount} <= budget returning job_id`)
  return rows.length > 0
}

/** Turns what was set aside into what was really spent. */
export async function settleReserve(tx: Db, jobId: string, { reserved, spent }: { reserved: number; spent: number }): Promise<void> {
  await tx.execute(sql`update fill_runs set reserved = reserved - ${reserved}, spent = spent + ${spent} where job_id = ${jobId}`)
}
