import type { Connection, ConnectorDocument } from '@upper-field/contract'
import type { Connector } from '@upper-field/core/connect'
import { mostCost } from '@upper-field/core/fill'
import { eq, sql } from 'drizzle-orm'
import type { Hono } from 'hono'
import { connections } from '../db/schema'
import { notFound, Problem } from '../http/problem'
import { serve } from '../http/serve'
import type { CallServices, Services } from '../services'
import { refuseOverLimit, refuseOverProviderLimit } from '../spend/limit'
import { findConnector, termsOf } from './connectors'
import { describeConnections } from './describe'
import { keyStaysWithItsAddress, refuseAddress } from './keptKeys'
import { seal, unsealWithAny } from './seal'
import type { Target } from './send'
import { tryConnector } from './tryConnector'

export function connectionRoutes(app: Hono, services: CallServices): void {
  const { db, config } = services

  // The made-up services belong to the demo: elsewhere only what somebody has connected is there.
  serve(app, services, 'readConnections', () => describeConnections(db, config.isDemo))

  serve(app, services, 'changeConnection', async ({ params, body }) => {
    if (!(await findConnector(db, params.provider))) throw notFound('provider')
    await refuseAddress(services, body.baseUrl)
    const [kept] = await db.select().from(connections).where(eq(connections.provider, params.provider))
    keyStaysWithItsAddress(kept?.sealedKey ? kept.baseUrl : null, body)
    const changed = {
      baseUrl: body.baseUrl,
      changedAt: new Date(services.now()),
      ...(body.key ? { sealedKey: seal(body.key, config.sealingSecrets[0]) } : {}),
    }
    await db
      .insert(connections)
      .values({ provider: params.provider, ...changed })
      .onConflictDoUpdate({ target: connections.provider, set: changed })
    return described(services, params.provider)
  })

  serve(app, services, 'readConnector', async ({ params }) => {
    const connector = await findConnector(db, params.provider)
    if (!connector) throw notFound('provider')
    return connector as ConnectorDocument
  })

  serve(app, services, 'keepConnector', async ({ params, body }) => {
    if (params.provider !== body.id)
      throw new Problem(422, 'other-id', `This connector is of the id "${body.id}". Nothing was kept.`)
    await refuseAddress(services, body.address)
    const changed = { document: body, changedAt: new Date(services.now()) }
    await db
      .insert(connections)
      .values({ provider: body.id, baseUrl: body.address, ...changed })
      // A key is sent nowhere but where it was given for: without one, the service is where its document says.
      .onConflictDoUpdate({
        target: connections.provider,
        set: {
          ...changed,
          baseUrl: sql`case when ${connections.sealedKey} is null then excluded.base_url else ${connections.baseUrl} end`,
        },
      })
    return described(services, body.id)
  })

  serve(app, services, 'removeConnection', async ({ params }) => {
    await db.delete(connections).where(eq(connections.provider, params.provider))
    return {}
  })

  serve(app, services, 'tryConnector', async ({ params, body }) => {
    const connector = body.document ?? (await findConnector(db, params.provider))
    if (!connector) throw notFound('provider')
    const target = await targetOf(services, connector, body.key ?? null)
    await refuseAddress(services, target.baseUrl)
    const most = mostCost(termsOf(connector), 0)
    await refuseOverLimit(db, most)
    await refuseOverProviderLimit(db, connector.id, most)
    return tryConnector(services, target, body.values, `try ${crypto.randomUUID()}`)
  })
}

async function described({ db }: Services, id: string): Promise<Connection> {
  const found = (await describeConnections(db, true)).find(({ provider }) => provider === id)
  if (!found) throw notFound('provider')
  return found
}

/** Where a question goes that is only tried: with the key that is given, or the one kept for this very address. */
async function targetOf({ db, config }: Services, connector: Connector, key: string | null): Promise<Target> {
  const [row] = await db.select().from(connections).where(eq(connections.provider, connector.id))
  const baseUrl = row?.baseUrl ?? connector.address
  const kept = row?.sealedKey ? unsealWithAny(row.sealedKey, config.sealingSecrets) : null
  const secret = key ?? kept?.text ?? null
  if (secret === null) throw new Problem(422, 'key-needed', 'There is no key to try with. Give one. Nothing was asked.')
  return { connector, baseUrl, secret, config }
}
