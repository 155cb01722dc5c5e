import { Hono } from 'hono'
import { z } from 'zod'
import type { Directory } from '../directory'
import { createLedger, keyOfCall, needsKey, type Service, type StandInOptions, sleep } from '../http'
import { isLikely, type World } from '../world'

const PRICE = 5_000

/** Pellow, the line register: single checks at once, bulk checks when they are ready. "Unknown" is free. */
export function pellow(world: World, _: Directory, key: string, { pace, faults, book }: StandInOptions): Service {
  const app = new Hono()
  const ledger = createLedger({ faults, book })
  const bulks = new Map<string, { numbers: readonly string[]; readyAt: number }>()
  app.use('*', needsKey(key))

  const answer = (number: string) => {
    const truth = world.numberOf(number)
    if (!truth || isLikely(0.05, world.seed, 'pellow does not know', number)) {
      return {
        number,
        lineType: 'unknown',
        status: 'unknown',
        carrier: null,
        ported: null,
        timeZone: null,
        lastSeen: null,
      }
    }
    return {
      number,
      lineType: truth.type,
      status: truth.status,
      carrier: truth.carrier,
      ported: truth.isPorted,
      timeZone: truth.timeZone,
      lastSeen: truth.lastSeen,
    }
  }
  const charged = (call: string, number: string) => {
    const told = answer(number)
    if (told.status !== 'unknown') ledger.charge(`${call}|${number}`, PRICE)
    return told
  }

  app.post('/v1/checks', async (c) => {
    const { number } = z.object({ number: z.string() }).parse(await c.req.json())
    await sleep(40 / pace.speed)
    return c.json(charged(keyOfCall(c, number), number))
  })

  app.post('/v1/bulk', async (c) => {
    const { numbers } = z.object({ numbers: z.array(z.string()).max(1000) }).parse(await c.req.json())
    const id = keyOfCall(c, crypto.randomUUID())
    if (!bulks.has(id)) bulks.set(id, { numbers, readyAt: Date.now() + (400 + numbers.length * 4) / pace.speed })
    return c.json({ id, state: 'working', answers: [] })
  })

  app.get('/v1/bulk/:id', (c) => {
    const id = c.req.param('id')
    const bulk = bulks.get(id)
    if (!bulk) return c.json({ error: 'no such check' }, 404)
    if (Date.now() < bulk.readyAt) return c.json({ id, state: 'working', answers: [] })
    return c.json({ id, state: 'ready', answers: bulk.numbers.map((number) => charged(id, number)) })
  })
  return { app, ledger }
}
