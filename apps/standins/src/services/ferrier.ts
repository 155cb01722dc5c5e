import { Hono } from 'hono'
import { z } from 'zod'
import type { Directory } from '../directory'
import { createLedger, keyOfCall, needsKey, Person, type Service, type StandInOptions, sleep } from '../http'
import { deliverabilityOf, isLikely, type World } from '../world'
import { type Coverage, covers } from './coverage'

const PRICE = 30_000
const EMAILS: Coverage = { home: { countries: new Set(), share: 0 }, elsewhere: 0.78, ofHard: 0.5 }
const NUMBERS: Coverage = { home: { countries: new Set(['FR', 'NL']), share: 0.42 }, elsewhere: 0.32, ofHard: 0.2 }
/** So often it fails, whatever it is asked: asking again may do. */
const FAILS = 0.02

/** Ferrier: work e-mails everywhere and few numbers. Charges for deliverable addresses; two calls of a hundred fail. */
export function ferrier(
  world: World,
  directory: Directory,
  key: string,
  { pace, faults, book }: StandInOptions,
): Service {
  const app = new Hono()
  const ledger = createLedger({ faults, book })
  let calls = 0
  app.use('*', needsKey(key))
  app.post('/find', async (c) => {
    const { name, domain } = Person.pick({ name: true, domain: true }).parse(await c.req.json())
    await sleep(70 / pace.speed)
    if (isLikely(FAILS, world.seed, 'ferrier fails', calls++)) return c.json({ error: 'try again' }, 503)
    const person = directory.find({ name, company: '', domain })
    if (!person) return c.json({ result: null }, 200)
    const status = deliverabilityOf(world, person.workEmail)
    const email = covers(world, 'ferrier', person, EMAILS) ? { address: person.workEmail, status } : null
    const mobile = covers(world, 'ferrier numbers', person, NUMBERS) ? person.mobile.e164 : null
    if (email?.status === 'deliverable') ledger.charge(keyOfCall(c, person.profile), PRICE)
    return c.json({ result: { name: `${person.given} ${person.family}`, email, mobile } })
  })
  app.post('/taken', async (c) => {
    z.object({ reference: z.string() }).parse(await c.req.json())
    return c.json({})
  })
  return { app, ledger }
}
