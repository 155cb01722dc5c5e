import type { Connection, SpendLine } from '@upper-field/contract'
import { PROVIDERS, REGISTER } from '@upper-field/core/fill'
import { sql } from 'drizzle-orm'
import type { Hono } from 'hono'
import { connections } from '../db/schema'
import { notFound, Problem } from '../http/problem'
import { serve } from '../http/serve'
import type { Services } from '../services'
import { checkAddress } from './outgoing'
import { seal } from './seal'

const KNOWN = [
  {
    provider: REGISTER.id,
    name: REGISTER.name,
    role: 'register' as const,
    pricePer: 'answered number',
    price: REGISTER.price,
  },
  ...PROVIDERS.map(({ id, name, charge }) => ({
    provider: id,
    name,
    role: 'provider' as const,
    pricePer: charge.per === 'accepted' ? 'accepted value' : charge.per,
    price: charge.amount,
  })),
]

export function connectionRoutes(app: Hono, services: Services): void {
  const { db, config } = services

  serve(app, services, 'readConnections', async () => {
    const kept = await db.select().from(connections)
    return KNOWN.map((known): Connection => {
      const mine = kept.find(({ provider }) => provider === known.provider)
      return {
        ...known,
        baseUrl: mine?.baseUrl ?? '',
        hasKey: mine?.sealedKey != null,
        changedAt: mine?.changedAt.toISOString() ?? null,
      }
    })
  })

  serve(app, services, 'changeConnection', async ({ params, body }) => {
    const known = KNOWN.find(({ provider }) => provider === params.provider)
    if (!known) throw notFound('provider')
    await checkAddress(body.baseUrl, config).catch((cause) => {
      throw new Problem(422, 'address-refused', 'This address is not one that may be called from here.', { cause })
    })
    const changed = {
      baseUrl: body.baseUrl,
      changedAt: new Date(services.now()),
      ...(body.key ? { sealedKey: seal(body.key, config.secret) } : {}),
    }
    const [kept] = await db
      .insert(connections)
      .values({ provider: known.provider, ...changed })
      .onConflictDoUpdate({ target: connections.provider, set: changed })
      .returning()
    return {
      ...known,
      baseUrl: body.baseUrl,
      hasKey: kept?.sealedKey != null,
      changedAt: kept?.changedAt.toISOString() ?? null,
    }
  })

  serve(app, services, 'readSpend', async () => {
    const { rows } = await db.execute<Record<string, string>>(sql`
      select c.provider, c.list_id, l.name as list, c.reason, count(*) as charges, sum(c.amount) as amount
      from charges c join lists l on l.id = c.list_id group by 1, 2, 3, 4 order by 6 desc`)
    return rows.map(
      (row): SpendLine => ({
        provider: row.provider ?? '',
        listId: row.list_id ?? '',
        list: row.list ?? '',
        reason: row.reason ?? '',
        charges: Number(row.charges),
        amount: Number(row.amount),
      }),
    )
  })
}
