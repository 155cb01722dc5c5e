import { createHash } from 'node:crypto'
import { CheckOf } from '@upper-field/contract'
import { sql } from 'drizzle-orm'
import { answerProblemOf } from '../connections/client'
import { readRows, text } from '../db/readRows'
import type { JobHandler, StepOutcome } from '../jobs/runner'
import { findJob, type JobRow, saveJob } from '../jobs/store'
import { withListLock } from '../lists/listLock'
import { countContacts } from '../projection/cube'
import type { Services } from '../services'
import { tellWebhooks } from '../webhooks/tell'
import { type FactAnswer, type FactTerms, openFacts } from './openFacts'
import { noteOrder, type OpenOrder, openOrderOf, subjectsToOrder, unanswered } from './orders'
import { holdersOf, storeAnswers } from './storeAnswers'
import { type Subject, withSubject } from './subjects'
import { takeOver } from './tellHolders'

/** Asked about in one step. */
const STEP = 200
/** Seconds between looks after an order: soon at first, later less often. */
const lookAgainIn = (waited: number): number => Math.min(60, Math.max(0.2, waited / 5))
/** So long a job that is to stop waits for what it has ordered already, in seconds. */
const STOP_WAIT = 600

/** Jobs from before addresses were checked are about numbers. */
const ofJob = ({ payload }: JobRow): CheckOf => CheckOf.safeParse(payload.of).data ?? 'numbers'

/**
 * Asks the register or the verifier about what a check is of, an order at a time. The order is written down before it is
 * waited for: however late it is ready, and whatever ends meanwhile, what was bought is fetched and nothing is ordered
 * twice.
 */
export const checkJob: JobHandler = {
  step: (services, job) => withSubject(ofJob(job), (subject) => step(services, subject, job)),
  mayStop: (services, job) => withSubject(ofJob(job), (subject) => mayStop(services, subject, job)),
  ended: (services, job) => withSubject(ofJob(job), (subject) => recount(services, subject, job)),
}

async function step<A>(services: Services, subject: Subject<A>, job: JobRow): Promise<StepOutcome> {
  const open = await openOrderOf(services.db, subject, job.id)
  if (open) return fetchOrder(services, subject, job, open)
  const service = await openFacts(services, subject)
  const subjects = await subjectsToOrder(services.db, subject, job.id, Math.min(STEP, service.most))
  if (subjects.length === 0) {
    await recount(services, subject, job)
    return { next: 'done' }
  }
  const order = await service.order(subjects, orderKey(job, subjects))
  if (order.status === 'working') await noteOrder(services.db, subject, job.id, { orderId: order.id, subjects })
  else await settle(services, subject, job, { subjects, answers: order.answers, terms: service.terms })
  return { next: 'step' }
}

async function mayStop<A>(services: Services, subject: Subject<A>, job: JobRow): Promise<StepOutcome | null> {
  const open = await openOrderOf(services.db, subject, job.id)
  if (!open || services.now() - open.orderedAt.getTime() > STOP_WAIT * 1000) return null
  return fetchOrder(services, subject, job, open)
}

const orderKey = (job: JobRow, subjects: readonly string[]): string => `${job.id}:${digestOf(subjects)}`

const digestOf = (subjects: readonly string[]): string =>
  createHash('sha256').update(subjects.join(',')).digest('hex').slice(0, 24)

async function fetchOrder<A>(
  services: Services,
  subject: Subject<A>,
  job: JobRow,
  open: OpenOrder,
): Promise<StepOutcome> {
  const waited = (services.now() - open.orderedAt.getTime()) / 1000
  const service = await openFacts(services, subject)
  const order = await service.fetch(open.orderId).catch((error: unknown) => {
    // The service is busy or down: what was ordered there is fetched once it is back.
    const problem = answerProblemOf(error)
    if (problem === 'provider-failed' || problem === 'answer-too-late') return null
    throw error
  })
  if (order?.status !== 'ready') {
    await saveJob(services.db, job.id, { phase: 'waiting-for-answers' })
    return { next: 'later', seconds: lookAgainIn(waited) }
  }
  await settle(services, subject, job, { subjects: open.subjects, answers: order.answers, terms: service.terms })
  return { next: 'step' }
}

interface Settled<A> {
  readonly subjects: readonly string[]
  readonly answers: readonly FactAnswer<A>[]
  readonly terms: FactTerms
}

/** What was left out of an answer counts as unknown: it is neither asked for ever nor paid. */
async function settle<A>(
  services: Services,
  subject: Subject<A>,
  job: JobRow,
  { subjects, answers, terms }: Settled<A>,
): Promise<void> {
  const known = new Map(answers.map((answer) => [subject.subjectOf(answer.told), answer]))
  const all = subjects.map((one) => known.get(one) ?? { told: subject.unknown(one), cost: 0 })
  const touched = [
    ...new Set([job.listId, ...(await holdersOf(services.db, subject, subjects)).map(({ listId }) => listId)]),
  ]
  await withListLock(services, touched, { work: 'check', jobId: job.id }, async (tx, client) => {
    const open = new Set(await unanswered(tx, subject, job.id, subjects))
    const fresh = all.filter(({ told }) => open.has(subject.subjectOf(told)))
    const bought = fresh.map((one) => ({ ...one, question: `${job.id}:${subject.subjectOf(one.told)}` }))
    const { spent: cost } = await storeAnswers(tx, subject, bought, {
      listId: job.listId,
      jobId: job.id,
      provider: terms.id,
      reason: subject.reason,
      at: new Date(services.now()),
    })
    const holders = await holdersOf(tx, subject, subjects)
    for (const listId of touched) {
      const ids = holders.flatMap((one) => (one.listId === listId ? one.id : []))
      await takeOver(tx, client, listId, ids)
      await tellWebhooks(
        tx,
        listId,
        'contact.judged',
        ids.map((contactId) => ({ contactId, of: subject.of })),
      )
    }
    const { done, result } = await findJob(tx, job.id)
    const spent = Number(result.spent ?? 0) + cost
    const unknown = Number(result.unknown ?? 0) + fresh.filter(({ told }) => subject.toldNothing(told)).length
    await saveJob(tx, job.id, { phase: 'asking', done: done + fresh.length, result: { spent, unknown } })
  })
}

/** What was learnt may stand in other lists too: their counts follow. */
async function recount<A>(services: Services, { checks, holders, column }: Subject<A>, job: JobRow): Promise<void> {
  const name = sql.raw(column)
  const lists = await readRows(services.db, { listId: text })`
    select distinct n.list_id from ${sql.raw(checks)} l join ${sql.raw(holders)} n on n.${name} = l.${name}
    where l.job_id = ${job.id} and l.answered_at is not null order by 1`
  for (const { listId } of lists)
    await withListLock(services, listId, { work: 'check', jobId: job.id, counts: 'whole' }, (tx) =>
      countContacts(tx, listId),
    )
}
