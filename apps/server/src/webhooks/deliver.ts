import { sql } from 'drizzle-orm'
import { Webhook } from 'standardwebhooks'
import { type Agent, request } from 'undici'
import type { Config } from '../config'
import { checkAddress, outgoingAgent } from '../connections/outgoing'
import { unsealWithAny } from '../connections/seal'
import type { Db } from '../db/database'
import { kept, num, type RowOf, readRows, text, when } from '../db/readRows'
import { byItself } from '../jobs/byItself'
import type { Services } from '../services'

/** After how many seconds a message that was not taken is sent again: within a day, then it has failed. */
const WAITS = [5, 30, 120, 600, 1800, 3600, 7200, 14_400, 21_600, 36_000] as const
/** Messages that are sent to one webhook at the same time. */
const AT_ONCE = 8
/** So long a program may take to answer, in milliseconds. */
const PATIENCE = 10_000
const LONGEST_ANSWER = 500
/** How long a message is another process's that has taken it up, in seconds: longer than it can take. */
const LEASE = 30

const DUE = {
  id: text,
  event: text,
  payload: kept<Record<string, unknown>>,
  tries: num,
  madeAt: when,
  url: text,
  secret: text,
}
type Due = RowOf<typeof DUE>

/** Webhooks that are being told something, in this process. */
const underWay = new WeakMap<Db, Set<string>>()

/** Sends what is due to webhooks, to each by itself: one that does not answer keeps no other waiting. */
export async function deliverDue(services: Services): Promise<void> {
  const { db } = services
  const telling = underWay.get(db) ?? new Set()
  underWay.set(db, telling)
  const due = await readRows(db, { id: text })`
    select id from webhooks w where is_on and exists (
      select 1 from webhook_messages m where m.webhook_id = w.id and m.state = 'waiting' and m.next_at <= now())`
  for (const { id } of due) {
    if (telling.has(id)) continue
    telling.add(id)
    void byItself(services, () => deliverTo(services, id)).finally(() => telling.delete(id))
  }
}

/** Sends everything that is due to one webhook: signed, a few at once, each again later where it was not taken. */
async function deliverTo(services: Services, webhookId: string): Promise<void> {
  for (;;) {
    const due = await takeDue(services.db, webhookId)
    if (due.length === 0) return
    await Promise.all(due.map((message) => deliver(services, message)))
  }
}

/** Takes up a few messages to a webhook, those that wait longest first. */
async function takeDue(db: Db, webhookId: string): Promise<readonly Due[]> {
  return readRows(db, DUE)`
    with due as (
      select m.id from webhook_messages m join webhooks w on w.id = m.webhook_id and w.is_on
      where m.webhook_id = ${webhookId} and m.state = 'waiting' and m.next_at <= now()
      order by m.next_at limit ${AT_ONCE} for update of m skip locked)
    update webhook_messages m set next_at = now() + make_interval(secs => ${LEASE}) from due, webhooks w
    where m.id = due.id and w.id = m.webhook_id
    returning m.id, m.event, m.payload, m.tries, m.made_at, w.url, w.secret`
}

async function deliver(services: Services, message: Due): Promise<void> {
  const sent = await sendSigned(services.config, message)
  const tries = message.tries + 1
  const wait = WAITS[tries - 1]
  const state = sent.isTaken ? 'sent' : wait === undefined ? 'failed' : 'waiting'
  await services.db.execute(sql`
    update webhook_messages set tries = ${tries}, state = ${state}, status = ${sent.status}, problem = ${sent.problem},
      answer = ${sent.answer}, sent_at = ${sent.isTaken ? sql`now()` : sql`null`},
      next_at = now() + make_interval(secs => ${wait ?? 0})
    where id = ${message.id}`)
}

interface SentMessage {
  readonly isTaken: boolean
  readonly status: number | null
  readonly problem: string | null
  readonly answer: string
}

const agents = new WeakMap<Config, Agent>()

/** One try, signed as Standard Webhooks are; taken where the answer is of the 200s. Redirects are not followed. */
async function sendSigned(config: Config, { id, event, payload, madeAt, url, secret }: Due): Promise<SentMessage> {
  const opened = unsealWithAny(secret, config.sealingSecrets)
  if (opened === null) return { isTaken: false, status: null, problem: 'secret-lost', answer: '' }
  const body = JSON.stringify({ type: event, timestamp: madeAt.toISOString(), data: payload })
  const at = new Date()
  const agent = agents.get(config) ?? outgoingAgent(config)
  agents.set(config, agent)
  try {
    await checkAddress(url, config)
    const response = await request(url, {
      method: 'POST',
      dispatcher: agent,
      signal: AbortSignal.timeout(PATIENCE),
      headers: {
        'content-type': 'application/json',
        'user-agent': 'UpperField-Webhooks/1.0',
        'webhook-id': id,
        'webhook-timestamp': String(Math.floor(at.getTime() / 1000)),
        'webhook-signature': new Webhook(opened.text).sign(id, at, body),
      },
      body,
    })
    const answer = await shortText(response.body)
    const isTaken = response.statusCode >= 200 && response.statusCode < 300
    return { isTaken, status: response.statusCode, problem: isTaken ? null : 'not-taken', answer }
  } catch (error) {
    const reason = (error as { reason?: string }).reason
    const problem = reason ?? ((error as Error).name === 'TimeoutError' ? 'too-slow' : 'not-reached')
    return { isTaken: false, status: null, problem, answer: '' }
  }
}

async function shortText(body: AsyncIterable<Buffer> & { destroy(): void; on(event: 'error', f: () => void): void }) {
  let text = ''
  for await (const part of body) {
    text += part.toString('utf8')
    if (text.length > LONGEST_ANSWER) {
      body.on('error', () => {})
      body.destroy()
      break
    }
  }
  return text.slice(0, LONGEST_ANSWER).replaceAll('\0', '')
}
