import { LINE_STATUSES } from '@upper-field/core/check'
import { type AnswerItem, priceOf, type Way } from '@upper-field/core/connect'
import { LINE_TYPES } from '@upper-field/core/phone'
import { z } from 'zod'
import { type Asked, openConnection } from '../connections/client'
import { findRegister } from '../connections/connectors'
import type { Db } from '../db/database'
import { JobProblem } from '../jobs/runner'
import type { Services } from '../services'

const RegisterAnswer = z.object({
  number: z.string(),
  lineType: z.enum(LINE_TYPES),
  status: z.enum(LINE_STATUSES),
  carrier: z.string().nullable().default(null),
  ported: z.boolean().nullable().default(null),
  timeZone: z.string().nullable().default(null),
  lastSeen: z.string().nullable().default(null),
})
export type RegisterAnswer = z.infer<typeof RegisterAnswer>

/** What became of an order: the answers that can be read, once it is ready. */
export type OrderState =
  | { readonly status: 'working'; readonly id: string }
  | { readonly status: 'ready'; readonly answers: readonly RegisterAnswer[] }

/** The register as it charges. */
export interface RegisterTerms {
  readonly id: string
  readonly price: number
}

/** What an answer costs: "unknown" tells nothing and is free. */
export const costOfRegister = (answer: RegisterAnswer, { price }: RegisterTerms): number =>
  answer.lineType === 'unknown' && answer.status === 'unknown' ? 0 : price

/** Who tells of lines, and for how much; null where nobody is connected. */
export async function registerTerms(db: Db): Promise<RegisterTerms | null> {
  const register = await findRegister(db)
  return register && { id: register.id, price: priceOf(register) }
}

export interface Register {
  readonly terms: RegisterTerms
  /** Most numbers of one order. */
  readonly most: number
  askOne(number: string, idempotencyKey: string): Promise<RegisterAnswer>
  /** Orders answers about many numbers. The same key again gives the same order, which is paid once. */
  order(numbers: readonly string[], idempotencyKey: string): Promise<OrderState>
  /** Looks after an order. Throws a job problem where the register cannot be asked now. */
  fetch(orderId: string): Promise<OrderState>
}

/** Opens the register. Throws a job problem where none is connected. */
export async function openRegister(services: Services): Promise<Register> {
  const found = await findRegister(services.db)
  if (!found) throw new JobProblem('no-connection')
  const client = await openConnection(services, found.id)
  const many = found.many
  return {
    terms: { id: found.id, price: priceOf(found) },
    most: many?.most ?? 1,
    askOne: async (number, key) => {
      const asked = await client.ask({ number }, key)
      const answers = asked.status === 'answered' ? answersIn(asked.items) : []
      const mine = answers.find((one) => one.number === number)
      if (!mine) throw new JobProblem('odd-answer')
      return mine
    },
    order: async (numbers, key) => {
      if (many) return stateOf(await client.askMany({ numbers }, key))
      const [number = ''] = numbers
      return stateOf(await client.ask({ number }, key))
    },
    fetch: async (orderId) => stateOf(await client.look(many ?? (found.one satisfies Way), orderId)),
  }
}

const stateOf = (asked: Asked): OrderState =>
  asked.status === 'later'
    ? { status: 'working', id: asked.receipt ?? '' }
    : { status: 'ready', answers: answersIn(asked.items) }

/** Answers are read one by one: an odd one among many concerns its own number alone. */
const answersIn = (items: readonly AnswerItem[]): RegisterAnswer[] =>
  items.flatMap((item) => RegisterAnswer.safeParse(item).data ?? [])
