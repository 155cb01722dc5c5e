import { type AutomationRun, type AutomationStep, isOver } from '@upper-field/contract'
import { eq, sql } from 'drizzle-orm'
import { type Db, transaction } from '../db/database'
import { isGivenWay, isLostConnection } from '../db/errors'
import { tryLock } from '../db/locks'
import { automationRuns, charges, jobs } from '../db/schema'
import { logError } from '../http/problem'
import { ListBusy } from '../lists/listBusy'
import type { Services } from '../services'
import { beginDay } from './begin'
import { type RunRow, startStep } from './startStep'

type Done = AutomationRun['done'][number]
type Job = typeof jobs.$inferSelect

/** Takes every run of an automation on whose work has ended: after a crash it goes on here too. */
export async function advanceAutomations(services: Services): Promise<void> {
  const { db, pool, now } = services
  await beginDay(db, new Date(now()))
  const open = await db
    .select({ id: automationRuns.id })
    .from(automationRuns)
    .where(eq(automationRuns.state, 'running'))
  for (const { id } of open)
    await transaction(pool, async (tx) => {
      // One process takes a run on; the others leave it alone.
      if (await tryLock(tx, 'automations', id)) await advance(services, tx, id)
    }).catch(async (error: unknown) => {
      // The list is being worked on: the next look begins it.
      if (error instanceof ListBusy || isGivenWay(error)) return
      if (isLostConnection(error)) throw error
      // One that cannot go on keeps no other from going on.
      logError('automation', error)
      await transaction(pool, (tx) => giveStepUp(tx, id))
    })
}

/** A step that fails unexpectedly is over, and told so: the run goes on with the next. */
async function giveStepUp(tx: Db, id: string): Promise<void> {
  const [run] = await tx.select().from(automationRuns).where(eq(automationRuns.id, id)).for('update')
  const step = run?.steps[run.done.length]
  if (run?.state !== 'running' || !step) return
  const reason = 'Something failed on our side.'
  await note(tx, run, { work: step.work, outcome: 'failed', reason, spent: 0 })
}

async function advance(services: Services, tx: Db, id: string): Promise<void> {
  const [run] = await tx.select().from(automationRuns).where(eq(automationRuns.id, id))
  if (run?.state !== 'running') return
  const step = run.steps[run.done.length]
  if (!step) return change(tx, run, { state: 'done', finishedAt: new Date(services.now()) })
  if (run.jobId === null) return begin(services, tx, run, step)
  const [job] = await tx.select().from(jobs).where(eq(jobs.id, run.jobId))
  if (job && !isOver(job)) return
  if (job?.state === 'done' && job.kind === 'prepare') return change(tx, run, { jobId: null })
  const outcome = job?.state === 'done' ? 'done' : 'failed'
  const reason = outcome === 'done' ? null : reasonOf(job)
  await note(tx, run, { work: step.work, outcome, reason, spent: await spentBy(tx, run.jobId) })
}

const reasonOf = (job: Job | undefined): string =>
  job?.state === 'stopped' ? 'Somebody stopped it.' : `It failed${job?.problem ? ` (${job.problem})` : ''}.`

async function begin(services: Services, tx: Db, run: RunRow, step: AutomationStep): Promise<void> {
  const started = await startStep(services, tx, run, step)
  if ('jobId' in started)
    return change(tx, run, { jobId: started.jobId, editionId: started.editionId ?? run.editionId })
  await note(tx, run, { work: step.work, outcome: started.outcome, reason: started.reason, spent: 0 })
}

const change = async (tx: Db, { id }: RunRow, set: Partial<RunRow>): Promise<void> => {
  await tx.update(automationRuns).set(set).where(eq(automationRuns.id, id))
}

const note = (tx: Db, run: RunRow, done: Done): Promise<void> =>
  change(tx, run, { done: [...run.done, done], jobId: null, editionId: null })

async function spentBy(tx: Db, jobId: string): Promise<number> {
  const [sum] = await tx
    .select({ spent: sql<string>`coalesce(sum(${charges.amount}), 0)` })
    .from(charges)
    .where(eq(charges.jobId, jobId))
  return Number(sum?.spent ?? 0)
}
