import type { Connection, SpendLine } from '@upper-field/contract'
import { PROVIDERS, REGISTER } from '@upper-field/core/fill'
import { eq, sql } from 'drizzle-orm'
import type { Hono } from 'hono'
import { connections } from '../db/schema'
import { notFound, Problem } from '../http/problem'
import { serve } from '../http/serve'
import type { Services } from '../services'
import { checkAddress, OutgoingRefused } from './outgoing'
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
    // The made-up services belong to the demo: elsewhere only what somebody has connected is there.
    const here = KNOWN.filter(({ provider }) => config.isDemo || kept.some((one) => one.provider === provider))
    return here.map((known): Connection => {
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
    await checkAddress(body.baseUrl, config).catch((cause: unknown) => {
      throw new Problem(422, 'address-refused', whyRefused(cause), { cause })
    })
    await keyStaysWithItsAddress(db, known.provider, body)
    const changed = {
      baseUrl: body.baseUrl,
      changedAt: new Date(services.now()),
      ...(body.key ? { sealedKey: seal(body.key, config.sealingSecrets[0]) } : {}),
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

const REFUSED: Record<OutgoingRefused['reason'], string> = {
  scheme: 'An address begins with https://.',
  'plain-http': 'Keys are sent over https only. Addresses with http:// must be allowed in the settings.',
  'private-address': 'This address lies inside a private network. Such addresses must be allowed in the settings.',
  'no-such-name': 'There is no such name on the internet.',
}

const whyRefused = (cause: unknown): string =>
  `${cause instanceof OutgoingRefused ? REFUSED[cause.reason] : 'This is no address.'} Nothing was changed.`

/** A key was given for one address: whoever changes that must know the key, or could have it sent to themselves. */
async function keyStaysWithItsAddress(
  db: Services['db'],
  provider: string,
  { baseUrl, key }: { readonly baseUrl: string; readonly key?: string | undefined },
): Promise<void> {
  if (key) return
  const [kept] = await db.select().from(connections).where(eq(connections.provider, provider))
  if (kept?.sealedKey && new URL(kept.baseUrl).origin !== new URL(baseUrl).origin)
    throw new Problem(
      422,
      'key-needed',
      'The key belongs to the address it was given for. Give it again together with the new address.',
    )
}
