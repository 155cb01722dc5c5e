import { Hono } from 'hono'
import { z } from 'zod'
import type { Directory } from '../directory'
import { createLedger, keyOfCall, needsKey, Person, type Service, type StandInOptions } from '../http'
import { signed } from '../signed'
import { hashOf, isLikely, type World, type WorldPerson } from '../world'

const PRICE = 350_000
const AT_HOME = new Set(['DE', 'AT', 'CH', 'FR'])
const NEVER = 0.02

/**
 * Brindle: dear, slow, and good in German- and French-speaking countries. Takes a request, answers later by calling
 * back, and charges for values that were accepted only.
 */
export function brindle(
  world: World,
  directory: Directory,
  key: string,
  { pace, faults, book }: StandInOptions,
): Service {
  const app = new Hono()
  const ledger = createLedger({ faults, book })
  const taken = new Set<string>()
  app.use('*', needsKey(key))

  app.post('/v1/requests', async (c) => {
    const { person, callback } = z.object({ person: Person, callback: z.url() }).parse(await c.req.json())
    const request = keyOfCall(c, crypto.randomUUID())
    if (!taken.has(request)) {
      taken.add(request)
      const found = directory.find(person)
      const wait = (900 + (hashOf(`${world.seed}|brindle waits|${found?.id}`) % 5000)) / pace.speed
      if (!isLikely(NEVER, world.seed, 'brindle forgets', found?.id ?? person.name))
        setTimeout(() => void callBackAll(key, callback, answer(world, found), faults?.has('doubled') ? 2 : 1), wait)
    }
    return c.json({ request }, 202)
  })

  app.post('/v1/accepted', async (c) => {
    const { reference } = z.object({ reference: z.string() }).parse(await c.req.json())
    ledger.charge(reference, PRICE)
    return c.json({})
  })
  return { app, ledger }
}

function answer(world: World, person: WorldPerson | undefined): { number: string; score: number }[] {
  if (!person) return []
  const isHard = isLikely(0.12, world.seed, 'hard to find', person.id)
  const share = (AT_HOME.has(person.company.place.country) ? 0.72 : 0.3) * (isHard ? 0.3 : 1)
  if (!isLikely(share, world.seed, 'brindle', person.id)) return []
  const candidates = [{ number: person.mobile.e164, score: 88 }]
  if (isLikely(0.25, world.seed, 'brindle adds the desk', person.id))
    candidates.unshift({ number: person.desk.e164, score: 92 })
  return candidates
}

const TRIES = 5

/** Brings an answer as often as it is made to. */
async function callBackAll(
  key: string,
  url: string,
  candidates: readonly { number: string; score: number }[],
  times: number,
) {
  for (let time = 0; time < times; time++) await callBack(key, url, candidates)
}

/** The application may be starting again just now: a call back is tried a few times. */
async function callBack(
  key: string,
  url: string,
  candidates: readonly { number: string; score: number }[],
): Promise<void> {
  const body = JSON.stringify({ candidates })
  for (let attempt = 1; attempt <= TRIES; attempt++) {
    const response = await fetch(url, {
      method: 'POST',
      headers: { 'content-type': 'application/json', ...signed(key, body) },
      body,
    }).catch(() => null)
    if (response?.ok || response?.status === 404) return
    await new Promise((resolve) => setTimeout(resolve, 300 * attempt))
  }
}
