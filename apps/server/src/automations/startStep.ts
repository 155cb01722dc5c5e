import { type AutomationStep, FillPlan } from '@upper-field/contract'
import { eq } from 'drizzle-orm'
import { estimateCheck } from '../check/estimate'
import { startCheck } from '../check/startCheck'
import { LINES } from '../check/subjects'
import type { Db } from '../db/database'
import { audiences, type automationRuns } from '../db/schema'
import { estimatePlan } from '../fill/estimate'
import { readStandingFill } from '../fill/standingFill'
import { startFill } from '../fill/startFill'
import { Problem } from '../http/problem'
import { ListBusy } from '../lists/listBusy'
import { withListLock } from '../lists/listLock'
import { findOpenList } from '../lists/routes'
import { pairState } from '../pair/pairState'
import { startPairing } from '../pair/startPairing'
import { countContacts } from '../projection/cube'
import { refuseUnfit } from '../send/audienceRules'
import { findDestination } from '../send/destinations'
import { startDelivery } from '../send/startDelivery'
import { startPreparing } from '../send/startPreparing'
import type { Services } from '../services'
import { startTidy } from '../tidy/startTidy'
import { tidyState } from '../tidy/state'

export type RunRow = typeof automationRuns.$inferSelect

/** What became of starting a step: a job that works on it, or why there is nothing to wait for. */
export type StepStarted =
  | { readonly jobId: string; readonly editionId?: string }
  | { readonly outcome: 'done' | 'nothing-to-do' | 'over-amount' | 'refused'; readonly reason: string | null }

/** Problems that say that there is nothing to be done. */
const NOTHING: ReadonlySet<string> = new Set(['nothing-to-ask', 'nobody-wanting', 'nothing-to-send', 'nobody-chosen'])
const nothing = (reason: string): StepStarted => ({ outcome: 'nothing-to-do', reason })

/** Starts the work of a step, within its amount. What keeps it from starting is an outcome, and no failure. */
export async function startStep(services: Services, tx: Db, run: RunRow, step: AutomationStep): Promise<StepStarted> {
  try {
    return await start(services, tx, run, step)
  } catch (error) {
    if (!(error instanceof Problem) || error instanceof ListBusy) throw error
    if (NOTHING.has(error.code)) return nothing(error.message)
    return { outcome: error.code === 'costs-more' ? 'over-amount' : 'refused', reason: error.message }
  }
}

async function start(services: Services, tx: Db, run: RunRow, step: AutomationStep): Promise<StepStarted> {
  const { listId, startedBy, batchId } = run
  // Nothing is paid for, or sent from, a list that was laid aside.
  await findOpenList(tx, listId)
  const filter = batchId === null ? '' : `batch:${batchId}`
  switch (step.work) {
    case 'tidy': {
      const { routine, name, isProposed } = await tidyState(tx, listId)
      if (isProposed) return nothing('The list has the routine that is proposed: its rows were read by it.')
      const job = await startTidy(tx, { listId, change: { kind: 'routine', routine, name }, startedBy })
      return { jobId: job.id }
    }
    case 'pair': {
      const { thresholds } = await pairState(tx, listId)
      return { jobId: (await startPairing(tx, { listId, payload: { thresholds }, startedBy })).id }
    }
    case 'check': {
      const estimate = await estimateCheck(tx, LINES, listId, filter)
      if (estimate.toAsk === 0) return nothing('Every number has a fresh answer.')
      if (estimate.most > step.amount)
        return { outcome: 'over-amount', reason: 'It would cost more than the amount allows.' }
      return { jobId: (await startCheck(tx, LINES, { listId, filter, agreed: step.amount, startedBy }, estimate)).id }
    }
    case 'fill': {
      const standing = await readStandingFill(tx, listId)
      if (!standing) return nothing('No plan is set for filling new batches of this list.')
      const plan = { ...FillPlan.parse({ ...standing.plan, budget: step.amount, filter }), listId }
      return { jobId: (await startFill(tx, { ...plan, startedBy }, await estimatePlan(tx, plan))).id }
    }
    case 'split':
      await withListLock(services, listId, { work: 'split', patience: 0, counts: 'whole' }, (held) =>
        countContacts(held, listId, { repairs: 'as-they-were' }),
      )
      return { outcome: 'done', reason: null }
    case 'send':
      return send(services, tx, run, step)
  }
}

/** First the next edition is prepared, then what it changes is sent; nothing where it changes nothing. */
async function send(
  services: Services,
  tx: Db,
  { listId, startedBy, editionId }: RunRow,
  { audienceId }: AutomationStep,
): Promise<StepStarted> {
  const [audience] = await tx
    .select()
    .from(audiences)
    .where(eq(audiences.id, audienceId ?? ''))
  if (!audience || audience.removedAt !== null || audience.listId !== listId)
    return { outcome: 'refused', reason: 'The audience is gone.' }
  if (editionId === null) {
    const edition = await startPreparing(tx, audience, { startedBy, at: new Date(services.now()) })
    return { jobId: edition.jobId ?? '', editionId: edition.id }
  }
  // An account that lacks something is found before anything is sent.
  await refuseUnfit(services, audience, await findDestination(tx, audience.destination))
  const { jobId } = await startDelivery(tx, { audienceId: audience.id, editionId, startedBy })
  return jobId === null ? nothing('Nothing has changed since it was sent last.') : { jobId }
}
