import { eq } from 'drizzle-orm'
import { type Agent, request } from 'undici'
import type { z } from 'zod'
import type { Config } from '../config'
import { connections } from '../db/schema'
import { JobProblem } from '../jobs/runner'
import { withoutNul } from '../nul'
import type { Services } from '../services'
import { checkAddress, outgoingAgent } from './outgoing'
import { unsealWithAny } from './seal'

export interface ProviderCall {
  readonly method: 'GET' | 'POST'
  readonly path: string
  readonly body?: unknown
  /** Makes the call safe to repeat: the provider answers it once and charges it once. */
  readonly idempotencyKey?: string
}

/** What was wrong with one answer of a provider: a code. It concerns that one question, and no other. */
export const ANSWER_PROBLEMS = ['provider-failed', 'odd-answer', 'answer-too-large', 'answer-too-late'] as const
export type AnswerProblem = (typeof ANSWER_PROBLEMS)[number]

export const answerProblemOf = (error: unknown): AnswerProblem | null =>
  error instanceof JobProblem ? (ANSWER_PROBLEMS.find((code) => code === error.code) ?? null) : null

const TRIES = 4
/** A provider that asks for a longer wait than this is given up for this question, in seconds. */
const LONGEST_WAIT = 30

/** Calls one configured provider. A busy or failing one is tried again with the waits it asks for. */
export interface ProviderClient {
  /** Throws a job problem; one of `ANSWER_PROBLEMS` where only this answer is off. */
  call<T>(shape: z.ZodType<T>, call: ProviderCall): Promise<T>
}

/** Opens the connection to a provider. Throws a job problem where none is configured. */
export async function openConnection(services: Services, provider: string): Promise<ProviderClient> {
  const { db, config } = services
  const [connection] = await db.select().from(connections).where(eq(connections.provider, provider))
  if (!connection?.sealedKey) throw new JobProblem('no-connection')
  const opened = unsealWithAny(connection.sealedKey, config.sealingSecrets)
  if (!opened) throw new JobProblem('key-unreadable')
  await checkAddress(connection.baseUrl, config).catch((cause) => {
    throw new JobProblem('address-refused', { cause })
  })
  const target: Target = { baseUrl: connection.baseUrl, key: opened.text, config, agent: agentFor(config) }
  return { call: (shape, call) => callWithRetries(target, shape, call) }
}

interface Target {
  readonly baseUrl: string
  readonly key: string
  readonly config: Config
  readonly agent: Agent
}

const agents = new WeakMap<Config, Agent>()

function agentFor(config: Config): Agent {
  const agent = agents.get(config) ?? outgoingAgent(config)
  agents.set(config, agent)
  return agent
}

async function callWithRetries<T>(target: Target, shape: z.ZodType<T>, call: ProviderCall): Promise<T> {
  for (let attempt = 1; ; attempt++) {
    const answer = await callOnce(target, call)
    if (answer.status === 'answered') return read(shape, answer.text)
    if (answer.status === 'given-up') throw new JobProblem(answer.problem)
    if (attempt >= TRIES) throw new JobProblem(answer.problem)
    await sleep(Math.min(answer.retryAfter ?? 0.2 * 2 ** attempt, LONGEST_WAIT) * 1000)
  }
}

function read<T>(shape: z.ZodType<T>, text: string): T {
  const parsed = shape.safeParse(parse(text))
  if (!parsed.success) throw new JobProblem('odd-answer')
  return parsed.data
}

function parse(text: string): unknown {
  try {
    return JSON.parse(withoutNul(text))
  } catch {
    return undefined
  }
}

type Outcome =
  | { readonly status: 'answered'; readonly text: string }
  | { readonly status: 'again'; readonly problem: AnswerProblem; readonly retryAfter: number | null }
  | { readonly status: 'given-up'; readonly problem: AnswerProblem | 'key-refused' }

async function callOnce(target: Target, { method, path, body, idempotencyKey }: ProviderCall): Promise<Outcome> {
  const { answerBytes, answerSeconds } = target.config.limits
  const signal = AbortSignal.timeout(answerSeconds * 1000)
  try {
    const response = await request(new URL(path, target.baseUrl), {
      method,
      dispatcher: target.agent,
      signal,
      headers: {
        authorization: `Bearer ${target.key}`,
        ...(body === undefined ? {} : { 'content-type': 'application/json' }),
        ...(idempotencyKey ? { 'idempotency-key': idempotencyKey } : {}),
      },
      body: body === undefined ? null : JSON.stringify(body),
    })
    const { statusCode: status, headers } = response
    const text = await boundedText(response.body, answerBytes)
    if (text === null) return { status: 'given-up', problem: 'answer-too-large' }
    if (status < 300) return { status: 'answered', text }
    if (status === 401 || status === 403) return { status: 'given-up', problem: 'key-refused' }
    if (status !== 429 && status < 500) return { status: 'given-up', problem: 'provider-failed' }
    const wait = Number(headers['retry-after'])
    const retryAfter = Number.isFinite(wait) && wait > 0 ? wait : null
    return { status: 'again', problem: 'provider-failed', retryAfter }
  } catch {
    return { status: 'again', problem: signal.aborted ? 'answer-too-late' : 'provider-failed', retryAfter: null }
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

export const sleep = (milliseconds: number): Promise<void> =>
  new Promise((resolve) => setTimeout(resolve, milliseconds))
