import type { SpendMonth } from '@upper-field/contract'
import { sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { LOCKS } from '../db/locks'
import { spendLimit } from '../db/schema'
import { Problem } from '../http/problem'

/** What was spent this month, what work that is under way may still spend, and the most that may be. */
export async function readMonth(db: Db): Promise<SpendMonth> {
  const [limit] = await db.select().from(spendLimit)
  const { rows } = await db.execute<{ spent: string; promised: string }>(sql`
    select
      (select coalesce(sum(amount), 0) from charges where at >= date_trunc('month', now())) as spent,
      (select coalesce(sum(r.budget - r.spent), 0) from fill_runs r join jobs j on j.id = r.job_id where ${UNDER_WAY})
      + (select coalesce(sum((j.payload->>'agreed')::bigint - coalesce((j.result->>'spent')::bigint, 0)), 0)
         from jobs j where j.kind = 'check' and j.payload ? 'agreed' and ${UNDER_WAY}) as promised`)
  return {
    limit: limit?.month ?? null,
    spent: Number(rows[0]?.spent ?? 0),
    promised: Math.max(0, Number(rows[0]?.promised ?? 0)),
  }
}

/** Work that may still spend: also where it rests, for it can go on. */
const UNDER_WAY = sql`j.state in ('queued', 'running', 'waiting', 'pausing', 'paused', 'stopping')`

/**
 * Refuses work that could spend more than the month allows, together with all that is under way. Whoever asks at the
 * same time waits: two may not both take what is left.
 * @param most the most the work can cost
 */
export async function refuseOverLimit(tx: Db, most: number): Promise<void> {
  await tx.execute(sql`select pg_advisory_xact_lock(${LOCKS.spend})`)
  const { limit, spent, promised } = await readMonth(tx)
  if (limit === null || spent + promised + most <= limit) return
  throw new Problem(
    409,
    'month-is-spent',
    `This could cost up to ${euros(most)}. Of the ${euros(limit)} of this month ${euros(spent)} are spent and ${euros(promised)} promised to work under way. Nothing was asked.`,
  )
}

const euros = (micros: number): string =>
  `€${(micros / 1_000_000).toLocaleString('en', { minimumFractionDigits: 2, maximumFractionDigits: 2 })}`
