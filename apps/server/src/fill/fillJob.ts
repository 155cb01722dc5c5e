import type { AnswerItem } from '@upper-field/core/connect'
import { dearerThanAgreed, type NewPrices } from '@upper-field/core/fill'
import { and, eq, sql } from 'drizzle-orm'
import PQueue from 'p-queue'
import { answerProblemOf } from '../connections/client'
import { inPages } from '../db/inPages'
import { num, readRow } from '../db/readRows'
import { attempts, fillRuns } from '../db/schema'
import { isGathered } from '../jobs/gathered'
import type { JobHandler, StepOutcome } from '../jobs/runner'
import { succeeded, throwFirst } from '../jobs/settled'
import { type JobRow, saveJob } from '../jobs/store'
import { withListLock } from '../lists/listLock'
import { countContacts } from '../projection/cube'
import type { Services } from '../services'
import { tellWebhooks } from '../webhooks/tell'
import { askProvider, type Connections, lookForAnswer, openConnections, reportAccepted } from './askProvider'
import { type Answered, judgeAnswer, openChecks } from './judgeAnswers'
import { askedInRun, type Moves, makeMoves, reopenForgotten, roomIn, setStates } from './moves'
import { openSearches } from './openSearches'
import { stepSize } from './pace'
import { conditionOf } from './plan'
import { agreeToPrices, askAboutPrices } from './prices'
import { type AttemptRow, dueAttempts, findRun, type Run, type SearchedContact, searchedContacts } from './run'
import { type Ended, foundIn, settleAll } from './settle'

/** Seconds between looks for late answers; a callback brings the job back at once. */
const LOOK = 1
/** Seconds between looks whether another day has begun. */
const DAY_LOOK = 300

/** Asks providers in turn for what the contacts of a run lack. Late answers are waited for without holding a worker. */
export const fillJob: JobHandler = {
  async step(services, job): Promise<StepOutcome> {
    const started = services.now()
    const size = stepSize(job.id)
    const run = await findRun(services, job.id)
    if (!isGathered(job)) return { next: (await openSearches(services, job, run)) > 0 ? 'step' : 'done' }
    if (await agreeToPrices(services, run)) return { next: 'step' }
    if (await hasAsked(services, job, dearerThanAgreed(run))) return { next: 'step' }
    const told: TellsPrice[] = []
    const connect = openConnections(services)
    const due = await dueAttempts(services, job.id, size.now())
    const open = await searchedContacts(services, job.id, sql`s.state = 'open'`, size.now())
    const counts = { asked: await askedInRun(services.db, run), room: roomIn(run) }
    const moves: Moves[] = []
    // While some are waited for, others are written down: nobody has to stand idle.
    await inLanes([
      ...inPages(due, PIECE).map((piece) => async () => {
        const waiting = await withContacts(services, run, piece)
        await hearAndSettle(services, run, connect, waiting, told, (one) => hear(services, run, connect, one))
      }),
      ...inPages(open, PIECE).map((piece) => async () => {
        const made = await makeMoves(services, run, piece, counts)
        moves.push(made)
        await hearAndSettle(services, run, connect, made.asks, told, (one) => ask(services, run, connect, one))
      }),
    ])
    size.tookFor(services.now() - started, Math.max(due.length, open.length))
    const outcome = await report(services, job, run, {
      moved: moves.reduce((sum, { moved }) => sum + moved, 0),
      isDaySpent: moves.some(({ isDaySpent }) => isDaySpent),
    })
    const isAsking = outcome.next !== 'done' && (await hasAsked(services, job, dearerThanAgreed(run, told)))
    return isAsking ? { next: 'step' } : outcome
  },

  ended: (services, job) => recount(services, job),
}

/** Lets the run rest where a service has become dearer. */
async function hasAsked(services: Services, job: JobRow, newPrices: NewPrices): Promise<boolean> {
  if (Object.keys(newPrices).length === 0) return false
  await askAboutPrices(services, job.id, newPrices)
  return true
}

/** A price that an answer has told. */
interface TellsPrice {
  readonly provider: string
  readonly price: number
}

const recount = (services: Services, job: JobRow): Promise<void> =>
  withListLock(services, job.listId, { work: 'fill', jobId: job.id, counts: 'whole' }, (tx) =>
    countContacts(tx, job.listId, { repairs: 'as-they-were' }),
  )

/** Questions that are put and settled together, and how many such pieces are under way at the same time. */
const PIECE = 100
const LANES = 4

/** Does pieces of work, some at a time; the first failure is thrown once all that had begun is done. */
async function inLanes(work: readonly (() => Promise<void>)[]): Promise<void> {
  const queue = new PQueue({ concurrency: LANES })
  throwFirst(await Promise.allSettled(work.map((one) => queue.add(one))))
}

async function hearAndSettle(
  services: Services,
  run: Run,
  connect: Connections,
  questions: readonly Question[],
  prices: TellsPrice[],
  hearOf: (question: Question) => Promise<Told>,
): Promise<void> {
  const told = await Promise.allSettled(questions.map(hearOf))
  for (const one of succeeded(told)) {
    if (one?.as !== 'answered' || one.price === null) continue
    prices.push({ provider: one.question.attempt.provider, price: one.price })
  }
  await settleTold(services, run, connect, succeeded(told))
  throwFirst(told)
}

/** A question with whom it is about. */
interface Question {
  readonly attempt: AttemptRow
  readonly contact: SearchedContact
}

/** What came of a question for now: an answer to judge, an end without one, or nothing yet. */
type Told =
  | {
      readonly as: 'answered'
      readonly question: Question
      readonly items: readonly AnswerItem[]
      readonly price: number | null
    }
  | Ended
  | null

async function withContacts(services: Services, run: Run, due: readonly AttemptRow[]): Promise<Question[]> {
  if (due.length === 0) return []
  const ids = sql.param(due.map(({ contactId }) => contactId))
  const contacts = await searchedContacts(services, run.jobId, sql`s.contact_id = any(${ids}::bigint[])`)
  const byId = new Map(contacts.map((contact) => [contact.id, contact]))
  return due.flatMap((attempt) => {
    const contact = byId.get(attempt.contactId)
    return contact ? [{ attempt, contact }] : []
  })
}

/** Asks a provider. One odd answer is one failed attempt, with its reason; what concerns the whole run is thrown on. */
async function ask(services: Services, run: Run, connect: Connections, { attempt, contact }: Question): Promise<Told> {
  try {
    const { inputs } = conditionOf(run.options, attempt.provider)
    const asked = await askProvider(services, await connect(attempt.provider), contact, { id: attempt.id, inputs })
    if (asked.status === 'answered')
      return { as: 'answered', question: { attempt, contact }, items: asked.items, price: asked.price }
    await wait(services, run, attempt, { receipt: asked.receipt })
    return null
  } catch (error) {
    return failedAlone(attempt, error)
  }
}

/** Waits for an answer that comes later: the search rests until then. */
async function wait(
  services: Services,
  run: Run,
  attempt: AttemptRow,
  set: { readonly receipt?: string | null; readonly answer?: AnswerItem[]; readonly toldPrice?: number | null },
): Promise<void> {
  const deadline = attempt.deadline ?? new Date(services.now() + services.config.limits.lateAnswerSeconds * 1000)
  await services.db
    .update(attempts)
    .set({ deadline, ...set })
    .where(and(eq(attempts.id, attempt.id), eq(attempts.state, 'waiting')))
  if (run.asking === 'until-found')
    await setStates(services.db, run.jobId, [{ contactId: attempt.contactId, state: 'waiting' }])
}

/** Answers that have come, and attempts whose answer is overdue or was cut off by a crash. */
async function hear(services: Services, run: Run, connect: Connections, question: Question): Promise<Told> {
  const { attempt } = question
  if (attempt.answer) return { as: 'answered', question, items: attempt.answer, price: attempt.toldPrice }
  if (attempt.deadline === null) return ask(services, run, connect, question)
  // What is ready is taken, however long we took to look for it.
  const looked = attempt.receipt === null ? null : await look(connect, question, attempt.receipt)
  if (looked) return looked
  return attempt.deadline.getTime() < services.now() ? endLate(attempt) : null
}

/** Looks for an answer that does not come by itself. A service that fails just now is looked at again. */
async function look(connect: Connections, question: Question, receipt: string): Promise<Told> {
  try {
    const asked = await lookForAnswer(await connect(question.attempt.provider), receipt)
    return asked.status === 'later' ? null : { as: 'answered', question, items: asked.items, price: asked.price }
  } catch (error) {
    const reason = answerProblemOf(error)
    if (reason === 'provider-failed' || reason === 'answer-too-late') return null
    return failedAlone(question.attempt, error)
  }
}

function failedAlone(attempt: AttemptRow, error: unknown): Ended {
  const reason = answerProblemOf(error)
  if (reason === null) throw error
  return { as: 'failed', attempt, reason }
}

/** An answer that never came; where something came that could not be read, it has failed. */
const endLate = (attempt: AttemptRow): Ended =>
  attempt.reason ? { as: 'failed', attempt, reason: attempt.reason } : { as: 'late', attempt, reason: null }

/** Judges all that was answered, tells providers what of it was taken, and books everything at once. */
async function settleTold(services: Services, run: Run, connect: Connections, told: readonly Told[]): Promise<void> {
  const answers: Answered[] = []
  const ended: Ended[] = []
  for (const one of told) {
    if (one === null) continue
    if (one.as !== 'answered') {
      ended.push(one)
      continue
    }
    const { attempt, contact } = one.question
    const provider = run.plan.providers.find(({ id }) => id === attempt.provider)
    if (provider) answers.push({ attempt, contact, provider, items: one.items, price: one.price })
    else ended.push({ as: 'failed', attempt, reason: 'provider-gone' })
  }
  const checks = await openChecks(services, run, answers)
  const judged = await Promise.allSettled(answers.map((answer) => endOf(services, run, connect, answer, checks)))
  await settleAll(services, run, [...ended, ...succeeded(judged).flatMap((one) => one ?? [])])
  throwFirst(judged)
}

/** How an answered question ends; null where a check of what it brought is still awaited. */
async function endOf(
  services: Services,
  run: Run,
  connect: Connections,
  answer: Answered,
  checks: Parameters<typeof judgeAnswer>[2],
): Promise<Ended | null> {
  const { attempt, items } = answer
  try {
    const judged = await judgeAnswer(run, answer, checks)
    if (judged === null) {
      await wait(services, run, attempt, { answer: [...items], toldPrice: answer.price })
      return null
    }
    if (foundIn(judged).length > 0) await reportAccepted(await connect(attempt.provider), attempt.id)
    return { as: 'judged', judged }
  } catch (error) {
    return failedAlone(attempt, error)
  }
}

const SEARCHES = { open: num, waiting: num, found: num, partly: num, budget: num, all: num }

async function report(
  services: Services,
  job: JobRow,
  run: Run,
  { moved, isDaySpent }: { readonly moved: number; readonly isDaySpent: boolean },
): Promise<StepOutcome> {
  if (moved === 0) await reopenForgotten(services.db, run.jobId)
  const counted = await readRow(services.db, SEARCHES)`
    select count(*) filter (where state = 'open') as open, count(*) filter (where state = 'waiting') as waiting,
      count(*) filter (where state = 'found') as found, count(*) filter (where state = 'partly') as partly,
      count(*) filter (where state = 'budget') as budget, count(*) as all
    from fill_searches where job_id = ${run.jobId}`
  const n = counted ?? { open: 0, waiting: 0, found: 0, partly: 0, budget: 0, all: 0 }
  const [now] = await services.db.select().from(fillRuns).where(eq(fillRuns.jobId, run.jobId))
  const found = { found: n.found, partly: n.partly, waiting: n.waiting }
  const isDone = n.open === 0 && n.waiting === 0
  if (isDone) await recount(services, job)
  await saveJob(services.db, job.id, {
    phase: isDaySpent ? 'waiting-for-tomorrow' : 'asking',
    done: n.all - n.open - n.waiting,
    result: { ...found, leftByBudget: n.budget, spent: now?.spent ?? 0 },
    problem: n.budget > 0 ? 'budget-reached' : null,
  })
  if (isDone && n.budget > 0)
    await tellWebhooks(services.db, job.listId, 'budget.reached', [{ jobId: job.id, leftByBudget: n.budget }])
  if (isDone) return { next: 'done' }
  if (n.open > 0 && moved > 0) return { next: 'step' }
  return { next: 'later', seconds: isDaySpent && n.waiting === 0 ? DAY_LOOK : LOOK }
}
