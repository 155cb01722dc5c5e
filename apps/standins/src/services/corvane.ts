import { Hono } from 'hono'
import { z } from 'zod'
import type { Directory } from '../directory'
import { createLedger, keyOfCall, needsKey, Person, type Service, type StandInOptions } from '../http'
import { factsOfCompany, hashOf, isLikely, type World, type WorldPerson } from '../world'
import { type Coverage, covers } from './coverage'

const PRICE = 280_000
const COVERAGE: Coverage = {
  home: { countries: new Set(['GB', 'NL', 'DE']), share: 0.6 },
  elsewhere: 0.45,
  ofHard: 0.3,
}

/**
 * Corvane: a bundle of others. Takes a request and is looked at until it is ready; tells of companies too, and charges
 * for numbers that were taken. Now and then it says "working" again after it was ready, or gives a number twice.
 */
export function corvane(
  world: World,
  directory: Directory,
  key: string,
  { pace, faults, book }: StandInOptions,
): Service {
  const app = new Hono()
  const ledger = createLedger({ faults, book })
  const requests = new Map<string, { person: WorldPerson | undefined; readyAt: number; looks: number }>()
  app.use('*', needsKey(key))

  app.post('/v1/search', async (c) => {
    const { person } = z.object({ person: Person }).parse(await c.req.json())
    const id = keyOfCall(c, crypto.randomUUID())
    if (!requests.has(id)) {
      const found = directory.find({ ...person, domain: '' })
      const wait = (1200 + (hashOf(`${world.seed}|corvane waits|${found?.id}`) % 4000)) / pace.speed
      requests.set(id, { person: found, readyAt: Date.now() + wait, looks: 0 })
    }
    return c.json({ search: { id, state: 'searching' } }, 202)
  })

  app.get('/v1/search/:id', (c) => {
    const id = c.req.param('id')
    const request = requests.get(id)
    if (!request) return c.json({ error: 'no such search' }, 404)
    const isBack = request.looks === 0 && isLikely(0.1, world.seed, 'corvane steps back', id)
    if (Date.now() >= request.readyAt) request.looks++
    if (Date.now() < request.readyAt || isBack) return c.json({ search: { id, state: 'searching' } })
    return c.json({
      search: { id, state: 'done', results: resultsOf(world, request.person), price: ledger.priceNow(PRICE) },
    })
  })

  app.post('/v1/search/:id/taken', (c) => {
    ledger.charge(c.req.param('id'), PRICE)
    return c.json({})
  })
  return { app, ledger }
}

function resultsOf(world: World, person: WorldPerson | undefined): unknown[] {
  if (!person) return []
  const company = factsOfCompany(world, person.company)
  if (!covers(world, 'corvane', person, COVERAGE)) return [{ company }]
  const phone = { value: person.mobile.e164, kind: 'mobile', certainty: 0.86 }
  const found = { fullName: `${person.given} ${person.family}`, phone, company }
  return isLikely(0.08, world.seed, 'corvane says it twice', person.id) ? [found, found] : [found]
}
