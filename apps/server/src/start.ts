import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { serve as serveHttp } from '@hono/node-server'
import { runMigrations } from 'graphile-worker'
import { advanceAutomations } from './automations/advance'
import type { Config } from './config'
import { sealAgain } from './connections/sealAgain'
import { indexLeftOut } from './contacts/indexLeftOut'
import { migrateDatabase, NO_HURRY, openDatabase } from './db/database'
import { isLostConnection } from './db/errors'
import { patienceOf } from './db/patience'
import { createApp } from './http/app'
import { createCallLimits } from './http/callLimits'
import { forgetOldKeys } from './http/idempotency'
import { logError } from './http/problem'
import { listenForEvents } from './jobs/events'
import { jobHandlers } from './jobs/handlers'
import { startRunner } from './jobs/runner'
import { createPeople } from './people/auth'
import { ensureDemoOperator } from './people/demoOperator'
import { lookAtAll } from './send/lookAt'
import { removeOverdue } from './send/owedRemovals'
import type { Services } from './services'
import { letExpiredGo } from './suppression/expiry'
import { deliverDue } from './webhooks/deliver'

export interface Running {
  readonly port: number
  readonly services: Services
  stop(): Promise<void>
}

/** Folder of the migrations: beside the sources, and beside the bundle. */
const MIGRATIONS = join(dirname(fileURLToPath(import.meta.url)), '..', 'migrations')

export function openServices(
  config: Config,
  {
    of = 'calls',
    now = Date.now,
    readers = null,
  }: Partial<Pick<Services, 'now' | 'readers'>> & { of?: 'calls' | 'jobs' } = {},
): Services & { close(): Promise<void> } {
  const { connections } = config.limits
  const database = openDatabase(config.databaseUrl, { connections, patience: patienceOf(config, of) })
  const { pool, db } = database
  const people = createPeople(database, config)
  return {
    config,
    pool,
    db,
    people,
    callLimits: createCallLimits(pool, config.limits),
    readers,
    now,
    close: database.close,
  }
}

/** Brings the schema and the queue up to date. */
export async function prepareDatabase(config: Config): Promise<void> {
  const database = openDatabase(config.databaseUrl, { connections: 2, patience: NO_HURRY })
  try {
    await migrateDatabase(database, MIGRATIONS)
    await runMigrations({ pgPool: database.pool })
  } finally {
    await database.close()
  }
}

/** Starts the web server. Jobs are worked on elsewhere: in a thread of this process, or on another machine. */
export async function startHttp(given: Config): Promise<Running> {
  const port = given.port
  const services = openServices(given)
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

/** How often is looked for what has to be done by itself, in milliseconds. */
const TIDY_UP_EVERY = 60_000

/** How often audiences are looked for whose network is to be asked how they stand, in milliseconds. */
const LOOK_EVERY = 1000

function byItself(services: Services, work: (services: Services) => Promise<unknown>): void {
  void work(services).catch((error: unknown) => {
    // Whatever the database was away for is done the next time.
    if (!isLostConnection(error)) logError('by itself', error)
  })
}

/**
 * Takes jobs from the queue until stopped; expired entries of suppression lists let go, old keys of calls go.
 * @param readers threads that read large files; without them this one does
 */
export async function startJobs(
  config: Config,
  { readers = null }: { readonly readers?: Services['readers'] } = {},
): Promise<{ stop(): Promise<void> }> {
  const services = openServices(config, { of: 'jobs', readers })
  const runner = await startRunner(services, jobHandlers)
  const tidyUp = () => {
    for (const work of [sealAgain, letExpiredGo, forgetOldKeys, indexLeftOut, removeOverdue]) byItself(services, work)
  }
  tidyUp()
  const clock = setInterval(tidyUp, TIDY_UP_EVERY)
  const looking = setInterval(() => byItself(services, lookAtAll), LOOK_EVERY)
  const telling = setInterval(() => byItself(services, deliverDue), LOOK_EVERY)
  const automating = setInterval(() => byItself(services, advanceAutomations), LOOK_EVERY)
  return {
    stop: async () => {
      clearInterval(clock)
      clearInterval(looking)
      clearInterval(telling)
      clearInterval(automating)
      await runner.stop()
      await readers?.close()
      await services.close()
    },
  }
}
