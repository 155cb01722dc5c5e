import { Hono } from 'hono'
import { z } from 'zod'
import type { Directory } from '../directory'
import { createLedger, keyOfCall, needsKey, type Service, type StandInOptions } from '../http'
import { deliverabilityOf, hashOf, isLikely, type World } from '../world'

const PRICE = 4_000
const FREE = new Set(['unknown', 'accept-all'])

interface Order {
  readonly emails: readonly string[]
  readonly readyAt: number
}

/**
 * Marram, the e-mail verifier: one address or many, with when it was learnt. Slow on some hosts, and it answers
 * "unknown" where it could not ask. What is unknown, or of a host that takes everything, is free.
 */
export function marram(world: World, _: Directory, key: string, { pace, faults, book }: StandInOptions): Service {
  const app = new Hono()
  const ledger = createLedger({ faults, book })
  const orders = new Map<string, Order>()
  app.use('*', needsKey(key))

  const verdictOf = (email: string) => {
    const isBusy = isLikely(0.05, world.seed, 'marram could not ask', email)
    return { email, verdict: isBusy ? 'unknown' : deliverabilityOf(world, email), at: learntOn(world, email) }
  }
  const told = (id: string, { emails, readyAt }: Order) => {
    if (Date.now() < readyAt) return { id, status: 'pending' }
    const results = emails.map(verdictOf)
    for (const { email, verdict } of results) if (!FREE.has(verdict)) ledger.charge(`${id}|${email}`, PRICE)
    return { id, status: 'complete', results }
  }

  app.post('/v1/verify', async (c) => {
    const { emails } = z.object({ emails: z.array(z.string().max(320)).min(1).max(500) }).parse(await c.req.json())
    const id = keyOfCall(c, crypto.randomUUID())
    const order = orders.get(id) ?? { emails, readyAt: Date.now() + waitOf(world, emails) / pace.speed }
    orders.set(id, order)
    return c.json(told(id, order))
  })
  app.get('/v1/verify/:id', (c) => {
    const order = orders.get(c.req.param('id'))
    return order ? c.json(told(c.req.param('id'), order)) : c.json({ error: 'no such order' }, 404)
  })
  return { app, ledger }
}

/** Some hosts answer late. In milliseconds. */
const waitOf = (world: World, emails: readonly string[]): number =>
  emails.length * 2 +
  (emails.some((email) => isLikely(0.15, world.seed, 'slow host', email.split('@')[1] ?? '')) ? 1500 : 0)

const learntOn = (world: World, email: string): string =>
  `2026-${String(1 + (hashOf(`${world.seed}|learnt|${email}`) % 10)).padStart(2, '0')}-15`
