import { CheckOf } from '@upper-field/contract'
import { sql } from 'drizzle-orm'
import { readRows, text } from '../db/readRows'
import { isGathered } from '../jobs/gathered'
import type { JobHandler, StepOutcome } from '../jobs/runner'
import { type JobRow, saveJob } from '../jobs/store'
import { withListLock } from '../lists/listLock'
import { countContacts } from '../projection/cube'
import type { Services } from '../services'
import { type Asking, fetchOrders, putOrders } from './askInOrders'
import { gatherQuestions } from './gather'
import { openFacts } from './openFacts'
import { type OpenOrder, openOrders } from './orders'
import { type Subject, withSubject } from './subjects'

/** Seconds between looks after an order: soon at first, later less often. */
const lookAgainIn = (waited: number): number => Math.min(60, Math.max(0.2, waited / 5))
/** So long a job that is to stop waits for what it has ordered already, in seconds. */
const STOP_WAIT = 600

/** Jobs from before addresses were checked are about numbers. */
const ofJob = ({ payload }: JobRow): CheckOf => CheckOf.safeParse(payload.of).data ?? 'numbers'

/**
 * Asks the register or the verifier about what a check is of, some orders at a time. However late an order is ready, and
 * whatever ends meanwhile, what was bought is fetched and nothing is ordered twice.
 */
export const checkJob: JobHandler = {
  step: (services, job) => withSubject(ofJob(job), (subject) => step(services, subject, job)),
  mayStop: (services, job) => withSubject(ofJob(job), (subject) => mayStop(services, subject, job)),
  ended: (services, job) => withSubject(ofJob(job), (subject) => recount(services, subject, job)),
}

async function step<A>(services: Services, subject: Subject<A>, job: JobRow): Promise<StepOutcome> {
  const asking = { services, subject, job, service: await openFacts(services, subject) }
  if (!isGathered(job)) return { next: (await gatherQuestions(asking)) > 0 ? 'step' : 'done' }
  const orders = await openOrders(services.db, subject, job.id)
  const fetched = await fetchOrders(asking, orders)
  // A service that answers nonsense is asked for nothing more; what it owes besides is waited for.
  if (fetched.failed) return afterFailure(asking, orders, fetched.open, fetched.failed)
  const put = await putOrders(asking, fetched.open)
  const open = fetched.open + put.open
  if (put.failed) return afterFailure(asking, orders, open, put.failed)
  if (put.open + put.settled + fetched.settled > 0) return { next: 'step' }
  if (open > 0) return lookLater(asking, orders)
  await recount(services, subject, job)
  return { next: 'done' }
}

async function mayStop<A>(services: Services, subject: Subject<A>, job: JobRow): Promise<StepOutcome | null> {
  const orders = await openOrders(services.db, subject, job.id)
  const awaited = orders.filter(({ orderedAt }) => services.now() - orderedAt.getTime() <= STOP_WAIT * 1000)
  if (awaited.length === 0) return null
  const asking = { services, subject, job, service: await openFacts(services, subject) }
  const fetched = await fetchOrders(asking, awaited)
  if (fetched.failed) return afterFailure(asking, awaited, fetched.open, fetched.failed)
  return fetched.settled > 0 ? { next: 'step' } : lookLater(asking, awaited)
}

/** A check fails once nothing is to be fetched any more that can be: that is paid for. @param open how many are */
async function afterFailure<A>(
  asking: Asking<A>,
  orders: readonly OpenOrder[],
  open: number,
  { reason }: PromiseRejectedResult,
): Promise<StepOutcome> {
  if (open === 0) throw reason
  return lookLater(asking, orders)
}

/** @param orders the oldest first */
async function lookLater<A>({ services, job }: Asking<A>, [oldest]: readonly OpenOrder[]): Promise<StepOutcome> {
  const waited = oldest ? (services.now() - oldest.orderedAt.getTime()) / 1000 : 0
  await saveJob(services.db, job.id, { phase: 'waiting-for-answers' })
  return { next: 'later', seconds: lookAgainIn(waited) }
}

/** What was learnt may stand in other lists too: their counts follow. */
async function recount<A>(services: Services, { checks, holders, column }: Subject<A>, job: JobRow): Promise<void> {
  const name = sql.raw(column)
  const lists = await readRows(services.db, { listId: text })`
    select distinct n.list_id from ${sql.raw(checks)} l join ${sql.raw(holders)} n on n.${name} = l.${name}
    where l.job_id = ${job.id} and l.answered_at is not null order by 1`
  for (const { listId } of lists)
    await withListLock(services, listId, { work: 'check', jobId: job.id, counts: 'whole' }, (tx) =>
      countContacts(tx, listId, { repairs: 'as-they-were' }),
    )
}
