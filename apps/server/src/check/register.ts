import { LINE_STATUSES } from '@upper-field/core/check'
import { REGISTER } from '@upper-field/core/fill'
import { LINE_TYPES } from '@upper-field/core/phone'
import { z } from 'zod'
import { openConnection } from '../connections/client'
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

/** Answers are read one by one: an odd one among many concerns its own number alone. */
const Order = z.object({ id: z.string().min(1), state: z.enum(['working', 'ready']), answers: z.array(z.unknown()) })

/** What became of an order: the answers that can be read, once it is ready. */
export type OrderState =
  | { readonly status: 'working'; readonly id: string }
  | { readonly status: 'ready'; readonly id: string; readonly answers: readonly RegisterAnswer[] }

/** An answer of "unknown" tells nothing and costs nothing. */
export const costOfRegister = (answer: RegisterAnswer): number =>
  answer.lineType === 'unknown' && answer.status === 'unknown' ? 0 : REGISTER.price

export interface Register {
  askOne(number: string, idempotencyKey: string): Promise<RegisterAnswer>
  /** Orders answers about many numbers. The same key again gives the same order, which is paid once. */
  order(numbers: readonly string[], idempotencyKey: string): Promise<OrderState>
  /** Looks after an order. Throws a job problem where the register cannot be asked now. */
  fetch(orderId: string): Promise<OrderState>
}

export async function openRegister(services: Services): Promise<Register> {
  const client = await openConnection(services, REGISTER.id)
  return {
    askOne: (number, idempotencyKey) =>
      client.call(RegisterAnswer, { method: 'POST', path: '/pellow/v1/checks', body: { number }, idempotencyKey }),
    order: async (numbers, idempotencyKey) =>
      stateOf(await client.call(Order, { method: 'POST', path: '/pellow/v1/bulk', body: { numbers }, idempotencyKey })),
    fetch: async (orderId) =>
      stateOf(await client.call(Order, { method: 'GET', path: `/pellow/v1/bulk/${encodeURIComponent(orderId)}` })),
  }
}

function stateOf({ id, state, answers }: z.infer<typeof Order>): OrderState {
  if (state === 'working') return { status: 'working', id }
  return { status: 'ready', id, answers: answers.flatMap((one) => RegisterAnswer.safeParse(one).data ?? []) }
}
