import { mkdirSync } from 'node:fs'
import { join } from 'node:path'
import { serve } from '@hono/node-server'
import { Hono } from 'hono'
import { createDirectory } from './directory'
import { bookIn, needsKey } from './http'
import { NETWORK_NAMES, type Network, type NetworkName, openNetwork } from './networks'
import { pageOf } from './page'
import { SERVICE_NAMES, SERVICES, type ServiceName } from './services'
import { type Fault, watch } from './watched'
import { createWeb, type SmallWeb } from './web'
import { createWorld } from './world'

export interface StandIns {
  readonly url: string
  /** What each service says it has charged, in millionths of a euro. */
  charged(): Record<ServiceName, { total: number; count: number }>
  /** The small public web. */
  readonly web: SmallWeb
  /** What an ad network holds, by its own books. */
  network(name: NetworkName): Network
  /** Lets something go wrong with a service, or ends it. */
  toggle(service: ServiceName | NetworkName, fault: Fault): void
  stop(): Promise<void>
}

export interface StandInsInput {
  /** How much quicker than life the delays are; those of ad networks, where they differ. */
  readonly speed?: number
  readonly networkSpeed?: number
  /** A folder in which each service keeps its books beyond the end of the process. */
  readonly books?: string | undefined
  readonly port: number
  readonly seed: string
  readonly people: number
  readonly consumers?: number
  /** A service without a key is not there. */
  readonly keys: Readonly<Partial<Record<ServiceName | NetworkName, string>>>
}

/** A key for every service there is. */
export const keysOf = (keyOf: (service: ServiceName) => string): Record<ServiceName, string> =>
  Object.fromEntries(SERVICE_NAMES.map((name) => [name, keyOf(name)])) as Record<ServiceName, string>

/** A key for every ad network there is. */
export const networkKeysOf = (keyOf: (network: NetworkName) => string): Record<NetworkName, string> =>
  Object.fromEntries(NETWORK_NAMES.map((name) => [name, keyOf(name)])) as Record<NetworkName, string>

/** Starts the simulated outside world on loopback. */
export async function startStandIns({
  port,
  seed,
  people,
  consumers = 0,
  keys,
  speed = 1,
  networkSpeed = speed,
  books,
}: StandInsInput): Promise<StandIns> {
  const world = createWorld(seed, { people, consumers })
  const directory = createDirectory(world)
  const pace = { speed }
  const networkPace = { speed: networkSpeed }
  if (books) mkdirSync(books, { recursive: true })
  const given = Object.entries(keys) as [ServiceName | NetworkName, string][]
  const web = createWeb(world, pace)
  const networks = given.flatMap(([name, key]) => {
    if (!isNetwork(name)) return []
    const watched = watch({ pace: networkPace })
    const book = books ? bookIn(join(books, `${name}.ndjson`)) : undefined
    return [
      { name, ...watched, ...openNetwork(world, name, key, { pace: networkPace, faults: watched.watch.faults, book }) },
    ]
  })
  const services = given.flatMap(([name, key]) => {
    if (isNetwork(name)) return []
    const watched = watch({ pace })
    const { faults } = watched.watch
    const book = books ? bookIn(join(books, `${name}.tsv`)) : undefined
    return [{ name, key, ...watched, ...SERVICES[name](world, directory, key, { pace, faults, book }) }]
  })
  const app = new Hono()
  app.onError((_, c) => c.json({ error: 'not understood' }, 400))
  app.use(async (c, next) => {
    const host = (c.req.header('host') ?? '').replace(/:\d+$/, '').toLowerCase()
    if (!host.endsWith('.example')) return next()
    return (await web.answer(c.req.raw, host)) ?? c.text('no such site', 421)
  })
  for (const { name, key, handler, app: service, ledger } of services) {
    // Its own books are no question to it: they are not slowed, broken or watched.
    app.get(`/${name}/statement`, needsKey(key), (c) => c.json({ days: ledger.days(c.req.query('month') ?? '') }))
    app.use(`/${name}/*`, handler).route(`/${name}`, service)
  }
  for (const { name, handler, app: network } of networks) app.use(`/${name}/*`, handler).route(`/${name}`, network)
  app.route(
    '/world',
    pageOf(
      { services: pace, networks: networkPace },
      {
        services: () =>
          services.map(({ name, watch, ledger }) => ({
            name,
            watch,
            charged: { total: ledger.total(), count: ledger.count() },
          })),
        networks: () => networks,
      },
    ),
  )
  const charged = () =>
    Object.fromEntries(
      services.map(({ name, ledger }) => [name, { total: ledger.total(), count: ledger.count() }]),
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
    web,
    network: (name) => {
      const found = networks.find((one) => one.name === name)
      if (!found) throw new Error(`${name} is not there`)
      return found.network
    },
    toggle: (service, fault) => {
      const faults = [...services, ...networks].find(({ name }) => name === service)?.watch.faults
      if (faults && !faults.delete(fault)) faults.add(fault)
    },
    stop: () =>
      new Promise((resolve) => {
        if ('closeAllConnections' in server) server.closeAllConnections()
        server.close(() => resolve())
      }),
  }
}

const isNetwork = (name: ServiceName | NetworkName): name is NetworkName =>
  (NETWORK_NAMES as readonly string[]).includes(name)
