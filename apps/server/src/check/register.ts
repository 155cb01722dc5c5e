import { LINE_STATUSES } from '@upper-field/core/check'
import { REGISTER } from '@upper-field/core/fill'
import { LINE_TYPES } from '@upper-field/core/phone'
import { z } from 'zod'
import { openConnection, type ProviderClient, sleep } from '../connections/client'
import type { Services } from '../services'

export const RegisterAnswer = z.object({
  number: z.string(),
  lineType: z.enum(LINE_TYPES),
  status: z.enum(LINE_STATUSES),
  carrier: z.string().nullable(),
  ported: z.boolean().nullable(),
  timeZone: z.string().nullable(),
  lastSeen: z.string().nullable(),
})
export type RegisterAnswer = z.infer<typeof RegisterAnswer>

const Bulk = z.object({ id: z.string(), state: z.enum(['working', 'ready']), answers: z.array(RegisterAnswer) })

/** An answer of "unknown" tells nothing and costs nothing. */
export const costOfRegister = (answer: RegisterAnswer): number =>
  answer.lineType === 'unknown' && answer.status === 'unknown' ? 0 : REGISTER.price

export interface Register {
  askOne(number: string, idempotencyKey: string): Promise<RegisterAnswer>
  /** Asks about many at once and waits until the register has them ready. */
  askMany(numbers: readonly string[], idempotencyKey: string): Promise<readonly RegisterAnswer[]>
}

const LOOKS = 200

export async function openRegister(services: Services): Promise<Register> {
  const client = await openConnection(services, REGISTER.id)
  return {
    askOne: (number, idempotencyKey) =>
      client.call(RegisterAnswer, { method: 'POST', path: '/pellow/v1/checks', body: { number }, idempotencyKey }),
    askMany: async (numbers, idempotencyKey) => {
      const bulk = await client.call(Bulk, {
        method: 'POST',
        path: '/pellow/v1/bulk',
        body: { numbers },
        idempotencyKey,
      })
      return waitFor(client, bulk)
    },
  }
}

async function waitFor(client: ProviderClient, bulk: z.infer<typeof Bulk>): Promise<readonly RegisterAnswer[]> {
  let seen = bulk
  for (let look = 0; seen.state !== 'ready' && look < LOOKS; look++) {
    await sleep(150)
    seen = await client.call(Bulk, { method: 'GET', path: `/pellow/v1/bulk/${encodeURIComponent(bulk.id)}` })
  }
  return seen.answers
}
