import type { SpendMonth } from '@upper-field/contract'
import { sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { LOCKS } from '../db/locks'
import { num, orNull, orZero, type RowOf, readRow, readRows, text } from '../db/readRows'
import { spendLimit } from '../db/schema'
import { Problem } from '../http/problem'
import { isJobOver } from '../jobs/over'

/** What was spent this month, what work that is under way may still spend, and the most that may be. */
export async function readMonth(db: Db): Promise<Omit<SpendMonth, 'providers'>> {
  const [limit] = await db.select().from(spendLimit)
  const month = await readRow(db, { spent: num, promised: num })`
    select
      (select coalesce(sum(amount), 0) from charges where at >= date_trunc('month', now())) as spent,
      (select coalesce(sum(r.budget - r.spent), 0) from fill_runs r join jobs j on j.id = r.job_id where ${UNDER_WAY})
      + (select coalesce(sum((j.payload->>'agreed')::bigint - coalesce((j.result->>'spent')::bigint, 0)), 0)
         from jobs j where j.payload ? 'agreed' and ${UNDER_WAY}) as promised`
  return {
    limit: limit?.month ?? null,
    spent: month?.spent ?? 0,
    promised: Math.max(0, month?.promised ?? 0),
  }
}

/**
 * What single services have charged this month, what is held for questions that are open and work that was agreed to,
 * and the most they may.
 */
const PROVIDER_MONTH = { provider: text, limit: orNull(num), spent: orZero, waiting: orZero }
export type ProviderMonth = RowOf<typeof PROVIDER_MONTH>

/** @param only where it is true, services with a limit alone */
export async function readProviderMonths(db: Db, only: { readonly limited: boolean }): Promise<ProviderMonth[]> {
  return readRows(db, PROVIDER_MONTH)`
    with spent as (
      select provider, sum(amount) as spent from charges where at >= date_trunc('month', now()) group by 1),
    held as (
      select provider, reserved as amount from attempts where state = 'waiting'
      union all
      -- What checks of the answers may cost was set aside with the question, and is charged by those who check.
      select held.provider, held.amount from attempts a cross join lateral (
        select key as provider, value::bigint as amount from jsonb_each_text(a.checks)
        union all select a.provider, -value::bigint from jsonb_each_text(a.checks)) held where a.state = 'waiting'
      union all
      select j.payload->>'provider', (j.payload->>'agreed')::bigint - coalesce((j.result->>'spent')::bigint, 0)
      from jobs j where j.payload ? 'agreed' and j.payload ? 'provider' and ${UNDER_WAY}),
    waiting as (select provider, greatest(0, sum(amount)) as waiting from held group by 1)
    select coalesce(s.provider, l.provider, w.provider) as provider, l.month as limit, s.spent, w.waiting
    from spent s full join provider_limits l on l.provider = s.provider
    full join waiting w on w.provider = coalesce(s.provider, l.provider)
    where ${only.limited ? sql`l.month is not null` : sql`true`} order by s.spent desc nulls last, 1`
}

/**
 * What services with a limit of their own may still charge this month, open questions taken off. Whoever asks at the
 * same time waits, so that two do not take the same.
 */
export async function leftOfMonth(tx: Db): Promise<Map<string, number>> {
  const months = await readProviderMonths(tx, { limited: true })
  if (months.length === 0) return new Map()
  await tx.execute(sql`select pg_advisory_xact_lock(${LOCKS.spend})`)
  const held = await readProviderMonths(tx, { limited: true })
  return new Map(held.map(({ provider, limit, spent, waiting }) => [provider, (limit ?? 0) - spent - waiting]))
}

/** Refuses work at one service that could pass its limit. @param most the most the work can cost */
export async function refuseOverProviderLimit(tx: Db, provider: string, most: number): Promise<void> {
  const left = (await leftOfMonth(tx)).get(provider)
  if (left === undefined || most <= left) return
  throw new Problem(
    409,
    'month-is-spent',
    `This could cost up to ${euros(most)}, and this service may charge ${euros(Math.max(0, left))} more this month. Nothing was asked.`,
  )
}

/** Work that may still spend: also where it rests, for it can go on. */
const UNDER_WAY = sql`not ${isJobOver('j')}`

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
