import type { Account } from '@upper-field/contract'
import { type NetworkAccount, refusalOf } from '@upper-field/core/send'
import { eq } from 'drizzle-orm'
import type { Hono } from 'hono'
import { refuseAddress } from '../connections/keptKeys'
import { seal } from '../connections/seal'
import { destinationKeys } from '../db/schema'
import { Problem } from '../http/problem'
import { serve } from '../http/serve'
import type { CallServices } from '../services'
import { asked } from './askNetwork'
import { findDestination } from './destinations'
import { type NetworkClient, openNetwork } from './networkClient'

/** Keys of networks, and the accounts they open. */
export function networkKeyRoutes(app: Hono, services: CallServices): void {
  const { db, config } = services

  serve(app, services, 'readDestinationKeys', async () =>
    (await db.select().from(destinationKeys).orderBy(destinationKeys.destination)).map(asKey),
  )
  serve(app, services, 'keepDestinationKey', async ({ params, body }) => {
    const destination = await findDestination(db, params.destinationId)
    if (!destination.network)
      throw new Problem(422, 'no-calls', `${destination.name} is not declared to be called: files are made for it.`)
    await refuseAddress(services, body.address)
    const kept = {
      address: body.address,
      sealedKey: seal(body.key, config.sealingSecrets[0]),
      changedAt: new Date(services.now()),
    }
    const [row] = await db
      .insert(destinationKeys)
      .values({ destination: destination.id, ...kept })
      .onConflictDoUpdate({ target: destinationKeys.destination, set: kept })
      .returning()
    if (!row) throw new Error('insert returned nothing')
    return asKey(row)
  })
  serve(app, services, 'removeDestinationKey', async ({ params }) => {
    await db.delete(destinationKeys).where(eq(destinationKeys.destination, params.destinationId))
    return {}
  })
  serve(app, services, 'readAccounts', async ({ params }) => {
    const destination = await findDestination(db, params.destinationId)
    const network = await asked(() => openNetwork(services, destination))
    return (await asked(() => network.accounts())).map((account) => accountOf(account, network))
  })
}

const asKey = ({ destination, address }: typeof destinationKeys.$inferSelect) => ({
  destination,
  address,
  hasKey: true,
})

const accountOf = ({ id, name, lacks }: NetworkAccount, { calls }: NetworkClient): Account => ({
  id,
  name,
  lacks: lacks.map((code) => ({ code, ...refusalOf(calls.refusals, code) })),
})
