import { createHash } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { type ApiClient, createClient, type NewBatch } from '@upper-field/contract'
import { keysOf, networkKeysOf, type StandIns, startStandIns } from '@upper-field/standins'
import { Client } from 'pg'
import { bringIn } from '../../../../scripts/bringIn'
import { freePort } from '../../../../scripts/postgres.mjs'
import { readConfig } from '../../src/config'
import { prepareDatabase } from '../../src/prepareDatabase'
import { type Running, startHttp } from '../../src/startHttp'
import { startJobs } from '../../src/startJobs'
import { heldToContract } from './heldToContract'

export const OWNER = {
  name: 'Olive Owner',
  email: 'olive@upper.example',
  password: 'a long password',
  role: 'owner' as const,
}
export const KEYS = keysOf((service) => `key-${service}`)
export const NETWORK_KEYS = networkKeysOf((network) => `key-${network}`)
export const SECRET = 'integration tests need forty characters!'
export const SEALING_SECRET = 'and another one of as many for the keys!'

export interface TestServer extends Running {
  readonly url: string
  readonly databaseUrl: string
  readonly api: ApiClient
  sql<T>(text: string, values?: unknown[]): Promise<T[]>
}

/** Tests that make their database at the same moment wait for each other by this. */
const TEMPLATE_LOCK = 4711

/** Address of a database of its own in the test cluster: with the schema and nothing in it, or without even that. */
export async function freshDatabase({ isEmpty = false } = {}): Promise<string> {
  const base = process.env.TEST_CLUSTER_URL
  if (!base) throw new Error('TEST_CLUSTER_URL is not set: run these tests with npm test')
  const urlOf = (name: string) => base.replace(/\/[^/]*$/, `/${name}`)
  const name = `test_${crypto.randomUUID().replaceAll('-', '')}`
  const admin = new Client({ connectionString: base })
  await admin.connect()
  try {
    if (isEmpty) {
      await admin.query(`create database ${name}`)
      return urlOf(name)
    }
    await admin.query('select pg_advisory_lock($1)', [TEMPLATE_LOCK])
    const template = await templateIn(admin, urlOf)
    await admin.query(`create database ${name} template ${template}`)
  } finally {
    await admin.end()
  }
  return urlOf(name)
}

/** A database with today's schema to copy from: the migrations run once, not for every test. */
async function templateIn(admin: Client, urlOf: (name: string) => string): Promise<string> {
  const template = `test_template_${digestOfMigrations()}`
  const { rows } = await admin.query('select 1 from pg_database where datname = $1', [template])
  if (rows.length > 0) return template
  const unfinished = `${template}_${process.pid}`
  await admin.query(`create database ${unfinished}`)
  await prepareDatabase(await configFor(urlOf(unfinished)))
  // Under its name there is a whole one or none.
  await admin.query(`alter database ${unfinished} rename to ${template}`)
  return template
}

function digestOfMigrations(): string {
  const journal = join(import.meta.dirname, '..', '..', 'migrations', 'meta', '_journal.json')
  return createHash('sha256').update(readFileSync(journal)).digest('hex').slice(0, 12)
}

export async function configFor(databaseUrl: string, more: Record<string, string> = {}) {
  const port = await freePort()
  return readConfig({
    DATABASE_URL: databaseUrl,
    PORT: String(port),
    SESSION_SECRET: SECRET,
    SEALING_SECRET,
    ALLOW_PLAIN_HTTP: '1',
    ALLOW_PRIVATE_ADDRESSES: '1',
    LATE_ANSWER_SECONDS: '3',
    // What a test has just changed is counted in what it reads, however busy the machine is.
    COUNT_SECONDS: '20',
    // Client and server share this process: while one works for long, the other must not hang up.
    KEEP_ALIVE_SECONDS: '120',
    ...more,
  })
}

/** The application in this process, on a database of its own, with an owner signed in. */
export const startTestServer = async (more: Record<string, string> = {}): Promise<TestServer> =>
  startServerOn(await freshDatabase(), more)

/** The same on a database that is given. */
export async function startServerOn(databaseUrl: string, more: Record<string, string> = {}): Promise<TestServer> {
  const config = await configFor(databaseUrl, more)
  await prepareDatabase(config)
  const http = await startHttp(config)
  const jobs = await startJobs(config)
  await http.services.people.add(OWNER)
  const url = `http://127.0.0.1:${http.port}`
  const api = await signedIn(url, OWNER, config.publicUrl ?? url)
  return {
    ...http,
    url,
    databaseUrl,
    api,
    sql: async (text, values) => (await http.services.pool.query(text, values)).rows,
    stop: async () => {
      await jobs.stop()
      await http.stop()
    },
  }
}

interface Credentials {
  readonly email: string
  readonly password: string
}

/** @param origin under which the application is reached */
export const signedIn = async (url: string, who: Credentials, origin = url): Promise<ApiClient> =>
  heldToContract(createClient(url, await cookieOf(url, who, origin)))

/** The cookies of a session of somebody. */
export async function cookieOf(url: string, { email, password }: Credentials, origin = url): Promise<string> {
  const response = await fetch(`${url}/api/auth/sign-in/email`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', origin },
    body: JSON.stringify({ email, password }),
  })
  if (!response.ok) throw new Error(`sign-in answered ${response.status}`)
  return response.headers
    .getSetCookie()
    .map((line) => line.split(';')[0])
    .join('; ')
}

/** The outside world, quick, with its keys set in the application. */
export async function connectStandIns(
  server: TestServer,
  { seed = 'tests', people = 200, consumers = 0, speed = 40 } = {},
): Promise<StandIns> {
  const standIns = await startStandIns({ port: 0, seed, people, consumers, keys: KEYS, speed })
  for (const [provider, key] of Object.entries(KEYS)) {
    await server.api.call('changeConnection', { params: { provider }, body: { baseUrl: standIns.url, key } })
  }
  return standIns
}

/** Ad networks of the outside world, with the destinations that ship and their keys set in the application. */
export async function connectNetworks(
  server: TestServer,
  { seed = 'tests', people = 200, consumers = 0, speed = 40_000 } = {},
): Promise<StandIns> {
  const standIns = await startStandIns({ port: 0, seed, people, consumers, keys: NETWORK_KEYS, speed })
  await addDestinations(server.api)
  for (const [destinationId, key] of Object.entries(NETWORK_KEYS))
    await server.api.call('keepDestinationKey', { params: { destinationId }, body: { address: standIns.url, key } })
  return standIns
}

/** Everything an audience can be prepared for, as it ships. */
export async function addDestinations(api: ApiClient): Promise<void> {
  for (const one of await api.call('readShippedDestinations', {}))
    await api.call('keepDestination', { params: { destinationId: one.id }, body: one })
}

export async function newList(api: ApiClient, name = 'A list'): Promise<string> {
  return (await api.call('makeList', { body: { name } })).id
}

/** A batch as a client announces it: a CSV of names and numbers, but for what is given. */
export const newBatch = (more: Partial<NewBatch> = {}): NewBatch => ({
  name: 'x',
  fileName: 'x.csv',
  bytes: 10,
  encoding: 'utf-8',
  delimiter: ',',
  bom: 0,
  format: 'csv',
  sheet: null,
  firstRow: 2,
  headingsRow: 1,
  merged: 'every',
  takesHidden: false,
  notes: [],
  price: null,
  headings: ['name', 'phone'],
  mapping: ['full-name', 'number'],
  defaultCountry: 'GB',
  sourceKind: 'other',
  gatheredOn: null,
  lawfulBasis: 'not-stated',
  note: '',
  ...more,
}) // prettier-ignore

/** Brings lines of text in as a CSV. */
export const bringText = (api: ApiClient, listId: string, text: string, facts: Partial<NewBatch> = {}) =>
  bringIn(api, listId, { name: 'test.csv', bytes: new TextEncoder().encode(text) }, facts)
