import { Hono } from 'hono'
import { z } from 'zod'
import type { Directory } from '../directory'
import { createLedger, keyOfCall, needsKey, Person, type Service, type StandInOptions, sleep } from '../http'
import { hashOf, isLikely, type World, type WorldPerson } from '../world'
import { type Coverage, covers } from './coverage'

const PRICE = 45_000
const COVERAGE: Coverage = { home: { countries: new Set(), share: 0 }, elsewhere: 0.38, ofHard: 0.25 }
/** So often it tells of another person of the same family name. */
const ANOTHER = 0.06

/** Quillwort: at home where none of this world is, and cheap. Every call is paid; some answers are about somebody else. */
export function quillwort(
  world: World,
  directory: Directory,
  key: string,
  { pace, faults, book }: StandInOptions,
): Service {
  const app = new Hono()
  const ledger = createLedger({ faults, book })
  app.use('*', needsKey(key))
  app.post('/v2/lookup', async (c) => {
    const asked = Person.extend({ email: z.string().default('') }).parse(await c.req.json())
    await sleep(110 / pace.speed)
    const person = directory.find({ ...asked, domain: '', profile: undefined })
    ledger.charge(keyOfCall(c, JSON.stringify(asked)), PRICE)
    if (!person || !covers(world, 'quillwort', person, COVERAGE)) return c.json({ matches: [] })
    const told = isLikely(ANOTHER, world.seed, 'quillwort mistakes', person.id) ? another(world, person) : person
    return c.json({ matches: matchesOf(world, told) })
  })
  return { app, ledger }
}

function matchesOf(world: World, person: WorldPerson): { who: string; phone: string; score: number }[] {
  const who = `${person.given} ${person.family}`
  const mobile = { who, phone: person.mobile.e164, score: 77 }
  return isLikely(0.35, world.seed, 'quillwort adds the desk', person.id)
    ? [{ who, phone: person.desk.e164, score: 83 }, mobile]
    : [mobile]
}

/** Somebody of the same family name, or of the same country where there is none. */
function another(world: World, { id, family, company }: WorldPerson): WorldPerson {
  const others = world.people.filter((one) => one.id !== id && one.family === family)
  const near =
    others.length > 0 ? others : world.people.filter((one) => one.id !== id && one.company.place === company.place)
  return (
    near[hashOf(`${world.seed}|quillwort mistakes|${id}`) % Math.max(1, near.length)] ??
    (world.people[0] as WorldPerson)
  )
}
