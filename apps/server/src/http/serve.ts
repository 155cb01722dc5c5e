import {
  type BodyOf,
  type Endpoint,
  type EndpointName,
  endpoints,
  type Me,
  type ResponseOf,
  type Role,
} from '@upper-field/contract'
import type { Context, Hono } from 'hono'
import type { z } from 'zod'
import { freshenCallPlaces } from '../check/callPlaces'
import { type AdmittedKey, admitKey, findKey, noteCall, secretIn } from '../machine/keys'
import { holdsNul, withoutNul } from '../nul'
import type { SignedIn } from '../people/people'
import type { CallServices, Services } from '../services'
import { readBody } from './body'
import { answerOnce } from './idempotency'
import { Problem } from './problem'

type Parsed<N extends EndpointName, K extends 'params' | 'query'> = z.output<(typeof endpoints)[N][K]>
type ParsedBody<N extends EndpointName> = (typeof endpoints)[N]['body'] extends z.ZodType
  ? z.output<(typeof endpoints)[N]['body']>
  : BodyOf<N>

export interface Call<N extends EndpointName> {
  readonly params: Parsed<N, 'params'>
  readonly query: Parsed<N, 'query'>
  readonly body: ParsedBody<N>
  /** Who calls; the endpoint's role has been checked. */
  readonly me: Me
  /** The key it is called with, where another program calls. */
  readonly machine: AdmittedKey | null
  /** The session it is called in; empty where none is needed. */
  readonly sessionId: string
  readonly c: Context
  /** Aborted when the caller has gone. */
  readonly signal: AbortSignal
}

type Answer<N extends EndpointName> = ResponseOf<N> | Response
const RANK: Record<Role, number> = { viewer: 0, operator: 1, owner: 2 }

/** Serves one endpoint of the contract: role, shape of the call, idempotency, answer. */
export function serve<N extends EndpointName>(
  app: Hono,
  services: CallServices,
  name: N,
  handler: (call: Call<N>) => Promise<Answer<N>>,
): void {
  const endpoint: Endpoint = endpoints[name]
  const path = `/api/v1${endpoint.path.replace(/\{(\w+)\}/g, ':$1')}`
  app.on(endpoint.method.toUpperCase(), path, async (c) => {
    const { me, sessionId, machine } = await permit(services, name, c)
    const call = {
      params: check(endpoint.params, plain(c.req.param())),
      query: check(endpoint.query, plain(c.req.query())),
      body: await bodyOf(services, endpoint, c),
      me,
      sessionId,
      machine,
      c,
      signal: c.req.raw.signal,
    } as unknown as Call<N>
    if (asksWhoMayBeCalled(name, call)) await freshenCallPlaces(services.db, services.now())
    const answer = async () => handler(call)
    const key = c.req.header('idempotency-key')
    const result =
      endpoint.isIdempotent && key
        ? await answerOnce(services, { me, key, call: name, asked: [call.params, call.query, call.body] }, answer)
        : await answer()
    return result instanceof Response ? result : c.json(result as object)
  })
}

/** True where a filter asks who may be called at this moment, or their counts are asked for. */
function asksWhoMayBeCalled(name: EndpointName, { query, body }: { query: unknown; body: unknown }): boolean {
  if (name === 'readPiles' || name === 'readCallSheet') return true
  return [query, body].some((part) => {
    const { filter, sort } = (part ?? {}) as { readonly filter?: unknown; readonly sort?: unknown }
    return sort === 'call' || (typeof filter === 'string' && /\bcall:/.test(filter))
  })
}

type Permitted = SignedIn & { readonly machine: AdmittedKey | null }

/** Who calls: a person who is signed in, or a program with its key. */
async function permit(services: CallServices, name: EndpointName, c: Context): Promise<Permitted> {
  const { role, scope }: Endpoint = endpoints[name]
  if (role === null) return { me: { id: '', name: '', email: '', role: 'viewer' }, sessionId: '', machine: null }
  const secret = secretIn(c.req.header('authorization'))
  if (secret !== null) {
    const machine = await findKey(services, secret)
    noteWhenAnswered(services, c, { keyId: machine.id, call: name })
    await admitKey(services, machine, scope)
    return { me: { id: machine.id, name: machine.name, email: '', role: 'viewer' }, sessionId: '', machine }
  }
  const found = await services.people.whoIs(c.req.raw.headers)
  if (!found) throw new Problem(401, 'not-signed-in', 'Sign in first.')
  const { me } = found
  if (RANK[me.role] < RANK[role]) {
    throw new Problem(
      403,
      'not-allowed',
      `Your role is ${me.role}; this needs ${role === 'owner' ? 'an owner' : `an ${role}`}.`,
    )
  }
  return { ...found, machine: null }
}

/** How a program's call ends is told by the answer itself, also where it was refused. */
function noteWhenAnswered(services: Services, c: Context, call: { keyId: string; call: string }): void {
  const began = performance.now()
  c.set(
    'answered' as never,
    ((status: number) =>
      noteCall(services, { ...call, status, milliseconds: Math.round(performance.now() - began) })) as never,
  )
}

async function bodyOf({ config }: Services, endpoint: Endpoint, c: Context): Promise<unknown> {
  if (endpoint.body === null || endpoint.body === 'file') return undefined
  const { rowsBodyBytes, bodyBytes, bodySeconds } = config.limits
  const bytes = endpoint.sendsRows ? rowsBodyBytes : bodyBytes
  const text = await readBody(c, { bytes, seconds: bodySeconds })
  // Cells of files may hold NUL as padding, which is nothing; anywhere else it is a slip or an attack.
  return check(endpoint.body, parseJson(endpoint.sendsRows ? withoutNul(text) : text))
}

function plain(given: Record<string, string>): Record<string, string> {
  if (Object.values(given).some((value) => value.includes('\0')))
    throw new Problem(422, 'not-valid', 'NUL cannot be part of a value. Nothing was changed.')
  return given
}

/** Throws a problem where a text is no JSON, or holds NUL, which the database has no place for. */
export function parseJson(text: string): unknown {
  if (holdsNul(text)) throw new Problem(422, 'not-valid', 'NUL cannot be part of a value. Nothing was changed.')
  try {
    return JSON.parse(text)
  } catch {
    throw new Problem(400, 'not-json', 'The call has no readable JSON in it.')
  }
}

/** Holds what came with a call against its shape. Throws a problem that names what is off. */
export function check<T>(schema: z.ZodType<T>, value: unknown): T {
  const parsed = schema.safeParse(value)
  if (parsed.success) return parsed.data
  const issues = parsed.error.issues.slice(0, 5).map((issue) => `${issue.path.join('.') || 'call'}: ${issue.message}`)
  throw new Problem(422, 'not-valid', issues.join(' '))
}
