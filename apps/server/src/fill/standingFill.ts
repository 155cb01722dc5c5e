import { FillPlan, type StandingFill } from '@upper-field/contract'
import { eq } from 'drizzle-orm'
import type { Db } from '../db/database'
import { fillStanding } from '../db/schema'
import { Problem } from '../http/problem'
import { estimatePlan } from './estimate'
import { startFill } from './startFill'

/** By which plan new batches of a list are filled on their own; null where nobody has said. */
export async function readStandingFill(db: Db, listId: string): Promise<StandingFill | null> {
  const [set] = await db.select().from(fillStanding).where(eq(fillStanding.listId, listId))
  return set ? { isOn: set.isOn, perBatch: set.perBatch, plan: set.plan, changedBy: set.changedBy } : null
}

export async function changeStandingFill(
  db: Db,
  listId: string,
  { isOn, perBatch, plan, changedBy }: StandingFill,
): Promise<StandingFill | null> {
  const set = { isOn, perBatch, plan, changedBy }
  await db
    .insert(fillStanding)
    .values({ listId, ...set })
    .onConflictDoUpdate({ target: fillStanding.listId, set })
  return readStandingFill(db, listId)
}

/** What became of filling a new batch: the job that does it, or the code of why there is none. */
export type StandingStarted = { readonly fillJob: string } | { readonly fillProblem: string }

/**
 * Fills a batch that has just been brought in by the plan that stands, where it is switched on. What keeps a fill from
 * starting never keeps a batch from being brought in.
 */
export async function fillNewBatch(
  tx: Db,
  batch: { readonly id: string; readonly listId: string },
): Promise<StandingStarted | null> {
  const standing = await readStandingFill(tx, batch.listId)
  if (!standing?.isOn) return null
  try {
    const kept = FillPlan.parse({ ...standing.plan, budget: standing.perBatch, filter: `batch:${batch.id}` })
    const plan = { ...kept, listId: batch.listId }
    const job = await startFill(tx, { ...plan, startedBy: standing.changedBy }, await estimatePlan(tx, plan))
    return { fillJob: job.id }
  } catch (error) {
    if (error instanceof Problem) return { fillProblem: error.code }
    throw error
  }
}
