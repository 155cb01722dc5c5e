import type { FillResult } from '@upper-field/contract'
import { and, eq, sql } from 'drizzle-orm'
import type { Hono } from 'hono'
import { z } from 'zod'
import { type Db, transaction } from '../db/database'
import { LOCKS } from '../db/locks'
import { attempts, fillRuns } from '../db/schema'
import { readBody } from '../http/body'
import { notFound, Problem } from '../http/problem'
import { check, parseJson, serve } from '../http/serve'
import { asJob, createJob, enqueue } from '../jobs/store'
import { findList, findOpenList } from '../lists/routes'
import { withoutNul } from '../nul'
import type { Services } from '../services'
import { Candidates, isSignature } from './askProvider'
import { estimateFill, providersOf, WANTING } from './wanting'

const Callback = z.object({ candidates: Candidates })

export function fillRoutes(app: Hono, services: Services): void {
  const { db } = services

  serve(app, services, 'estimateFill', async ({ params, query }) => {
    await findList(db, params.listId)
    return estimateFill(db, params.listId, query.order.split(',').filter(Boolean), query.checksLines === 'yes')
  })

  serve(app, services, 'startFill', async ({ params, body, me }) =>
    transaction(services.pool, async (tx) => {
      await findOpenList(tx, params.listId)
      await tx.execute(sql`select pg_advisory_xact_lock(hashtextextended(${params.listId}::text, ${LOCKS.fills}))`)
      await refuseSecondRun(tx, params.listId)
      providersOf(body.order)
      const { wanting } = await estimateFill(tx, params.listId, body.order, body.checksLines)
      if (wanting === 0) throw new Problem(409, 'nobody-wanting', 'Every contact of this list has a mobile already.')
      const job = await createJob(tx, {
        kind: 'fill',
        listId: params.listId,
        unit: 'contacts',
        total: wanting,
        payload: {},
        startedBy: me.name,
      })
      await tx.insert(fillRuns).values({
        jobId: job.id,
        listId: params.listId,
        order: body.order,
        checksLines: body.checksLines,
        budget: body.budget,
      })
      await tx.execute(sql`
        insert into fill_searches (job_id, contact_id, state)
        select ${job.id}::uuid, id, 'open' from contacts where list_id = ${params.listId} and ${WANTING}`)
      return asJob(job)
    }),
  )

  serve(app, services, 'readFills', async ({ params }) => fillResults(db, params.listId))

  /** Where a provider brings a late answer. It may come twice or too late: only the first in time counts. */
  app.post('/api/v1/callbacks/:attemptId/:signature', async (c) => {
    const { attemptId, signature } = c.req.param()
    if (!z.uuid().safeParse(attemptId).success || !isSignature(services.config.sessionSecrets, attemptId, signature))
      throw notFound('attempt')
    const { bodyBytes, bodySeconds } = services.config.limits
    const text = withoutNul(await readBody(c, { bytes: bodyBytes, seconds: bodySeconds }))
    const candidates = await candidatesIn(text).catch(async (error: unknown) => {
      // Told where the attempt ends: the provider did answer, but nothing that can be read.
      await db
        .update(attempts)
        .set({ reason: 'odd-answer' })
        .where(and(eq(attempts.id, attemptId), eq(attempts.state, 'waiting')))
      throw error
    })
    await transaction(services.pool, async (tx) => {
      const [attempt] = await tx.select().from(attempts).where(eq(attempts.id, attemptId)).for('update')
      if (attempt?.state !== 'waiting' || attempt.answer) return
      await tx
        .update(attempts)
        .set({ answer: candidates, answeredAt: new Date(services.now()) })
        .where(eq(attempts.id, attemptId))
      await enqueue(tx, attempt.jobId)
    })
    return c.json({})
  })
}

const candidatesIn = async (text: string): Promise<Candidates> => check(Callback, parseJson(text)).candidates

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
  return {
    jobId: run.jobId,
    plan: { order: run.order, checksLines: run.checksLines, budget: run.budget },
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
        cost: n('cost'),
      }
    }),
  }
}
