import type { SpendLine } from '@upper-field/contract'
import { sql } from 'drizzle-orm'
import type { Hono } from 'hono'
import { describeConnections } from '../connections/describe'
import { spendLimit } from '../db/schema'
import { serve } from '../http/serve'
import type { Services } from '../services'
import { readMonth } from './limit'

/** Lines of the ledger that are told at once: one for each day, service, list and purpose. */
const MOST_LINES = 5000

export function spendRoutes(app: Hono, services: Services): void {
  const { db } = services

  serve(app, services, 'readSpend', async () => {
    const { rows } = await db.execute<Record<string, string | null>>(sql`
      select to_char(c.at at time zone 'UTC', 'YYYY-MM-DD') as day, c.provider, c.list_id, coalesce(l.name, '') as list, c.reason,
        count(*) as charges, sum(c.amount) as amount
      from charges c left join lists l on l.id = c.list_id
      group by 1, 2, 3, 4, 5 order by 1 desc, 7 desc limit ${MOST_LINES}`)
    const names = new Map((await describeConnections(db, true)).map(({ provider, name }) => [provider, name]))
    return rows.map(
      (row): SpendLine => ({
        day: row.day ?? '',
        provider: row.provider ?? '',
        name: names.get(row.provider ?? '') ?? row.provider ?? '',
        listId: row.list_id ?? null,
        list: row.list ?? '',
        reason: row.reason ?? '',
        charges: Number(row.charges),
        amount: Number(row.amount),
      }),
    )
  })

  serve(app, services, 'readSpendMonth', () => readMonth(db))

  serve(app, services, 'changeSpendLimit', async ({ body, me }) => {
    const changed = { changedBy: me.name, changedAt: new Date(services.now()) }
    if (body.limit === null) await db.delete(spendLimit)
    else
      await db
        .insert(spendLimit)
        .values({ month: body.limit, ...changed })
        .onConflictDoUpdate({ target: spendLimit.isOnly, set: { month: body.limit, ...changed } })
    return readMonth(db)
  })
}
