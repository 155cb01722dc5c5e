import {
  type AnswerItem,
  buildRequest,
  type Call,
  type Connector,
  MOST_ITEMS,
  type RequestValues,
  readItems,
  readPrice,
  readReceipt,
  readState,
  readStatement,
  type StatementDay,
  type Way,
} from '@upper-field/core/connect'
import { eq } from 'drizzle-orm'
import { connections } from '../db/schema'
import { JobProblem } from '../jobs/jobProblem'
import { withoutNul } from '../nul'
import type { Services } from '../services'
import { connectorOfRow } from './connectors'
import { checkAddress } from './outgoing'
import { unsealWithAny } from './seal'
import { type Sent, send, type Target } from './send'

/** What was wrong with one answer of a provider: a code. It concerns that one question, and no other. */
export const ANSWER_PROBLEMS = [
  'provider-failed',
  'odd-answer',
  'answer-too-large',
  'answer-too-late',
  'question-refused',
] as const
export type AnswerProblem = (typeof ANSWER_PROBLEMS)[number]

export const answerProblemOf = (error: unknown): AnswerProblem | null =>
  error instanceof JobProblem ? (ANSWER_PROBLEMS.find((code) => code === error.code) ?? null) : null

export const TRIES = 4
/** A provider that asks for a longer wait than this is given up for this question, in seconds. */
const LONGEST_WAIT = 30

/** What came of a question: its answer, or that it comes later, with the receipt it is looked for by. */
export type Asked =
  | {
      readonly status: 'answered'
      readonly items: readonly AnswerItem[]
      /** What one charge costs by the answer's own word, in millionths of a euro; null where it tells nothing of it. */
      readonly price: number | null
    }
  | { readonly status: 'later'; readonly receipt: string | null }

/** Calls one service as its connector says. A busy or failing one is tried again with the waits it asks for. */
export interface Connection {
  readonly connector: Connector
  /**
   * Asks about one contact or number. The key makes the call safe to repeat: it is answered once and charged once.
   * Throws a job problem; one of `ANSWER_PROBLEMS` where only this answer is off.
   */
  ask(values: RequestValues, idempotencyKey: string): Promise<Asked>
  /** Asks about many at once, where the service takes that: `connector.many` says how many. */
  askMany(values: RequestValues, idempotencyKey: string): Promise<Asked>
  /** Looks for an answer that was to come later. */
  look(way: Way, receipt: string): Promise<Asked>
  /** What the service has charged in a month (YYYY-MM) by its own books; null where it does not tell. */
  statement(month: string): Promise<readonly StatementDay[] | null>
  /** Tells that a value was taken. */
  report(values: RequestValues, idempotencyKey: string): Promise<void>
}

/** Opens the connection to a service. Throws a job problem where none is configured. */
export const openConnection = async (services: Services, id: string): Promise<Connection> =>
  connectionTo(await openTarget(services, id))

/** Where a service is and with which key it is called. Throws a job problem where none is configured. */
export async function openTarget({ db, config }: Services, id: string): Promise<Target> {
  const [row] = await db.select().from(connections).where(eq(connections.provider, id))
  const connector = row ? connectorOfRow(row) : null
  if (!row?.sealedKey || !connector) throw new JobProblem('no-connection')
  const opened = unsealWithAny(row.sealedKey, config.sealingSecrets)
  if (!opened) throw new JobProblem('key-unreadable')
  await checkAddress(row.baseUrl, config).catch((cause) => {
    throw new JobProblem('address-refused', { cause })
  })
  return { connector, baseUrl: row.baseUrl, secret: opened.text, config }
}

/** The key of a service, to know what it has signed; null where there is none. */
export async function secretOf({ db, config }: Services, id: string): Promise<string | null> {
  const [row] = await db.select().from(connections).where(eq(connections.provider, id))
  return row?.sealedKey ? (unsealWithAny(row.sealedKey, config.sealingSecrets)?.text ?? null) : null
}

export function connectionTo(target: Target): Connection {
  const { connector } = target
  return {
    connector,
    ask: (values, key) => askBy(target, connector.one, values, key, MOST_ITEMS),
    askMany: (values, key) => {
      if (!connector.many) throw new Error(`${connector.id} is not asked about many`)
      return askBy(target, connector.many, values, key, connector.many.most)
    },
    look: (way, receipt) => lookBy(target, way, receipt),
    statement: async (month) => {
      const { statement } = connector
      if (!statement) return null
      const told = await callWithRetries(target, statement.call, { month }, null)
      const days = told === NOTHING ? [] : readStatement(statement, parse(told))
      if (days === null) throw new JobProblem('odd-answer')
      return days
    },
    report: async (values, key) => {
      if (connector.report) await callWithRetries(target, connector.report, values, key)
    },
  }
}

async function askBy(target: Target, way: Way, values: RequestValues, key: string, most: number): Promise<Asked> {
  const { answers } = way
  const told = await callWithRetries(target, way.call, values, key)
  if (answers.how === 'at-once') return told === NOTHING ? NO_ITEMS : itemsOf(target, way, told, most)
  if (answers.how === 'callback') return { status: 'later', receipt: null }
  // What is ready at once need not be looked for.
  if (told !== NOTHING && readState(answers, parse(told)).status === 'ready') return itemsOf(target, way, told, most)
  const receipt = told === NOTHING ? null : readReceipt(answers, parse(told))
  if (receipt === null) throw new JobProblem('odd-answer')
  return { status: 'later', receipt }
}

async function lookBy(target: Target, way: Way, receipt: string): Promise<Asked> {
  const { answers } = way
  if (answers.how !== 'polling') return { status: 'later', receipt }
  const told = await callWithRetries(target, answers.look, { receipt }, null)
  if (told === NOTHING) return NO_ITEMS
  const state = readState(answers, parse(told))
  if (state.status === 'odd') throw new JobProblem('odd-answer')
  return state.status === 'working' ? { status: 'later', receipt } : itemsOf(target, way, told, MOST_OF_MANY)
}

/** Most items of an answer about many. */
const MOST_OF_MANY = 1000

function itemsOf({ connector }: Target, way: Way, text: string, most: number): Asked {
  const json = parse(text)
  const read = readItems(connector, way, json, most)
  if (read.status === 'odd') throw new JobProblem('odd-answer')
  return { status: 'answered', items: read.items, price: readPrice(connector, json) }
}

export const NOTHING = Symbol('nothing')
const NO_ITEMS: Asked = { status: 'answered', items: [], price: null }

/** Calls until an answer comes that can be read, or that there is nothing. Throws a job problem. */
export async function callWithRetries(
  target: Target,
  call: Call,
  values: RequestValues,
  idempotencyKey: string | null,
): Promise<string | typeof NOTHING> {
  const request = buildRequest(call, values)
  for (let attempt = 1; ; attempt++) {
    const sent = await send(target, request, idempotencyKey)
    const meant = meaningOf(target.connector, sent)
    if (meant.is === 'answer') return meant.text
    if (meant.is === 'nothing') return NOTHING
    if (meant.is === 'final' || attempt >= TRIES) throw new JobProblem(meant.problem)
    await beforeTry(attempt, meant.retryAfter)
  }
}

/** Waits before a call is tried again. @param retryAfter the wait that was asked for, in seconds */
export const beforeTry = (attempt: number, retryAfter: number | null): Promise<void> =>
  sleep(Math.min(retryAfter ?? 0.2 * 2 ** attempt, LONGEST_WAIT) * 1000)

type Meaning =
  | { readonly is: 'answer'; readonly text: string }
  | { readonly is: 'nothing' }
  | { readonly is: 'again'; readonly problem: AnswerProblem; readonly retryAfter: number | null }
  | { readonly is: 'final'; readonly problem: AnswerProblem | 'key-refused' }

/** What an answer of a service means, by its status and what the connector says of it. */
export function meaningOf({ statuses }: Pick<Connector, 'statuses'>, sent: Sent): Meaning {
  if (sent.is === 'unsent') return { is: 'again', problem: sent.problem, retryAfter: null }
  if (sent.is === 'too-large') return { is: 'final', problem: 'answer-too-large' }
  const { status, text, retryAfter } = sent
  if (status < 300) return { is: 'answer', text }
  if (status === 401 || status === 403) return { is: 'final', problem: 'key-refused' }
  if (statuses.notFound.includes(status)) return { is: 'nothing' }
  if (statuses.tryLater.includes(status)) return { is: 'again', problem: 'provider-failed', retryAfter }
  return { is: 'final', problem: statuses.ourFault.includes(status) ? 'question-refused' : 'provider-failed' }
}

/** The JSON of an answer; undefined where it is none. */
export function parse(text: string): unknown {
  try {
    return JSON.parse(withoutNul(text))
  } catch {
    return undefined
  }
}

export const sleep = (milliseconds: number): Promise<void> =>
  new Promise((resolve) => setTimeout(resolve, milliseconds))
