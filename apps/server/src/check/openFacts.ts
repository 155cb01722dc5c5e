import { type AnswerItem, type Connector, isFreeAnswer, priceOf, type Way } from '@upper-field/core/connect'
import { type Asked, openConnection } from '../connections/client'
import { connectorGiving } from '../connections/connectors'
import type { Db } from '../db/database'
import { JobProblem } from '../jobs/jobProblem'
import type { Services } from '../services'
import { LINES, type Subject } from './subjects'

/** An answer, and what the service charges for it. */
export interface FactAnswer<A> {
  readonly told: A
  readonly cost: number
}

/** What became of an order: the answers that can be read, once it is ready. */
export type OrderState<A> =
  | { readonly status: 'working'; readonly id: string }
  | { readonly status: 'ready'; readonly answers: readonly FactAnswer<A>[] }

/** Who tells, and the most it charges for an answer. */
export interface FactTerms {
  readonly id: string
  readonly price: number
  /** Whose numbers it knows of; null for everybody's. */
  readonly countries: readonly string[] | null
}

const termsOf = (service: Connector): FactTerms => ({
  id: service.id,
  price: priceOf(service),
  countries: service.countries,
})

/** Who tells of something, and for how much; null where nobody is connected. */
export async function factTerms<A>(db: Db, { gives }: Subject<A>): Promise<FactTerms | null> {
  const service = await connectorGiving(db, gives)
  return service && termsOf(service)
}

export const registerTerms = (db: Db): Promise<FactTerms | null> => factTerms(db, LINES)

export interface FactService<A> {
  readonly terms: FactTerms
  /** Most that one order can be about. */
  readonly most: number
  /** Calls that it takes at a time. */
  readonly atOnce: number
  /** Asks about one; null where the answer comes later: asked again with the same key, it is there. */
  askOne(subject: string, idempotencyKey: string): Promise<FactAnswer<A> | null>
  /** Orders answers about many. The same key again gives the same order, which is paid once. */
  order(subjects: readonly string[], idempotencyKey: string): Promise<OrderState<A>>
  /** Looks after an order. Throws a job problem where the service cannot be asked now. */
  fetch(orderId: string): Promise<OrderState<A>>
}

/** Opens whoever tells of this. Throws a job problem where nobody is connected. */
export async function openFacts<A>(services: Services, subject: Subject<A>): Promise<FactService<A>> {
  const found = await connectorGiving(services.db, subject.gives)
  if (!found) throw new JobProblem('no-connection')
  const client = await openConnection(services, found.id)
  const { many, charge } = found
  const { names } = subject
  const price = priceOf(found)
  /** Answers are read one by one: an odd one among many concerns its own subject alone. */
  const answersIn = (items: readonly AnswerItem[]): FactAnswer<A>[] =>
    items.flatMap((item) => {
      const told = subject.read(item)
      return told === null ? [] : [{ told, cost: isFreeAnswer(charge, item) ? 0 : price }]
    })
  const stateOf = (asked: Asked): OrderState<A> =>
    asked.status === 'later'
      ? { status: 'working', id: asked.receipt ?? '' }
      : { status: 'ready', answers: answersIn(asked.items) }
  return {
    terms: termsOf(found),
    most: many?.most ?? 1,
    atOnce: found.limit.atOnce,
    askOne: async (one, key) => {
      const asked = await client.ask({ [names.one]: one }, key)
      if (asked.status === 'later') return null
      const mine = answersIn(asked.items).find(({ told }) => subject.subjectOf(told) === one)
      if (!mine) throw new JobProblem('odd-answer')
      return mine
    },
    order: async (all, key) => {
      if (many) return stateOf(await client.askMany({ [names.many]: all }, key))
      const [one = ''] = all
      return stateOf(await client.ask({ [names.one]: one }, key))
    },
    fetch: async (orderId) => stateOf(await client.look(many ?? (found.one satisfies Way), orderId)),
  }
}
