import { sql } from 'drizzle-orm'
import type { Db } from '../db/database'

export type Reserve = 'reserved' | 'later' | 'never'

/**
 * Sets money aside before a provider is asked. The row's own lock makes the sum exact, whoever asks at the same time.
 * @returns `later` where money that is set aside for others may come back, `never` where the budget is used up:
 * in both cases nobody may be asked
 */
export async function reserve(tx: Db, jobId: string, amount: number): Promise<Reserve> {
  const { rows } = await tx.execute(sql`
    update fill_runs set reserved = reserved + ${amount}
    where job_id = ${jobId} and spent + reserved + ${amount} <= budget returning job_id`)
  if (rows.length > 0) return 'reserved'
  const left = await tx.execute(sql`select 1 from fill_runs where job_id = ${jobId} and spent + ${amount} <= budget`)
  return left.rows.length > 0 ? 'later' : 'never'
}

/** Turns what was set aside into what was really spent. */
export async function settleReserve(
  tx: Db,
  jobId: string,
  { reserved, spent }: { reserved: number; spent: number },
): Promise<void> {
  await tx.execute(
    sql`update fill_runs set reserved = reserved - ${reserved}, spent = spent + ${spent} where job_id = ${jobId}`,
  )
}
