import { sql } from 'drizzle-orm'
import type { Db } from '../db/database'

/** Numbers of one order at the register that no answer was stored for yet. */
export interface OpenOrder {
  readonly orderId: string
  readonly orderedAt: Date
  readonly numbers: readonly string[]
}

/** An order of this job that is still to be fetched, the oldest first; null where there is none. */
export async function openOrderOf(db: Db, jobId: string): Promise<OpenOrder | null> {
  const { rows } = await db.execute<{ order_id: string; ordered_at: string; numbers: string[] }>(sql`
    select order_id, min(ordered_at)::text as ordered_at, array_agg(e164 order by e164) as numbers
    from line_checks where job_id = ${jobId} and order_id is not null and answered_at is null
    group by order_id order by 2, 1 limit 1`)
  const [row] = rows
  return row ? { orderId: row.order_id, orderedAt: new Date(row.ordered_at), numbers: row.numbers } : null
}

/** Numbers of a job that nobody was asked about yet. */
export async function numbersToOrder(db: Db, jobId: string, most: number): Promise<string[]> {
  const { rows } = await db.execute<{ e164: string }>(sql`
    select e164 from line_checks where job_id = ${jobId} and order_id is null and answered_at is null
    order by e164 limit ${most}`)
  return rows.map(({ e164 }) => e164)
}

/** Writes down which order holds these numbers, so that it is fetched whatever happens meanwhile. */
export async function noteOrder(db: Db, jobId: string, orderId: string, numbers: readonly string[]): Promise<void> {
  await db.execute(sql`
    update line_checks set order_id = ${orderId}, ordered_at = now()
    where job_id = ${jobId} and e164 = any(${sql.param([...numbers])}::text[])`)
}

/** Those of these numbers that no answer was stored for: a step may have been committed without our hearing of it. */
export async function unanswered(tx: Db, jobId: string, numbers: readonly string[]): Promise<string[]> {
  const { rows } = await tx.execute<{ e164: string }>(sql`
    select e164 from line_checks
    where job_id = ${jobId} and answered_at is null and e164 = any(${sql.param([...numbers])}::text[])`)
  return rows.map(({ e164 }) => e164)
}
