import type { Job } from '@upper-field/contract'
import { pricesOf } from '@upper-field/core/fill'
import { sql } from 'drizzle-orm'
import { noRegister } from '../check/startCheck'
import type { Db } from '../db/database'
import { LOCKS } from '../db/locks'
import { fillRuns } from '../db/schema'
import { Problem } from '../http/problem'
import { asJob, createJob } from '../jobs/store'
import { findOpenList } from '../lists/routes'
import { refuseOverLimit } from '../spend/limit'
import type { EstimatedFill } from './estimate'
import { planOf } from './plan'
import type { FillOfList } from './wanting'

/**
 * Starts a fill of a list: for whom exactly the job itself writes down, which takes seconds for a large one. Throws a
 * problem where it may not start, or would ask nobody: nothing is written then.
 * @param estimate what it comes to, as it was worked out lately
 */
export async function startFill(
  tx: Db,
  { listId, startedBy, ...plan }: FillOfList & { readonly startedBy: string },
  { wanting, most, leftOut }: EstimatedFill,
): Promise<Job> {
  await findOpenList(tx, listId)
  await tx.execute(sql`select pg_advisory_xact_lock(hashtextextended(${listId}::text, ${LOCKS.fills}))`)
  await refuseSecondRun(tx, listId)
  const terms = await planOf(tx, plan)
  if (plan.checksLines && terms.register === null) throw noRegister()
  if (wanting === 0)
    throw new Problem(
      409,
      'nobody-wanting',
      plan.filter === '' && plan.contactId === null
        ? 'Every contact of this list has a mobile already, or may not be written to.'
        : 'Nobody of those chosen wants a mobile.',
    )
  await refuseOverLimit(tx, Math.min(plan.budget, most))
  const job = await createJob(tx, {
    kind: 'fill',
    listId,
    unit: 'contacts',
    total: Math.min(wanting, plan.sample ?? wanting),
    payload: { contactId: plan.contactId },
    startedBy,
  })
  await tx.insert(fillRuns).values({
    jobId: job.id,
    listId,
    order: plan.order,
    checksLines: plan.checksLines,
    budget: plan.budget,
    asking: plan.asking,
    sample: plan.sample,
    notAgainDays: plan.notAgainDays,
    filter: plan.filter,
    options: plan.options,
    leftOut,
    prices: pricesOf(terms.providers),
  })
  return asJob(job)
}

async function refuseSecondRun(tx: Db, listId: string): Promise<void> {
  const { rows } = await tx.execute(sql`
    select 1 from jobs where list_id = ${listId} and kind = 'fill' and state in ('queued', 'running', 'waiting', 'stopping') limit 1`)
  if (rows.length > 0)
    throw new Problem(409, 'fill-under-way', 'A fill of this list is under way. Stop it or wait for its end.')
}
