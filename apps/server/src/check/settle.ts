import { findJob, type JobRow, saveJob } from '../jobs/store'
import { withListLock } from '../lists/listLock'
import type { Services } from '../services'
import { tellWebhooks } from '../webhooks/tell'
import type { FactAnswer, FactTerms } from './openFacts'
import { unanswered } from './orders'
import { holdersOf, storeAnswers } from './storeAnswers'
import type { Subject } from './subjects'
import { takeOver } from './tellHolders'
import { wholeOrders } from './wholeOrders'

/** What a service told about what it was asked. */
export interface Told<A> {
  readonly subjects: readonly string[]
  readonly answers: readonly FactAnswer<A>[]
}

/** So many subjects are settled in one transaction, which has all lists that hold them for itself. */
const AT_ONCE = 1000

/** Keeps what was told on what it is about, books it, and projects whoever holds it, in every list. */
export async function settleOrders<A>(
  services: Services,
  subject: Subject<A>,
  job: JobRow,
  terms: FactTerms,
  told: readonly Told<A>[],
): Promise<void> {
  for (const orders of wholeOrders(told, AT_ONCE)) {
    const answers = orders.flatMap((one) => one.answers)
    const known = new Map(answers.map((one) => [subject.subjectOf(one.told), one]))
    const subjects = orders.flatMap((one) => one.subjects)
    await settle(services, subject, job, { subjects, known, terms })
  }
}

interface Settled<A> {
  readonly subjects: readonly string[]
  readonly known: ReadonlyMap<string, FactAnswer<A>>
  readonly terms: FactTerms
}

/** What was left out of an answer counts as unknown: it is neither asked for ever nor paid. */
async function settle<A>(
  services: Services,
  subject: Subject<A>,
  job: JobRow,
  { subjects, known, terms }: Settled<A>,
): Promise<void> {
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
