import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { serve as serveHttp } from '@hono/node-server'
import { runMigrations } from 'graphile-worker'
import type { Config } from './config'
import { migrateDatabase, openDatabase } from './db/database'
import { createApp } from './http/app'
import { logError } from './http/problem'
import { listenForJobs } from './jobs/events'
import { jobHandlers } from './jobs/handlers'
import { startRunner } from './jobs/runner'
import { createPeople } from './people/auth'
import { ensureDemoOperator } from './people/demoOperator'
import type { Services } from './services'
import { letExpiredGo } from './suppression/expiry'

export interface Running {
  readonly port: number
  readonly services: Services
  stop(): Promise<void>
}

/** Folder of the migrations: beside the sources, and beside the bundle. */
const MIGRATIONS = join(dirname(fileURLToPath(import.meta.url)), '..', 'migrations')

export function openServices(config: Config, now: () => number = Date.now): Services & { close(): Promise<void> } {
  const database = openDatabase(config.databaseUrl, { connections: 16 })
  const people = createPeople(database.db, config)
  return { config, pool: database.pool, db: database.db, people, now, close: database.close }
}

/** Brings the schema and the queue up to date. */
export async function prepareDatabase(config: Config): Promise<void> {
  const database = openDatabase(config.databaseUrl, { connections: 2 })
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
  const events = await listenForJobs(given.databaseUrl)
  const app = createApp(services, events)
  const server = serveHttp({ fetch: app.fetch, hostname: given.host, port })
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

/** How often entries of suppression lists are looked for that have expired, in milliseconds. */
const EXPIRY_EVERY = 60_000

/** Takes jobs from the queue until stopped, and lets go whom expired entries of suppression lists held. */
export async function startJobs(config: Config): Promise<{ stop(): Promise<void> }> {
  const services = openServices(config)
  const runner = await startRunner(services, jobHandlers)
  const letGo = () => void letExpiredGo(services).catch((error: unknown) => logError('expiry', error))
  letGo()
  const clock = setInterval(letGo, EXPIRY_EVERY)
  return {
    stop: async () => {
      clearInterval(clock)
      await runner.stop()
      await services.close()
    },
  }
}
