import { serve as serveHttp } from '@hono/node-server'
import type { Config } from './config'
import { createApp } from './http/app'
import { createCallLimits } from './http/callLimits'
import { listenForEvents } from './jobs/events'
import { openServices } from './openServices'
import { createPeople } from './people/auth'
import { ensureDemoOperator } from './people/demoOperator'
import type { CallServices } from './services'

export interface Running {
  readonly port: number
  readonly services: CallServices
  stop(): Promise<void>
}

/** Starts the web server. Jobs are worked on elsewhere: in a thread of this process, or on another machine. */
export async function startHttp(given: Config): Promise<Running> {
  const port = given.port
  const services = openCallServices(given)
  if (given.isDemo) await ensureDemoOperator(services)
  const events = await listenForEvents(given.databaseUrl)
  const app = createApp(services, events)
  const server = serveHttp({ fetch: app.fetch, hostname: given.host, port, serverOptions: httpTimes(given) })
  await new Promise<void>((resolve, reject) => {
    server.once('listening', resolve)
    server.once('error', reject)
  })
  const address = server.address()
  return {
    port: typeof address === 'object' && address ? address.port : port,
    services,
    stop: async () => {
      if ('closeAllConnections' in server) server.closeAllConnections()
      await new Promise((resolve) => server.close(resolve))
      await events.close()
      await services.close()
    },
  }
}

/** With people and their limits. */
function openCallServices(config: Config): CallServices & { close(): Promise<void> } {
  const services = openServices(config, 'calls')
  return {
    ...services,
    people: createPeople(services, config),
    callLimits: createCallLimits(services.pool, config.limits),
  }
}

/**
 * Headers come at once, or not at all. A body has no time of its own here: an upload may take hours, and what it may
 * not do is bounded where it is read (`http/body`, `bring/receiveContent`).
 */
const httpTimes = ({ limits }: Config) => ({
  headersTimeout: 15_000,
  requestTimeout: 0,
  keepAliveTimeout: limits.keepAliveSeconds * 1000,
  connectionsCheckingInterval: 5000,
})
