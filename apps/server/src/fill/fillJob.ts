import type { AnswerItem } from '@upper-field/core/connect'
import { nextAct, type ProviderTerms } from '@upper-field/core/fill'
import { and, eq, ne, sql } from 'drizzle-orm'
import { answerProblemOf } from '../connections/client'
import { transaction } from '../db/database'
import { attempts, fillRuns } from '../db/schema'
import { Problem } from '../http/problem'
import { type JobHandler, JobProblem, type StepOutcome } from '../jobs/runner'
import { type JobRow, saveJob } from '../jobs/store'
import { withListLock } from '../lists/listLock'
import { countContacts } from '../projection/cube'
import type { Services } from '../services'
import { askProvider, lookForAnswer } from './askProvider'
import { reserve } from './budget'
import { failingProviders } from './failing'
import { type AttemptRow, endAttempt, settleAnswer } from './settleAttempt'
import { answeredWithin, askableBy, mostOf, type PlanTerms, planOf, readWanting, type WantingContact } from './wanting'

/** Contacts worked on in one step, and how many of them at the same time. */
const STEP = 40
const AT_ONCE = 8
/** Seconds between looks for late answers; a callback brings the job back at once. */
const LOOK = 1

/** A run, and the terms it asks on. */
type Run = typeof fillRuns.$inferSelect & { readonly plan: PlanTerms; readonly failing: ReadonlySet<string> }

/** Asks providers in turn for the contacts of a fill run. Late answers are waited for without holding a worker. */
export const fillJob: JobHandler = {
  async step(services, job): Promise<StepOutcome> {
    const [found] = await services.db.select().from(fillRuns).where(eq(fillRuns.jobId, job.id))
    if (!found) throw new JobProblem('run-gone')
    const plan = await planOf(services.db, found.order, found.checksLines).catch((cause: unknown) => {
      // A service that was forgotten meanwhile.
      throw cause instanceof Problem ? new JobProblem('provider-gone', { cause }) : cause
    })
    const run = { ...found, plan, failing: await failingProviders(services.db, job.id) }
    await settleWaiting(services, run)
    const open = await openSearches(services, run)
    let moves = 0
    await inParallel(open, async (contact) => {
      if (await advance(services, run, contact)) moves++
    })
    return report(services, job, run, moves)
  },

  ended: (services, job) => recount(services, job),
}

const recount = (services: Services, job: JobRow): Promise<void> =>
  withListLock(services, job.listId, { work: 'fill', jobId: job.id }, (tx) => countContacts(tx, job.listId))

/** Answers that have come, and attempts whose answer is overdue or was cut off by a crash. */
async function settleWaiting(services: Services, run: Run): Promise<void> {
  const waiting = await services.db
    .select()
    .from(attempts)
    .where(and(eq(attempts.jobId, run.jobId), eq(attempts.state, 'waiting')))
  const contacts = new Map(
    (
      await contactsOf(
        services,
        waiting.map(({ contactId }) => contactId),
      )
    ).map((contact) => [contact.id, contact]),
  )
  await inParallel(waiting, async (attempt) => {
    const contact = contacts.get(attempt.contactId)
    if (!contact) return endAttempt(services, attempt, { state: 'failed', reason: 'contact-gone' })
    if (attempt.answer) return settleOrFail(services, run, contact, attempt, attempt.answer)
    if (attempt.deadline === null) return ask(services, run, contact, attempt)
    const isOverdue = attempt.deadline.getTime() < services.now()
    // What is ready is taken, however long we took to look for it.
    const isOpen = attempt.receipt === null || (await look(services, run, contact, attempt, attempt.receipt))
    if (isOpen && isOverdue) return endLate(services, attempt)
  })
}

const contactsOf = (services: Services, ids: readonly number[]): Promise<WantingContact[]> =>
  readWanting(services.db, sql`id = any(${sql.param(ids)}::bigint[])`)

const openSearches = (services: Services, run: Run): Promise<WantingContact[]> =>
  readWanting(
    services.db,
    sql`id in (select contact_id from fill_searches where job_id = ${run.jobId} and state = 'open' order by contact_id limit ${STEP})`,
  )

/** One move for one contact: ask the next provider, or end the search. False where the budget has to be waited for. */
async function advance(services: Services, run: Run, contact: WantingContact): Promise<boolean> {
  const made = await services.db
    .select()
    .from(attempts)
    .where(and(eq(attempts.jobId, run.jobId), eq(attempts.contactId, contact.id)))
  const act = nextAct(
    await eligibleFor(services, run, contact),
    made.map(({ provider, state }) => ({ provider, state: state as 'waiting' })),
    run.asking,
  )
  if (act.act !== 'ask') {
    await setSearch(services, run, contact, act.act === 'wait' ? 'waiting' : act.outcome)
    return true
  }
  const attempt = await openAttempt(services, run, contact, act.provider)
  if (attempt) await ask(services, run, contact, attempt)
  return attempt !== null
}

/** Whom the plan can ask about a contact: not who keeps failing, nor who has answered in an earlier run not long ago. */
async function eligibleFor({ db }: Services, run: Run, contact: WantingContact): Promise<string[]> {
  const askable = askableBy(run.plan.providers, contact).filter((id) => !run.failing.has(id))
  const before = await db
    .select({ provider: attempts.provider })
    .from(attempts)
    .where(and(eq(attempts.contactId, contact.id), ne(attempts.jobId, run.jobId), answeredWithin(run.notAgainDays)))
  return askable.filter((id) => !before.some(({ provider }) => provider === id))
}

async function setSearch(services: Services, run: Run, contact: WantingContact, state: string): Promise<void> {
  await services.db.execute(
    sql`update fill_searches set state = ${state} where job_id = ${run.jobId} and contact_id = ${contact.id}`,
  )
}

/** Sets the money aside and notes the attempt, both or neither; null where the budget does not allow it. */
async function openAttempt(
  services: Services,
  run: Run,
  contact: WantingContact,
  providerId: string,
): Promise<AttemptRow | null> {
  const provider = termsIn(run, providerId)
  if (!provider) return null
  const reserved = mostOf(provider, run.plan)
  return transaction(services.pool, async (tx) => {
    const held = await reserve(tx, run.jobId, reserved)
    if (held === 'never')
      await tx.execute(
        sql`update fill_searches set state = 'budget' where job_id = ${run.jobId} and contact_id = ${contact.id}`,
      )
    if (held !== 'reserved') return null
    const [attempt] = await tx
      .insert(attempts)
      .values({
        jobId: run.jobId,
        listId: run.listId,
        contactId: contact.id,
        provider: providerId,
        state: 'waiting',
        reserved,
        askedAt: new Date(services.now()),
      })
      .returning()
    return attempt ?? null
  })
}

async function ask(services: Services, run: Run, contact: WantingContact, attempt: AttemptRow): Promise<void> {
  try {
    const asked = await askProvider(services, attempt.provider, contact, attempt.id)
    if (asked.status === 'answered') {
      return await settleOrFail(services, run, contact, attempt, asked.items)
    }
    const deadline = new Date(services.now() + services.config.limits.lateAnswerSeconds * 1000)
    const { receipt } = asked
    await services.db.update(attempts).set({ deadline, receipt }).where(eq(attempts.id, attempt.id))
    if (run.asking === 'until-found') await setSearch(services, run, contact, 'waiting')
  } catch (error) {
    await failAlone(services, attempt, error)
  }
}

const termsIn = ({ plan }: Run, id: string): ProviderTerms | undefined => plan.providers.find((one) => one.id === id)

/**
 * Looks for an answer that does not come by itself. A service that fails just now is looked at again.
 * @returns true where there is none yet
 */
async function look(
  services: Services,
  run: Run,
  contact: WantingContact,
  attempt: AttemptRow,
  receipt: string,
): Promise<boolean> {
  try {
    const asked = await lookForAnswer(services, attempt.provider, receipt)
    if (asked.status === 'later') return true
    await settleOrFail(services, run, contact, attempt, asked.items)
  } catch (error) {
    const reason = answerProblemOf(error)
    if (reason === 'provider-failed' || reason === 'answer-too-late') return true
    await failAlone(services, attempt, error)
  }
  return false
}

/** Judges an answer; where the register gives an odd one about a candidate, this attempt fails and no other. */
async function settleOrFail(
  services: Services,
  run: Run,
  contact: WantingContact,
  attempt: AttemptRow,
  answer: readonly AnswerItem[],
): Promise<void> {
  const provider = termsIn(run, attempt.provider)
  if (!provider) return endAttempt(services, attempt, { state: 'failed', reason: 'provider-gone' })
  try {
    await settleAnswer(services, attempt, answer, {
      provider,
      register: run.plan.register,
      asking: run.asking,
      contact,
    })
  } catch (error) {
    await failAlone(services, attempt, error)
  }
}

/** One odd answer is one failed attempt, with its reason. Whatever concerns the whole run is thrown on. */
async function failAlone(services: Services, attempt: AttemptRow, error: unknown): Promise<void> {
  const reason = answerProblemOf(error)
  if (reason === null) throw error
  await endAttempt(services, attempt, { state: 'failed', reason })
}

/** An answer that never came; where something came that could not be read, it has failed. */
const endLate = (services: Services, attempt: AttemptRow): Promise<void> =>
  endAttempt(
    services,
    attempt,
    attempt.reason ? { state: 'failed', reason: attempt.reason } : { state: 'late', reason: null },
  )

async function report(services: Services, job: JobRow, run: Run, moves: number): Promise<StepOutcome> {
  const { rows } = await services.db.execute<Record<string, string>>(sql`
    select count(*) filter (where state = 'open') as open, count(*) filter (where state = 'waiting') as waiting,
      count(*) filter (where state = 'found') as found, count(*) filter (where state = 'budget') as budget, count(*) as all
    from fill_searches where job_id = ${run.jobId}`)
  const n = (name: string) => Number(rows[0]?.[name] ?? 0)
  const [now] = await services.db.select().from(fillRuns).where(eq(fillRuns.jobId, run.jobId))
  const result = { found: n('found'), waiting: n('waiting'), leftByBudget: n('budget'), spent: now?.spent ?? 0 }
  const isDone = n('open') === 0 && n('waiting') === 0
  if (isDone) await recount(services, job)
  await saveJob(services.db, job.id, {
    phase: 'asking',
    done: n('all') - n('open') - n('waiting'),
    result,
    problem: n('budget') > 0 ? 'budget-reached' : null,
  })
  if (isDone) return { next: 'done' }
  return n('open') > 0 && moves > 0 ? { next: 'step' } : { next: 'later', seconds: LOOK }
}

async function inParallel<T>(items: readonly T[], work: (item: T) => Promise<void>): Promise<void> {
  for (let start = 0; start < items.length; start += AT_ONCE) {
    const settled = await Promise.allSettled(items.slice(start, start + AT_ONCE).map(work))
    const failed = settled.find((one) => one.status === 'rejected')
    if (failed) throw failed.reason
  }
}
