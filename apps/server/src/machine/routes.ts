import { desc, eq } from 'drizzle-orm'
import type { Hono } from 'hono'
import { machineCalls, machineKeys } from '../db/schema'
import { notFound, Problem } from '../http/problem'
import { serve } from '../http/serve'
import { findList, findOpenList } from '../lists/routes'
import type { CallServices } from '../services'
import { addContacts, becameOf } from './addContacts'
import { judge } from './judge'
import { describeKeys, newSecret } from './keys'

const SHOWN_CALLS = 100
/** Whoever adds as a person adds under one name for all of them. */
const BY_HAND = '00000000-0000-0000-0000-000000000000'

export function machineRoutes(app: Hono, services: CallServices): void {
  const { db } = services

  serve(app, services, 'judge', async ({ body, machine, me }) => {
    const values = body.values ?? [body.value ?? '']
    // A program is bounded by its key.
    if (!machine) await services.callLimits.read(me.id, values.length)
    const asker = { keyId: machine?.id ?? null, budget: machine?.budget ?? 0 }
    const { judgements, cost } = await judge(services, { values, country: body.country, ask: body.ask }, asker)
    return { judgements, cost }
  })

  serve(app, services, 'addContacts', async ({ params, body, me, machine }) => {
    const list = await findOpenList(db, params.listId)
    return addContacts(services, list.id, body, { id: machine?.id ?? BY_HAND, name: machine?.name ?? me.name })
  })

  serve(app, services, 'readAdded', async ({ params, machine }) => {
    await findList(db, params.listId)
    const [found] = await becameOf(db, params.listId, machine?.id ?? null, [params.theirId])
    if (!found) throw notFound('contact')
    return { ...found, isKnown: true }
  })

  serve(app, services, 'readMachineKeys', () => describeKeys(db))

  serve(app, services, 'makeMachineKey', async ({ body, me }) => {
    const { name, scopes, perMinute, budget, expiresOn } = body
    const expiresAt = expiresOn === null ? null : new Date(`${expiresOn}T23:59:59Z`)
    if (expiresAt && expiresAt.getTime() <= services.now())
      throw new Problem(422, 'ended-already', 'A key cannot end before it begins.')
    const { secret, hash, start } = newSecret()
    const [made] = await db
      .insert(machineKeys)
      .values({ name, scopes, perMinute, budget, expiresAt, hash, start, madeBy: me.name })
      .returning({ id: machineKeys.id })
    return { key: await keyOf(made?.id ?? ''), secret }
  })

  serve(app, services, 'rotateMachineKey', async ({ params }) => {
    const { secret, hash, start } = newSecret()
    const key = await keyOf(params.keyId)
    if (key.withdrawnAt !== null) throw new Problem(409, 'key-withdrawn', 'A key that was withdrawn stays so.')
    await db.update(machineKeys).set({ hash, start }).where(eq(machineKeys.id, params.keyId))
    return { key: await keyOf(params.keyId), secret }
  })

  serve(app, services, 'withdrawMachineKey', async ({ params }) => {
    await keyOf(params.keyId)
    await db
      .update(machineKeys)
      .set({ withdrawnAt: new Date(services.now()) })
      .where(eq(machineKeys.id, params.keyId))
    return keyOf(params.keyId)
  })

  serve(app, services, 'readMachineCalls', async ({ params }) => {
    const rows = await db
      .select()
      .from(machineCalls)
      .where(eq(machineCalls.keyId, params.keyId))
      .orderBy(desc(machineCalls.id))
      .limit(SHOWN_CALLS)
    return rows.map(({ call, status, milliseconds, at }) => ({ call, status, milliseconds, at: at.toISOString() }))
  })

  async function keyOf(keyId: string) {
    const [key] = await describeKeys(db, keyId)
    if (!key) throw notFound('key')
    return key
  }
}
