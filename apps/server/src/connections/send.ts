import { type Connector, keyedValue, type OutgoingRequest } from '@upper-field/core/connect'
import PQueue from 'p-queue'
import { type Agent, request } from 'undici'
import type { Config } from '../config'
import { outgoingAgent } from './outgoing'

/** Who is called: where, and with which key. */
export interface Called {
  readonly connector: Pick<Connector, 'id' | 'key' | 'limit'>
  readonly baseUrl: string
  readonly secret: string
  readonly config: Config
}

/** A service as its connector declares it. */
export interface Target extends Called {
  readonly connector: Connector
}

/** What came back: an answer of any status, one that is too large, or none. */
export type Sent =
  | { readonly is: 'answer'; readonly status: number; readonly text: string; readonly retryAfter: number | null }
  | { readonly is: 'too-large' }
  | { readonly is: 'unsent'; readonly problem: 'answer-too-late' | 'provider-failed' }

const agents = new WeakMap<Config, Agent>()

function agentFor(config: Config): Agent {
  const agent = agents.get(config) ?? outgoingAgent(config)
  agents.set(config, agent)
  return agent
}

/** Calls of one service wait for each other here, so that its limit is kept by this process. */
const queues = new Map<string, PQueue>()

function queueOf({ id, limit }: Called['connector']): PQueue {
  const name = `${id} ${limit.atOnce} ${limit.perSecond}`
  const queue = queues.get(name) ?? new PQueue({ concurrency: limit.atOnce, ...rateOf(limit.perSecond) })
  queues.set(name, queue)
  return queue
}

/** Less than one a second is one in so many seconds. */
function rateOf(perSecond: number | null): { intervalCap?: number; interval?: number } {
  if (perSecond === null) return {}
  return perSecond >= 1
    ? { intervalCap: Math.floor(perSecond), interval: 1000 }
    : { intervalCap: 1, interval: 1000 / perSecond }
}

/** Sends a request once, within the service's limit. Redirects are not followed: they could lead anywhere. */
export const send = (target: Called, outgoing: OutgoingRequest, idempotencyKey: string | null): Promise<Sent> =>
  queueOf(target.connector).add(() => sendNow(target, outgoing, idempotencyKey))

async function sendNow(target: Called, outgoing: OutgoingRequest, idempotencyKey: string | null): Promise<Sent> {
  const { answerBytes, answerSeconds } = target.config.limits
  const signal = AbortSignal.timeout(answerSeconds * 1000)
  try {
    const response = await request(addressOf(target, outgoing.path), {
      method: outgoing.method,
      dispatcher: agentFor(target.config),
      signal,
      headers: { ...outgoing.headers, ...headersOf(target, outgoing, idempotencyKey) },
      body: outgoing.body,
    })
    const text = await boundedText(response.body, answerBytes)
    if (text === null) return { is: 'too-large' }
    const wait = Number(response.headers['retry-after'])
    return {
      is: 'answer',
      status: response.statusCode,
      text,
      retryAfter: Number.isFinite(wait) && wait > 0 ? wait : null,
    }
  } catch {
    return { is: 'unsent', problem: signal.aborted ? 'answer-too-late' : 'provider-failed' }
  }
}

function addressOf({ connector, baseUrl, secret }: Called, path: string): URL {
  const url = new URL(path, baseUrl)
  // A template may lead to another path of the service, never to another service.
  if (url.origin !== new URL(baseUrl).origin) throw new Error('the path leads away from the service')
  if (connector.key.in === 'query') url.searchParams.set(connector.key.name, keyedValue(connector.key, secret))
  return url
}

function headersOf({ connector, secret }: Called, { body }: OutgoingRequest, idempotencyKey: string | null) {
  return {
    ...(body === null ? {} : { 'content-type': 'application/json' }),
    ...(idempotencyKey === null ? {} : { 'idempotency-key': idempotencyKey }),
    ...(connector.key.in === 'header' ? { [connector.key.name]: keyedValue(connector.key, secret) } : {}),
  }
}

/** The text of an answer; null where it is longer than is taken, however much of it there is. */
async function boundedText(body: AsyncIterable<Buffer> & { destroy(): void }, most: number): Promise<string | null> {
  const parts: Buffer[] = []
  let size = 0
  for await (const part of body) {
    size += part.length
    if (size > most) {
      body.destroy()
      return null
    }
    parts.push(part)
  }
  return Buffer.concat(parts).toString('utf8')
}
