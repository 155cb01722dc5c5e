import { Hono } from 'hono'
import { z } from 'zod'
import type { Directory } from '../directory'
import { createLedger, keyOfCall, needsKey, type Service, type StandInOptions, sleep } from '../http'
import { isLikely, type World } from '../world'

const PRICE = 2_000

/** Made-up authorities, and whose numbers each keeps a register of. */
const REGISTERS: Readonly<Record<string, string>> = {
  GB: 'Quiet Line Register',
  IE: 'Quiet Line Register',
  DE: 'Ruheliste',
  AT: 'Ruheliste',
  CH: 'Ruheliste',
  US: 'Silent Numbers List',
  CA: 'Silent Numbers List',
}

/** Pellow's door to three do-not-call registers: who does not want to be called. Numbers of other countries are free. */
export function pellowRegisters(
  world: World,
  _: Directory,
  key: string,
  { pace, faults, book }: StandInOptions,
): Service {
  const app = new Hono()
  const ledger = createLedger({ faults, book })
  app.use('*', needsKey(key))

  const answer = (number: string) => {
    const truth = world.numberOf(number)
    const register = truth && REGISTERS[truth.country]
    if (!register) return { number, register: null, listed: null }
    return { number, register, listed: isLikely(0.09, world.seed, 'wants no calls', number) }
  }
  app.post('/v1/look', async (c) => {
    const { numbers } = z.object({ numbers: z.array(z.string()).max(500) }).parse(await c.req.json())
    await sleep((60 + numbers.length) / pace.speed)
    const call = keyOfCall(c, crypto.randomUUID())
    const answers = numbers.map(answer)
    for (const { number, listed } of answers) if (listed !== null) ledger.charge(`${call}|${number}`, PRICE)
    return c.json({ answers })
  })
  return { app, ledger }
}
