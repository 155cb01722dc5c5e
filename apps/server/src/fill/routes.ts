import { FillPlan, type FillResult } from '@upper-field/contract'
import { eq, sql } from 'drizzle-orm'
import type { Hono } from 'hono'
import { noRegister } from '../check/routes'
import { type Db, transaction } from '../db/database'
import { LOCKS } from '../db/locks'
import { fillRuns } from '../db/schema'
import { Problem } from '../http/problem'
import { serve } from '../http/serve'
import { asJob, createJob } from '../jobs/store'
import { findList, findOpenList } from '../lists/routes'
import type { Services } from '../services'
import { refuseOverLimit } from '../spend/limit'
import { callbackRoutes } from './callbacks'
import { failingProviders } from './failing'
import { readFillSample } from './sample'
import { estimateFill, planOf, wantingOf } from './wanting'

export function fillRoutes(app: Hono, services: Services): void {
  const { db } = services

  serve(app, services, 'estimateFill', async ({ params, query }) => {
    await findList(db, params.listId)
    const plan = await planOf(db, query.order.split(',').filter(Boolean), query.checksLines === 'yes')
    return estimateFill(db, params.listId, plan, query)
  })

  serve(app, services, 'startFill', async ({ params, body, me }) =>
    transaction(services.pool, async (tx) => {
      await findOpenList(tx, params.listId)
      await tx.execute(sql`select pg_advisory_xact_lock(hashtextextended(${params.listId}::text, ${LOCKS.fills}))`)
      await refuseSecondRun(tx, params.listId)
      const plan = await planOf(tx, body.order, body.checksLines)
      if (body.checksLines && plan.register === null) throw noRegister()
      const { wanting, most } = await estimateFill(tx, params.listId, plan, body)
      if (wanting === 0)
        throw new Problem(
          409,
          'nobody-wanting',
          body.filter === ''
            ? 'Every contact of this list has a mobile already, or may not be written to.'
            : 'Nobody of those chosen wants a mobile.',
        )
      await refuseOverLimit(tx, Math.min(body.budget, most))
      const job = await createJob(tx, {
        kind: 'fill',
        listId: params.listId,
        unit: 'contacts',
        total: Math.min(wanting, body.sample ?? wanting),
        payload: {},
        startedBy: me.name,
      })
      await tx.insert(fillRuns).values({
        jobId: job.id,
        listId: params.listId,
        order: body.order,
        checksLines: body.checksLines,
        budget: body.budget,
        asking: body.asking,
        sample: body.sample,
        notAgainDays: body.notAgainDays,
        filter: body.filter,
      })
      await tx.execute(sql`
        insert into fill_searches (job_id, contact_id, state)
        select ${job.id}::uuid, id, 'open' from contacts where ${wantingOf(params.listId, body.filter)}
        order by md5(${job.id} || id) limit ${body.sample}`)
      return asJob(job)
    }),
  )

  serve(app, services, 'readFillSample', async ({ params, query }) => {
    await findList(db, params.listId)
    return readFillSample(db, params.listId, query.order.split(',').filter(Boolean), query.budget ?? null)
  })

  serve(app, services, 'readFills', async ({ params }) => fillResults(db, params.listId))
  callbackRoutes(app, services)
}

async function refuseSecondRun(tx: Db, listId: string): Promise<void> {
  const { rows } = await tx.execute(sql`
    select 1 from jobs where list_id = ${listId} and kind = 'fill' and state in ('queued', 'running', 'waiting', 'stopping') limit 1`)
  if (rows.length > 0)
    throw new Problem(409, 'fill-under-way', 'A fill of this list is under way. Stop it or wait for its end.')
}

async function fillResults(db: Db, listId: string): Promise<FillResult[]> {
  const runs = await db
    .select()
    .from(fillRuns)
    .where(eq(fillRuns.listId, listId))
    .orderBy(sql`started_at desc`)
    .limit(10)
  return Promise.all(runs.map((run) => resultOf(db, run)))
}

async function resultOf(db: Db, run: typeof fillRuns.$inferSelect): Promise<FillResult> {
  const { rows: searches } = await db.execute<Record<string, string>>(
    sql`select count(*) as contacts, count(*) filter (where state = 'found') as found from fill_searches where job_id = ${run.jobId}`,
  )
  const { rows } = await db.execute<Record<string, string>>(sql`
    select a.provider, count(*) as asked, count(*) filter (where a.state = 'accepted') as accepted,
      count(*) filter (where a.state = 'set-aside') as set_aside, count(*) filter (where a.state = 'waiting') as waiting,
      count(*) filter (where a.state in ('failed', 'late')) as failed,
      (select count(*) from candidates d join attempts t on t.id = d.attempt_id where t.job_id = ${run.jobId} and t.provider = a.provider) as candidates,
      (select coalesce(sum(amount), 0) from charges c where c.job_id = ${run.jobId} and c.provider = a.provider) as cost
    from attempts a where a.job_id = ${run.jobId} group by a.provider`)
  const byProvider = new Map(rows.map((row) => [row.provider, row]))
  const failing = await failingProviders(db, run.jobId)
  return {
    jobId: run.jobId,
    plan: FillPlan.parse(run),
    spent: run.spent,
    contacts: Number(searches[0]?.contacts ?? 0),
    found: Number(searches[0]?.found ?? 0),
    startedAt: run.startedAt.toISOString(),
    providers: run.order.map((provider) => {
      const n = (name: string) => Number(byProvider.get(provider)?.[name] ?? 0)
      return {
        provider,
        asked: n('asked'),
        candidates: n('candidates'),
        accepted: n('accepted'),
        setAside: n('set_aside'),
        waiting: n('waiting'),
        failed: n('failed'),
        isSetAside: failing.has(provider),
        cost: n('cost'),
      }
    }),
  }
}
