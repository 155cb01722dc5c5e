import { FillPlan, type FillResult } from '@upper-field/contract'
import { eq, type SQL, sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { num, orNull, type RowOf, readRow, readRows, text } from '../db/readRows'
import { fillRuns } from '../db/schema'
import { failingProviders } from './failing'
import { namedIn } from './plan'
import { expectRest } from './sample'

type RunRow = typeof fillRuns.$inferSelect

/** Runs that are told of, the latest first. */
const TOLD = 10

/** The latest fills of a list and what each provider gave. @param country about contacts of this country alone; null for all */
export async function fillResults(db: Db, listId: string, country: string | null): Promise<FillResult[]> {
  const runs = await db
    .select()
    .from(fillRuns)
    .where(eq(fillRuns.listId, listId))
    .orderBy(sql`started_at desc`)
    .limit(TOLD)
  return Promise.all(runs.map((run) => resultOf(db, run, country)))
}

async function resultOf(db: Db, run: RunRow, country: string | null): Promise<FillResult> {
  const counted = await readRow(db, { contacts: num, found: num, partly: num })`
    select count(*) as contacts, count(*) filter (where state = 'found') as found,
      count(*) filter (where state = 'partly') as partly from fill_searches where job_id = ${run.jobId}`
  return {
    jobId: run.jobId,
    plan: FillPlan.parse({ ...run, contactId: null }),
    spent: run.spent,
    newPrices: Object.entries(run.newPrices).map(([provider, prices]) => ({ provider, ...prices })),
    ...(counted ?? { contacts: 0, found: 0, partly: 0 }),
    leftOut: run.leftOut,
    startedAt: run.startedAt.toISOString(),
    rest: await expectRest(db, run),
    providers: await providersOf(db, run, country),
  }
}

/** What each provider was asked, gave and cost, the checks of what it gave included: together they are what was spent. */
async function providersOf(db: Db, run: RunRow, country: string | null): Promise<FillResult['providers']> {
  const { jobId } = run
  const found = await readRows(db, { provider: text, ...OF_PROVIDER })`
    with asked as (select * from attempts a where a.job_id = ${jobId} ${ofCountry(country)})
    select a.provider, count(*) as asked, count(*) filter (where a.state = 'accepted') as accepted,
      count(*) filter (where a.state = 'set-aside') as set_aside, count(*) filter (where a.state = 'waiting') as waiting,
      count(*) filter (where a.state in ('failed', 'late')) as failed,
      percentile_cont(0.5) within group (order by extract(epoch from a.answered_at - a.asked_at) * 1000)
        filter (where a.state in ('accepted', 'set-aside', 'nothing')) as median_wait,
      count(*) filter (where a.state = 'accepted' and not exists (
        select 1 from attempts o where o.job_id = ${jobId} and o.contact_id = a.contact_id and o.provider <> a.provider
          and o.state = 'accepted')) as only_here,
      (select count(*) from candidates d join asked t on t.id = d.attempt_id
       where t.provider = a.provider and d.outcome <> 'not-wanted') as candidates,
      (select coalesce(sum(c.amount), 0) from charges c join asked t on t.id = c.attempt_id
       where c.job_id = ${jobId} and t.provider = a.provider) as cost
    from asked a group by a.provider`
  const named = namedIn(run.order, run.options)
  const byProvider = new Map(found.map((one) => [one.provider, one]))
  const failing = await failingProviders(db, jobId, named)
  return named.map((provider) => {
    const told = byProvider.get(provider) ?? { ...NOTHING, provider }
    const medianWait = told.medianWait === null ? null : Math.round(told.medianWait)
    return { ...told, medianWait, isSetAside: failing.has(provider) }
  })
}

const OF_PROVIDER = {
  asked: num,
  candidates: num,
  accepted: num,
  setAside: num,
  waiting: num,
  failed: num,
  onlyHere: num,
  cost: num,
  medianWait: orNull(num),
}
const NOTHING: RowOf<typeof OF_PROVIDER> = {
  asked: 0,
  candidates: 0,
  accepted: 0,
  setAside: 0,
  waiting: 0,
  failed: 0,
  onlyHere: 0,
  cost: 0,
  medianWait: null,
}

const ofCountry = (country: string | null): SQL =>
  country === null
    ? sql``
    : sql`and exists (select 1 from contacts k where k.id = a.contact_id and k.country = ${country})`
