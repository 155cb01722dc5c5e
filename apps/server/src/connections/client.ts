import { eq } from 'drizzle-orm'
import { request } from 'undici'
import type { z } from 'zod'
import { connections } from '../db/schema'
import { JobProblem } from '../jobs/runner'
import type { Services } from '../services'
import { checkAddress } from './outgoing'
import { unseal } from './seal'

export interface ProviderCall {
  readonly method: 'GET' | 'POST'
  readonly path: string
  readonly body?: unknown
  /** Makes the call safe to repeat: the provider answers it once and charges it once. */
  readonly idempotencyKey?: string
}

const TIMEOUT = 15_000
const TRIES = 4

/** Calls one configured provider. A busy or failing one is tried again with the waits it asks for. */
export interface ProviderClient {
  call<T>(shape: z.ZodType<T>, call: ProviderCall): Promise<T>
}

/** Opens the connection to a provider. Throws a job problem where none is configured. */
export async function openConnection(services: Services, provider: string): Promise<ProviderClient> {
  const [connection] = await services.db.select().from(connections).where(eq(connections.provider, provider))
  if (!connection?.sealedKey) throw new JobProblem('no-connection')
  const key = unseal(connection.sealedKey, services.config.secret)
  await checkAddress(connection.baseUrl, services.config)
  return { call: (shape, call) => callWithRetries(connection.baseUrl, key, shape, call) }
}

async function callWithRetries<T>(baseUrl: string, key: string, shape: z.ZodType<T>, call: ProviderCall): Promise<T> {
  for (let attempt = 1; ; attempt++) {
    const answer = await callOnce(baseUrl, key, call).catch(() => null)
    if (answer && answer.status < 300) return shape.parse(answer.json)
    if (answer?.status === 401 || answer?.status === 403) throw new JobProblem('key-refused')
    const isWorthRetrying = answer === null || answer.status === 429 || answer.status >= 500
    if (!isWorthRetrying || attempt >= TRIES) throw new JobProblem('provider-failed')
    await sleep(Math.min(answer?.retryAfter ?? 0.2 * 2 ** attempt, 30) * 1000)
  }
}

async function callOnce(
  baseUrl: string,
  key: string,
  { method, path, body, idempotencyKey }: ProviderCall,
): Promise<{ status: number; retryAfter: number | null; json: unknown }> {
  const response = await request(new URL(path, baseUrl), {
    method,
    headers: {
      authorization: `Bearer ${key}`,
      ...(body === undefined ? {} : { 'content-type': 'application/json' }),
      ...(idempotencyKey ? { 'idempotency-key': idempotencyKey } : {}),
    },
    body: body === undefined ? null : JSON.stringify(body),
    headersTimeout: TIMEOUT,
    bodyTimeout: TIMEOUT,
  })
  const retryAfter = Number(response.headers['retry-after'])
  const json = await response.body.json().catch(() => null)
  return {
    status: response.statusCode,
    retryAfter: Number.isFinite(retryAfter) && retryAfter > 0 ? retryAfter : null,
    json,
  }
}

export const sleep = (milliseconds: number): Promise<void> =>
  new Promise((resolve) => setTimeout(resolve, milliseconds))
