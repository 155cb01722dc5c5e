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
import type { Services } from '../services'
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
  readonly c: Context
}

type Answer<N extends EndpointName> = ResponseOf<N> | Response
const RANK: Record<Role, number> = { viewer: 0, operator: 1, owner: 2 }

/** Serves one endpoint of the contract: role, shape of the call, idempotency, answer. */
export function serve<N extends EndpointName>(
  app: Hono,
  services: Services,
  name: N,
  handler: (call: Call<N>) => Promise<Answer<N>>,
): void {
  const endpoint: Endpoint = endpoints[name]
  const path = `/api/v1${endpoint.path.replace(/\{(\w+)\}/g, ':$1')}`
  app.on(endpoint.method.toUpperCase(), path, async (c) => {
    const me = await permit(services, endpoint.role, c)
    const call = {
      params: check(endpoint.params, c.req.param()),
      query: check(endpoint.query, c.req.query()),
      body: await bodyOf(endpoint, c),
      me,
      c,
    } as unknown as Call<N>
    const answer = async () => handler(call)
    const key = c.req.header('idempotency-key')
    const result =
      endpoint.isIdempotent && key ? await answerOnce(services, { me, key, call: name }, answer) : await answer()
    return result instanceof Response ? result : c.json(result as object)
  })
}

async function permit(services: Services, role: Role | null, c: Context): Promise<Me> {
  if (role === null) return { id: '', name: '', email: '', role: 'viewer' }
  const me = await services.people.whoIs(c.req.raw.headers)
  if (!me) throw new Problem(401, 'not-signed-in', 'Sign in first.')
  if (RANK[me.role] < RANK[role]) {
    throw new Problem(
      403,
      'not-allowed',
      `Your role is ${me.role}; this needs ${role === 'owner' ? 'an owner' : `an ${role}`}.`,
    )
  }
  return me
}

async function bodyOf(endpoint: Endpoint, c: Context): Promise<unknown> {
  if (endpoint.body === null || endpoint.body === 'file') return undefined
  const json = await c.req.json().catch(() => {
    throw new Problem(400, 'not-json', 'The call has no readable JSON in it.')
  })
  return check(endpoint.body, json)
}

function check(schema: z.ZodType, value: unknown): unknown {
  const parsed = schema.safeParse(value)
  if (parsed.success) return parsed.data
  const issues = parsed.error.issues.slice(0, 5).map((issue) => `${issue.path.join('.') || 'call'}: ${issue.message}`)
  throw new Problem(422, 'not-valid', issues.join(' '))
}
