import { randomBytes } from 'node:crypto'
import type { WebhookLine, WebhookMessage } from '@upper-field/contract'
import { desc, eq, sql } from 'drizzle-orm'
import type { Hono } from 'hono'
import { checkAddress, OutgoingRefused } from '../connections/outgoing'
import { seal } from '../connections/seal'
import { bool, listOf, num, orNull, readRows, text, when, word } from '../db/readRows'
import { webhookMessages, webhooks } from '../db/schema'
import { notFound, Problem } from '../http/problem'
import { serve } from '../http/serve'
import type { CallServices } from '../services'

/** Messages that are shown. */
const SHOWN = 50
const REFUSED = {
  scheme: 'A webhook is reached by http or https.',
  'plain-http': 'A webhook is reached with encryption: its address begins with https.',
  'private-address': 'This leads to a private address, which is not called unless that is configured.',
  'no-such-name': 'This name does not resolve.',
} as const

export function webhookRoutes(app: Hono, services: CallServices): void {
  const { db, config } = services

  serve(app, services, 'readWebhooks', () => describe())

  serve(app, services, 'makeWebhook', async ({ body, me }) => {
    await checkAddress(body.url, config).catch((error: unknown) => {
      throw error instanceof OutgoingRefused ? new Problem(422, 'address-refused', REFUSED[error.reason]) : error
    })
    const secret = `whsec_${randomBytes(32).toString('base64')}`
    const [made] = await db
      .insert(webhooks)
      .values({ ...body, secret: seal(secret, config.sealingSecrets[0]), madeBy: me.name })
      .returning({ id: webhooks.id })
    const [webhook] = await describe(made?.id)
    if (!webhook) throw new Error('insert returned nothing')
    return { webhook, secret }
  })

  serve(app, services, 'changeWebhook', async ({ params, body }) => {
    await db.update(webhooks).set(body).where(eq(webhooks.id, params.webhookId))
    const [webhook] = await describe(params.webhookId)
    if (!webhook) throw notFound('webhook')
    return webhook
  })

  serve(app, services, 'removeWebhook', async ({ params }) => {
    await db.delete(webhookMessages).where(eq(webhookMessages.webhookId, params.webhookId))
    const removed = await db.delete(webhooks).where(eq(webhooks.id, params.webhookId)).returning()
    if (removed.length === 0) throw notFound('webhook')
    return {}
  })

  serve(app, services, 'readWebhookMessages', async ({ params }) => {
    const rows = await db
      .select()
      .from(webhookMessages)
      .where(eq(webhookMessages.webhookId, params.webhookId))
      .orderBy(desc(webhookMessages.madeAt))
      .limit(SHOWN)
    return rows.map(asMessage)
  })

  serve(app, services, 'sendWebhookAgain', async ({ params }) => {
    const [message] = await db
      .update(webhookMessages)
      .set({ state: 'waiting', tries: 0, nextAt: new Date(services.now()) })
      .where(eq(webhookMessages.id, params.messageId))
      .returning()
    if (!message) throw notFound('message')
    return asMessage(message)
  })

  async function describe(only?: string): Promise<WebhookLine[]> {
    const lines = await readRows(db, LINE)`
      select w.id, w.url, w.events, w.list_id, w.is_on, w.made_by, w.made_at,
        count(m.id) filter (where m.state = 'waiting') as waiting,
        count(m.id) filter (where m.state = 'failed') as failed, max(m.sent_at) as last_sent_at
      from webhooks w left join webhook_messages m on m.webhook_id = w.id
      ${only === undefined ? sql`` : sql`where w.id = ${only}`} group by w.id order by w.made_at`
    return lines.map((line) => ({
      ...line,
      madeAt: line.madeAt.toISOString(),
      lastSentAt: line.lastSentAt?.toISOString() ?? null,
    }))
  }
}

const LINE = {
  id: text,
  url: text,
  events: listOf(word<WebhookLine['events'][number]>),
  listId: orNull(text),
  isOn: bool,
  madeBy: text,
  madeAt: when,
  waiting: num,
  failed: num,
  lastSentAt: orNull(when),
}

const asMessage = (row: typeof webhookMessages.$inferSelect): WebhookMessage => ({
  id: row.id,
  event: row.event as WebhookMessage['event'],
  state: row.state as WebhookMessage['state'],
  tries: row.tries,
  status: row.status,
  problem: row.problem,
  answer: row.answer,
  payload: row.payload,
  madeAt: row.madeAt.toISOString(),
  nextAt: row.nextAt.toISOString(),
  sentAt: row.sentAt?.toISOString() ?? null,
})
