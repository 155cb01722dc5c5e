import { Hono } from 'hono'
import type { Directory } from '../directory'
import { createLedger, keyOfCall, needsKey, type Service, type StandInOptions, sleep } from '../http'
import { isLikely, type World, type WorldPerson } from '../world'
import { type Coverage, covers } from './coverage'

const PRICE = 60_000
const COVERAGE: Coverage = { home: { countries: new Set(['GB', 'IE']), share: 0.68 }, elsewhere: 0.34, ofHard: 0.25 }
const PER_SECOND = 5

/** Saltmarsh: the United Kingdom and Ireland, by profile address only. Several candidates; five calls a second, each paid. */
export function saltmarsh(
  world: World,
  directory: Directory,
  key: string,
  { pace, faults, book }: StandInOptions,
): Service {
  const app = new Hono()
  const ledger = createLedger({ faults, book })
  let second = 0
  let calls = 0
  app.use('*', needsKey(key))
  app.get('/v1/people', async (c) => {
    const now = Math.floor((Date.now() * pace.speed) / 1000)
    if (now !== second) [second, calls] = [now, 0]
    if (++calls > PER_SECOND) return c.json({ error: 'too many calls' }, 429, { 'retry-after': '1' })
    await sleep(90 / pace.speed)
    const profile = c.req.query('profile') ?? ''
    const person = directory.find({ name: '', company: '', domain: '', profile })
    ledger.charge(keyOfCall(c, profile), PRICE)
    if (!person || !covers(world, 'saltmarsh', person, COVERAGE)) return c.json({ error: 'nobody found' }, 404)
    return c.json({ person: `${person.given} ${person.family}`, lines: linesOf(world, person) })
  })
  return { app, ledger }
}

function linesOf(world: World, person: WorldPerson): { tel: string; confidence: number }[] {
  const mobile = { tel: person.mobile.e164, confidence: 81 }
  if (isLikely(0.3, world.seed, 'saltmarsh adds the desk', person.id))
    return [{ tel: person.desk.e164, confidence: 64 }, mobile]
  return isLikely(0.15, world.seed, 'saltmarsh adds the house', person.id)
    ? [mobile, { tel: person.company.switchboard.e164, confidence: 40 }]
    : [mobile]
}
