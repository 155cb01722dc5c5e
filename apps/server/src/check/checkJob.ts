import { createHash } from 'node:crypto'
import { sql } from 'drizzle-orm'
import { answerProblemOf } from '../connections/client'
import type { Db } from '../db/database'
import type { JobHandler, StepOutcome } from '../jobs/runner'
import { findJob, type JobRow, saveJob } from '../jobs/store'
import { withListLock } from '../lists/listLock'
import { countContacts } from '../projection/cube'
import { refreshContacts } from '../projection/refresh'
import type { Services } from '../services'
import { noteOrder, numbersToOrder, type OpenOrder, openOrderOf, unanswered } from './lineOrders'
import { costOfRegister, openRegister, type RegisterAnswer, type RegisterTerms } from './register'
import { holdersOf, storeAnswers } from './storeAnswers'

/** Numbers asked about in one step. */
const STEP = 200
/** Seconds between looks after an order: soon at first, later less often. */
const lookAgainIn = (waited: number): number => Math.min(60, Math.max(0.2, waited / 5))
/** So long a job that is to stop waits for what it has ordered already, in seconds. */
const STOP_WAIT = 600

/**
 * Asks the register about the numbers of a check, an order at a time. The order is written down before it is waited
 * for: however late the register is ready, and whatever ends meanwhile, what was bought is fetched and nothing is
 * ordered twice.
 */
export const checkJob: JobHandler = {
  async step(services, job): Promise<StepOutcome> {
    const open = await openOrderOf(services.db, job.id)
    if (open) return fetchOrder(services, job, open)
    const register = await openRegister(services)
    const numbers = await numbersToOrder(services.db, job.id, Math.min(STEP, register.most))
    if (numbers.length === 0) {
      await recount(services, job)
      return { next: 'done' }
    }
    const order = await register.order(numbers, orderKey(job, numbers))
    if (order.status === 'working') await noteOrder(services.db, job.id, order.id, numbers)
    else await settle(services, job, numbers, order.answers, register.terms)
    return { next: 'step' }
  },

  async mayStop(services, job) {
    const open = await openOrderOf(services.db, job.id)
    if (!open || services.now() - open.orderedAt.getTime() > STOP_WAIT * 1000) return null
    return fetchOrder(services, job, open)
  },

  ended: (services, job) => recount(services, job),
}

const orderKey = (job: JobRow, numbers: readonly string[]): string => `${job.id}:${digestOf(numbers)}`

const digestOf = (numbers: readonly string[]): string =>
  createHash('sha256').update(numbers.join(',')).digest('hex').slice(0, 24)

async function fetchOrder(services: Services, job: JobRow, open: OpenOrder): Promise<StepOutcome> {
  const waited = (services.now() - open.orderedAt.getTime()) / 1000
  const register = await openRegister(services)
  const order = await register.fetch(open.orderId).catch((error: unknown) => {
    // The register is busy or down: what was ordered there is fetched once it is back.
    const problem = answerProblemOf(error)
    if (problem === 'provider-failed' || problem === 'answer-too-late') return null
    throw error
  })
  if (order?.status !== 'ready') {
    await saveJob(services.db, job.id, { phase: 'waiting-for-answers' })
    return { next: 'later', seconds: lookAgainIn(waited) }
  }
  await settle(services, job, open.numbers, order.answers, register.terms)
  return { next: 'step' }
}

/** Numbers the register left out of its answer count as unknown: they are neither asked for ever nor paid. */
async function settle(
  services: Services,
  job: JobRow,
  asked: readonly string[],
  answers: readonly RegisterAnswer[],
  register: RegisterTerms,
): Promise<void> {
  const byNumber = new Map(answers.map((answer) => [answer.number, answer]))
  const all = asked.map((number) => byNumber.get(number) ?? unknownAnswer(number))
  const touched = [...new Set([job.listId, ...(await holdersOf(services.db, asked)).map(({ listId }) => listId)])]
  await withListLock(services, touched, { work: 'check', jobId: job.id }, async (tx, client) => {
    const open = new Set(await unanswered(tx, job.id, asked))
    const fresh = all.filter(({ number }) => open.has(number))
    const { spent: cost } = await storeAnswers(tx, fresh, {
      listId: job.listId,
      jobId: job.id,
      register,
      reason: 'line check',
      questionOf: (number) => `${job.id}:${number}`,
      at: new Date(services.now()),
    })
    const holders = await holdersOf(tx, asked)
    for (const listId of touched) {
      const ids = holders.flatMap((one) => (one.listId === listId ? one.id : []))
      await refreshContacts(tx, client, ids)
    }
    const { done, result } = await findJob(tx, job.id)
    const spent = Number(result.spent ?? 0) + cost
    const unknown =
      Number(result.unknown ?? 0) + fresh.filter((answer) => costOfRegister(answer, register) === 0).length
    await saveJob(tx, job.id, { phase: 'asking', done: done + fresh.length, result: { spent, unknown } })
  })
}

const unknownAnswer = (number: string): RegisterAnswer => ({
  number,
  lineType: 'unknown',
  status: 'unknown',
  carrier: null,
  ported: null,
  timeZone: null,
  lastSeen: null,
})

/** What was learnt may stand in other lists too: their counts follow. */
async function recount(services: Services, job: JobRow): Promise<void> {
  for (const listId of await listsTouched(services.db, job))
    await withListLock(services, listId, { work: 'check', jobId: job.id }, (tx) => countContacts(tx, listId))
}

async function listsTouched(db: Db, job: JobRow): Promise<string[]> {
  const { rows } = await db.execute<{ list_id: string }>(sql`
    select distinct n.list_id from line_checks l join contact_numbers n on n.e164 = l.e164
    where l.job_id = ${job.id} and l.answered_at is not null order by 1`)
  return rows.map(({ list_id }) => list_id)
}
