import { FillOptions, FillPlan, type FillResult, type Job, type LawfulRegions } from '@upper-field/contract'
import { eq, sql } from 'drizzle-orm'
import type { Hono } from 'hono'
import { noRegister } from '../check/routes'
import { type Db, transaction } from '../db/database'
import { LOCKS } from '../db/locks'
import { fillRuns, lawfulRegions } from '../db/schema'
import { Problem } from '../http/problem'
import { serve } from '../http/serve'
import { asJob, createJob } from '../jobs/store'
import { findList, findOpenList } from '../lists/routes'
import type { Services } from '../services'
import { refuseOverLimit } from '../spend/limit'
import { callbackRoutes } from './callbacks'
import { estimateFill } from './estimate'
import { failingProviders } from './failing'
import { namedIn, planOf } from './plan'
import { expectedOf, expectRest, readFillSample } from './sample'
import { takeCandidate, takeFillBack } from './takeByHand'
import { readContactTrail, readTrail } from './trail'
import { openSearches } from './wanting'

export function fillRoutes(app: Hono, services: Services): void {
  const { db } = services

  serve(app, services, 'estimateFill', async ({ params, query }) => {
    await findList(db, params.listId)
    const order = query.order.split(',').filter(Boolean)
    const options = readOptions(query.options)
    const plan = await planOf(db, { order, checksLines: query.checksLines === 'yes', options })
    const meant = { ...query, ...options, listId: params.listId, contactId: query.contactId ?? null }
    const estimate = await estimateFill(db, plan, meant)
    return { ...estimate, expected: await expectedOf(db, params.listId, order, estimate.wanting) }
  })

  serve(app, services, 'startFill', async ({ params, body, me }) =>
    transaction(services.pool, (tx) => startFill(tx, { ...body, listId: params.listId, startedBy: me.name })),
  )

  serve(app, services, 'readLawfulRegions', () => readLawfulRegions(db))
  serve(app, services, 'changeLawfulRegions', async ({ body }) => {
    const set = { countries: [...new Set(body.countries)].sort() }
    await db.insert(lawfulRegions).values(set).onConflictDoUpdate({ target: lawfulRegions.isOnly, set })
    return readLawfulRegions(db)
  })

  serve(app, services, 'readFillSample', async ({ params, query }) => {
    await findList(db, params.listId)
    return readFillSample(db, params.listId, query.order.split(',').filter(Boolean), query.budget ?? null)
  })

  serve(app, services, 'readTrail', async ({ params, query }) => {
    await findList(db, params.listId)
    const named = (text: string) => text.split(',').filter(Boolean)
    return readTrail(db, {
      ...query,
      listId: params.listId,
      foundBy: named(query.foundBy),
      because: named(query.because),
      cursor: query.cursor,
    })
  })
  serve(app, services, 'readContactTrail', ({ params }) => readContactTrail(db, params.contactId))
  serve(app, services, 'takeCandidate', async ({ params, body }) => {
    await takeCandidate(services, { ...params, ...body })
    return {}
  })
  serve(app, services, 'takeFillBack', async ({ params }) => {
    await takeFillBack(services, params.fillId)
    return {}
  })

  serve(app, services, 'readFills', async ({ params }) => fillResults(db, params.listId))
  callbackRoutes(app, services)
}

async function readLawfulRegions(db: Db): Promise<LawfulRegions> {
  const [set] = await db.select().from(lawfulRegions)
  return { countries: set?.countries ?? [] }
}

/** Options of a plan as they stand in an address. */
function readOptions(text: string): FillOptions {
  const read = FillOptions.safeParse(parseJson(text))
  if (!read.success) throw new Problem(422, 'not-understood', 'The options of this plan cannot be read.')
  return read.data
}

function parseJson(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    return undefined
  }
}

async function startFill(
  tx: Db,
  { listId, startedBy, ...plan }: FillPlan & { readonly listId: string; readonly startedBy: string },
): Promise<Job> {
  await findOpenList(tx, listId)
  await tx.execute(sql`select pg_advisory_xact_lock(hashtextextended(${listId}::text, ${LOCKS.fills}))`)
  await refuseSecondRun(tx, listId)
  const terms = await planOf(tx, plan)
  if (plan.checksLines && terms.register === null) throw noRegister()
  const meant = {
    ...plan.options,
    listId,
    filter: plan.filter,
    contactId: plan.contactId,
    notAgainDays: plan.notAgainDays,
  }
  const { wanting, most, leftOut } = await estimateFill(tx, terms, meant)
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
    payload: {},
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
  })
  await openSearches(tx, job.id, meant, plan.sample)
  return asJob(job)
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
    sql`select count(*) as contacts, count(*) filter (where state = 'found') as found,
      count(*) filter (where state = 'partly') as partly from fill_searches where job_id = ${run.jobId}`,
  )
  const { rows } = await db.execute<Record<string, string>>(sql`
    select a.provider, count(*) as asked, count(*) filter (where a.state = 'accepted') as accepted,
      count(*) filter (where a.state = 'set-aside') as set_aside, count(*) filter (where a.state = 'waiting') as waiting,
      count(*) filter (where a.state in ('failed', 'late')) as failed,
      percentile_cont(0.5) within group (order by extract(epoch from a.answered_at - a.asked_at) * 1000)
        filter (where a.state in ('accepted', 'set-aside', 'nothing')) as wait,
      count(*) filter (where a.state = 'accepted' and not exists (
        select 1 from attempts o where o.job_id = a.job_id and o.contact_id = a.contact_id and o.provider <> a.provider and o.state = 'accepted')) as only_here,
      (select count(*) from candidates d join attempts t on t.id = d.attempt_id where t.job_id = ${run.jobId} and t.provider = a.provider and d.outcome <> 'not-wanted') as candidates,
      (select coalesce(sum(amount), 0) from charges c where c.job_id = ${run.jobId} and c.provider = a.provider) as cost
    from attempts a where a.job_id = ${run.jobId} group by a.provider`)
  const byProvider = new Map(rows.map((row) => [row.provider, row]))
  const failing = await failingProviders(db, run.jobId, namedIn(run.order, run.options))
  return {
    jobId: run.jobId,
    plan: FillPlan.parse({ ...run, contactId: null }),
    spent: run.spent,
    contacts: Number(searches[0]?.contacts ?? 0),
    found: Number(searches[0]?.found ?? 0),
    partly: Number(searches[0]?.partly ?? 0),
    leftOut: run.leftOut,
    startedAt: run.startedAt.toISOString(),
    rest: await expectRest(db, run),
    providers: namedIn(run.order, run.options).map((provider) => {
      const n = (name: string) => Number(byProvider.get(provider)?.[name] ?? 0)
      return {
        provider,
        asked: n('asked'),
        candidates: n('candidates'),
        accepted: n('accepted'),
        setAside: n('set_aside'),
        waiting: n('waiting'),
        failed: n('failed'),
        onlyHere: n('only_here'),
        medianWait: byProvider.get(provider)?.wait == null ? null : Math.round(n('wait')),
        isSetAside: failing.has(provider),
        cost: n('cost'),
      }
    }),
  }
}
