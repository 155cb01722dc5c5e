import { Hono } from 'hono'
import { z } from 'zod'
import type { Directory } from '../directory'
import { createLedger, keyOfCall, needsKey, Person, type Service, type StandInOptions, sleep } from '../http'
import { isLikely, type World, type WorldPerson } from '../world'

const PRICE = 80_000
const AT_HOME = new Set(['US', 'CA'])

/** Tansy: wide and cheap, at its best in North America. Answers at once and tells its price; a third of its "mobiles" are fixed lines. */
export function tansy(
  world: World,
  directory: Directory,
  key: string,
  { pace, faults, book }: StandInOptions,
): Service {
  const app = new Hono()
  const ledger = createLedger({ faults, book })
  app.use('*', needsKey(key))
  app.post('/v1/find', async (c) => {
    const { person } = z.object({ person: Person }).parse(await c.req.json())
    await sleep(60 / pace.speed)
    const found = directory.find({ ...person, profile: undefined })
    const candidates = found && knows(world, found) ? [{ number: numberIt(world, found), score: 70 }] : []
    if (found && candidates.length > 0) ledger.charge(keyOfCall(c, found.profile), PRICE)
    return c.json({ candidates, price: ledger.priceNow(PRICE) })
  })
  return { app, ledger }
}

/** Coverage overlaps between providers: people who are hard to find are missed by all. */
function knows(world: World, person: WorldPerson): boolean {
  const isHard = isLikely(0.12, world.seed, 'hard to find', person.id)
  return isLikely(
    (AT_HOME.has(person.company.place.country) ? 0.75 : 0.55) * (isHard ? 0.25 : 1),
    world.seed,
    'tansy',
    person.id,
  )
}

/** Written the way its country does, without a country code. */
function numberIt(world: World, person: WorldPerson): string {
  const line = isLikely(1 / 3, world.seed, 'tansy takes the desk', person.id) ? person.desk : person.mobile
  const { code, trunk } = person.company.place
  return `${trunk}${line.e164.slice(1 + code.length)}`
}
