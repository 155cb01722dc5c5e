import { type Context, Hono } from 'hono'
import { needsKey } from '../http'
import { type Line, Refused } from './audience'
import { identifier, lineKey, sha256 } from './matching'

/** A line as a network's call holds it: its cells by heading, of which some stand there more than once. */
export type Cells = ReadonlyMap<string, readonly string[]>

/** Which identifiers a line names, by the headings of its network. */
export interface Reading {
  readonly emails?: readonly string[]
  readonly numbers?: readonly string[]
  readonly devices?: readonly string[]
  /** Given name, family name, country and postal code. */
  readonly nameAndPlace?: readonly [string, string, string, string]
  readonly companyPage?: string
  readonly site?: string
  readonly companyName?: string
}

const HASHED = /^[0-9a-f]{64}$/
const hashed = (value: string): string => (HASHED.test(value) ? value : sha256(value))

/** What of a line the network compares. Plain values are hashed here, as they came. */
export function lineOf(cells: Cells, reading: Reading): Line {
  const all = (headings: readonly string[] = []) => headings.flatMap((one) => cells.get(one) ?? []).filter(Boolean)
  const first = (heading = '') => cells.get(heading)?.[0] ?? ''
  const named = reading.nameAndPlace?.map(first)
  const identifiers = [
    ...all(reading.emails).map((one) => identifier.email(hashed(one))),
    ...all(reading.numbers).map((one) => identifier.number(hashed(one))),
    ...all(reading.devices).map((one) => identifier.device(hashed(one))),
    ...(named?.every(Boolean)
      ? [identifier.nameAndPlace(hashed(named[0] ?? ''), hashed(named[1] ?? ''), named[2] ?? '', named[3] ?? '')]
      : []),
    ...(first(reading.companyPage) ? [identifier.companyPage(first(reading.companyPage))] : []),
    ...(first(reading.site) ? [identifier.site(first(reading.site))] : []),
    ...(first(reading.companyName) ? [identifier.companyName(first(reading.companyName))] : []),
  ]
  return { key: lineKey([...cells.values()].flat()), identifiers }
}

/** Cells of a table: a heading may stand there several times. */
export const cellsOf = (headings: readonly string[], row: readonly string[]): Cells => {
  const cells = new Map<string, string[]>()
  for (const [at, heading] of headings.entries()) {
    const known = cells.get(heading) ?? []
    known.push(row[at] ?? '')
    cells.set(heading, known)
  }
  return cells
}

/** The key a call came under; a call without one stands for itself. */
export const onceOf = (c: Context): string => c.req.header('idempotency-key') ?? crypto.randomUUID()

/** The service of a network: its routes behind its key, with refusals told in its own way. */
export function serviceOf(key: string, told: (code: string) => object, routes: (app: Hono) => void): Hono {
  const app = new Hono()
  app.use('*', needsKey(key))
  app.onError((error, c) => {
    if (error instanceof Refused) return c.json(told(error.code), error.code.startsWith('no-such') ? 404 : 422)
    return c.json({ error: 'not understood' }, 400)
  })
  routes(app)
  return app
}
