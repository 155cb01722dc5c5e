import { answerProblemOf } from '../connections/client'
import { inPages } from '../db/inPages'
import { firstFailed, succeeded } from '../jobs/settled'
import type { JobRow } from '../jobs/store'
import type { Services } from '../services'
import { sha256Hex } from '../sha256'
import { lotsOf } from './lots'
import type { FactService } from './openFacts'
import { noteOrder, type OpenOrder, subjectsToOrder } from './orders'
import { settleOrders, type Told } from './settle'
import type { Subject } from './subjects'

/** The check that asks, and whom. */
export interface Asking<A> {
  readonly services: Services
  readonly subject: Subject<A>
  readonly job: JobRow
  readonly service: FactService<A>
}

/** What became of some orders. */
export interface Asked {
  /** How many of them are settled. */
  readonly settled: number
  /** How many are still to be fetched. */
  readonly open: number
  /** The first of those that failed; undefined where none has. */
  readonly failed: PromiseRejectedResult | undefined
}

/**
 * Puts as many orders as the service may have open, of what nobody was asked about yet. What is told at once is settled;
 * what comes later is written down before it is waited for. One order that fails keeps no other from that.
 * @param open how many orders are open already
 */
export async function putOrders<A>(asking: Asking<A>, open: number): Promise<Asked> {
  const { services, subject, job, service } = asking
  const { orders, size } = lotsOf(service, job.total ?? 0)
  const free = Math.max(0, orders - open)
  const next = free > 0 ? await subjectsToOrder(services.db, subject, job.id, free * size) : []
  return settleWhatCame(
    asking,
    inPages(next, size).map(async (subjects) => {
      const order = await service.order(subjects, orderKey(job, subjects))
      if (order.status === 'ready') return { subjects, answers: order.answers }
      await noteOrder(services.db, subject, job.id, { orderId: order.id, subjects })
      return null
    }),
  )
}

/** Looks after orders and settles those that are ready. */
export async function fetchOrders<A>(asking: Asking<A>, orders: readonly OpenOrder[]): Promise<Asked> {
  return settleWhatCame(
    asking,
    orders.map(async ({ orderId, subjects }) => {
      const order = await asking.service.fetch(orderId).catch(orLater)
      return order?.status === 'ready' ? { subjects, answers: order.answers } : null
    }),
  )
}

async function settleWhatCame<A>(
  { services, subject, job, service }: Asking<A>,
  orders: readonly Promise<Told<A> | null>[],
): Promise<Asked> {
  const ended = await Promise.allSettled(orders)
  const came = succeeded(ended)
  const told = came.filter((one) => one !== null)
  await settleOrders(services, subject, job, service.terms, told)
  return { settled: told.length, open: came.length - told.length, failed: firstFailed(ended) }
}

/** The same questions are put under the same key, which is charged once. */
const orderKey = (job: JobRow, subjects: readonly string[]): string =>
  `${job.id}:${sha256Hex(subjects.join(',')).slice(0, 24)}`

/** The service is busy or down: what was ordered there is fetched once it is back. */
function orLater(error: unknown): null {
  const problem = answerProblemOf(error)
  if (problem === 'provider-failed' || problem === 'answer-too-late') return null
  throw error
}
