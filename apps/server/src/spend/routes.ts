import type { SpendLine, SpendMonth } from '@upper-field/contract'
import { eq } from 'drizzle-orm'
import type { Hono } from 'hono'
import { describeConnections } from '../connections/describe'
import { num, orNull, readRows, text } from '../db/readRows'
import { providerLimits, spendLimit } from '../db/schema'
import { serve } from '../http/serve'
import type { CallServices } from '../services'
import { readMonth, readProviderMonths } from './limit'
import { readStatements } from './statements'

const LINE = {
  day: text,
  provider: text,
  listId: orNull(text),
  list: text,
  reason: text,
  charges: num,
  amount: num,
}

/** So many days of the ledger are told one by one; what is older, by its months. None is left out. */
const BY_DAY = 400
/** So many days are told of usable values. */
const USABLE_DAYS = 92

export function spendRoutes(app: Hono, services: CallServices): void {
  const { db } = services
  const namesOf = async () =>
    new Map((await describeConnections(db, true)).map(({ provider, name }) => [provider, name]))

  serve(app, services, 'readSpend', async () => {
    const lines = await readRows(db, LINE)`
      select to_char(c.at at time zone 'UTC', case when c.at > now() - make_interval(days => ${BY_DAY}) then 'YYYY-MM-DD' else 'YYYY-MM' end) as day, c.provider, c.list_id, coalesce(l.name, '') as list, c.reason,
        count(*) as charges, sum(c.amount) as amount
      from charges c left join lists l on l.id = c.list_id
      group by 1, 2, 3, 4, 5 order by 1 desc, 7 desc`
    const names = await namesOf()
    return lines.map((line): SpendLine => ({ ...line, name: names.get(line.provider) ?? line.provider }))
  })

  serve(app, services, 'readStatements', () => readStatements(services))

  serve(app, services, 'readUsable', async () => {
    const days = await readRows(db, { day: text, provider: text, usable: num, amount: num })`
      with asked as (
        select a.provider, to_char(a.answered_at at time zone 'UTC', 'YYYY-MM-DD') as day, cardinality(a.found) as usable,
          (select coalesce(sum(c.amount), 0) from charges c where c.attempt_id = a.id) as amount
        from attempts a where a.answered_at > now() - make_interval(days => ${USABLE_DAYS}))
      select day, provider, sum(usable) as usable, sum(amount) as amount from asked
      group by 1, 2 having sum(usable) > 0 or sum(amount) > 0 order by 1 desc, 2`
    const names = await namesOf()
    return days.map((one) => ({ ...one, name: names.get(one.provider) ?? one.provider }))
  })

  const month = async (): Promise<SpendMonth> => {
    const names = await namesOf()
    const providers = await readProviderMonths(db, { limited: false })
    return {
      ...(await readMonth(db)),
      providers: providers.map((one) => ({ ...one, name: names.get(one.provider) ?? one.provider })),
    }
  }

  serve(app, services, 'readSpendMonth', month)

  serve(app, services, 'changeSpendLimit', async ({ body, me }) => {
    const changed = { changedBy: me.name, changedAt: new Date(services.now()) }
    if (body.limit === null) await db.delete(spendLimit)
    else
      await db
        .insert(spendLimit)
        .values({ month: body.limit, ...changed })
        .onConflictDoUpdate({ target: spendLimit.isOnly, set: { month: body.limit, ...changed } })
    return month()
  })

  serve(app, services, 'changeProviderLimit', async ({ params: { provider }, body, me }) => {
    const changed = { changedBy: me.name, changedAt: new Date(services.now()) }
    if (body.limit === null) await db.delete(providerLimits).where(eq(providerLimits.provider, provider))
    else
      await db
        .insert(providerLimits)
        .values({ provider, month: body.limit, ...changed })
        .onConflictDoUpdate({ target: providerLimits.provider, set: { month: body.limit, ...changed } })
    return month()
  })
}
