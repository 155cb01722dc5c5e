import { type AnswerItem, readItems, readPrice } from '@upper-field/core/connect'
import { and, eq } from 'drizzle-orm'
import type { Context, Hono } from 'hono'
import PQueue from 'p-queue'
import { Webhook } from 'standardwebhooks'
import { z } from 'zod'
import { parse, secretOf } from '../connections/client'
import { findConnector } from '../connections/connectors'
import { transaction } from '../db/database'
import { attempts } from '../db/schema'
import { readBody } from '../http/body'
import { notFound, Problem } from '../http/problem'
import { enqueue } from '../jobs/store'
import { withoutNul } from '../nul'
import type { Services } from '../services'
import { isSignature } from './askProvider'

/** Where a provider brings a late answer. It may come twice or too late: only the first in time counts. */
export function callbackRoutes(app: Hono, services: Services): void {
  app.post('/api/v1/callbacks/:attemptId/:signature', async (c) => {
    const { attemptId, signature } = c.req.param()
    if (!z.uuid().safeParse(attemptId).success || !isSignature(services.config.sessionSecrets, attemptId, signature))
      throw notFound('attempt')
    const { bodyBytes, bodySeconds } = services.config.limits
    const text = await readBody(c, { bytes: bodyBytes, seconds: bodySeconds })
    await inLine.add(() => takeAnswer(c, services, attemptId, text))
    return c.json({})
  })
}

/** Answers come in bursts: some at a time, so that whoever looks at the application need not wait for all of them. */
const inLine = new PQueue({ concurrency: 3 })

async function takeAnswer(c: Context, services: Services, attemptId: string, text: string): Promise<void> {
  const [attempt] = await services.db.select().from(attempts).where(eq(attempts.id, attemptId))
  if (!attempt) throw notFound('attempt')
  const connector = await findConnector(services.db, attempt.provider)
  if (connector?.one.answers.how !== 'callback') throw notFound('attempt')
  if (connector.one.answers.isSigned) await refuseUnsigned(c, services, attempt.provider, text)
  const json = parse(withoutNul(text))
  const read = readItems(connector, connector.one, json)
  if (read.status === 'odd') {
    // Told where the attempt ends: the provider did answer, but nothing that can be read.
    await noteOdd(services, attemptId)
    throw new Problem(400, 'not-understood', 'Nothing stands where the items of an answer should.')
  }
  await keepAnswer(services, attemptId, read.items, readPrice(connector, json))
}

/** Signatures as Standard Webhooks write them, with the key both sides know; older than five minutes they do not count. */
async function refuseUnsigned(c: Context, services: Services, provider: string, text: string): Promise<void> {
  const secret = await secretOf(services, provider)
  const headers = Object.fromEntries(
    ['webhook-id', 'webhook-timestamp', 'webhook-signature'].map((name) => [name, c.req.header(name) ?? '']),
  )
  try {
    new Webhook(Buffer.from(secret ?? '').toString('base64')).verify(text, headers)
  } catch (cause) {
    // Signed, but no JSON: told as any other answer that cannot be read.
    if (cause instanceof SyntaxError) return
    throw new Problem(401, 'bad-signature', 'This answer is not signed with the key of the service, or too long ago.', {
      cause,
    })
  }
}

const noteOdd = (services: Services, attemptId: string) =>
  services.db
    .update(attempts)
    .set({ reason: 'odd-answer' })
    .where(and(eq(attempts.id, attemptId), eq(attempts.state, 'waiting')))

const keepAnswer = (
  services: Services,
  attemptId: string,
  items: readonly AnswerItem[],
  toldPrice: number | null,
): Promise<void> =>
  transaction(services.pool, async (tx) => {
    const [attempt] = await tx.select().from(attempts).where(eq(attempts.id, attemptId)).for('update')
    if (attempt?.state !== 'waiting' || attempt.answer) return
    await tx
      .update(attempts)
      .set({ answer: [...items], toldPrice, answeredAt: new Date(services.now()) })
      .where(eq(attempts.id, attemptId))
    await enqueue(tx, attempt.jobId)
  })
