import { serve } from '@hono/node-server'
import { Hono } from 'hono'
import { createDirectory } from './directory'
import type { StandInOptions } from './http'
import { brindle } from './services/brindle'
import { pellow } from './services/pellow'
import { tansy } from './services/tansy'
import { createWorld } from './world'

export interface StandIns {
  readonly url: string
  /** What each service says it has charged, in millionths of a euro. */
  charged(): Record<'pellow' | 'tansy' | 'brindle', { total: number; count: number }>
  stop(): Promise<void>
}

export interface StandInsInput extends Partial<StandInOptions> {
  readonly port: number
  readonly seed: string
  readonly people: number
  readonly consumers?: number
  readonly keys: Readonly<Record<'pellow' | 'tansy' | 'brindle', string>>
}

/** Starts the simulated outside world on loopback. */
export async function startStandIns({
  port,
  seed,
  people,
  consumers = 0,
  keys,
  speed = 1,
}: StandInsInput): Promise<StandIns> {
  const world = createWorld(seed, { people, consumers })
  const directory = createDirectory(world)
  const services = {
    pellow: pellow(world, keys.pellow, { speed }),
    tansy: tansy(world, directory, keys.tansy, { speed }),
    brindle: brindle(world, directory, keys.brindle, { speed }),
  }
  const app = new Hono()
  app.onError((_, c) => c.json({ error: 'not understood' }, 400))
  app.route('/pellow', services.pellow.app)
  app.route('/tansy', services.tansy.app)
  app.route('/brindle', services.brindle.app)
  const charged = () =>
    Object.fromEntries(
      Object.entries(services).map(([name, { ledger }]) => [name, { total: ledger.total(), count: ledger.count() }]),
    ) as ReturnType<StandIns['charged']>
  app.get('/charged', (c) => c.json(charged()))
  const server = serve({ fetch: app.fetch, hostname: '127.0.0.1', port })
  await new Promise<void>((resolve, reject) => {
    server.once('listening', resolve)
    server.once('error', reject)
  })
  const address = server.address()
  return {
    url: `http://127.0.0.1:${typeof address === 'object' && address ? address.port : port}`,
    charged,
    stop: () =>
      new Promise((resolve) => {
        if ('closeAllConnections' in server) server.closeAllConnections()
        server.close(() => resolve())
      }),
  }
}
