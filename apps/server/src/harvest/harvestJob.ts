import { and, eq, inArray, sql } from 'drizzle-orm'
import PQueue from 'p-queue'
import { type Db, transaction } from '../db/database'
import { num, orZero, readRow, text } from '../db/readRows'
import { harvestPages, harvestSites, harvests } from '../db/schema'
import { JobProblem } from '../jobs/jobProblem'
import type { JobHandler, StepOutcome } from '../jobs/runner'
import { type JobRow, saveJob } from '../jobs/store'
import type { Services } from '../services'
import { fetchPage, type PageProblem, type Visitor } from './fetchPage'
import type { PageRow } from './pagesRead'
import { askRobots, rulesOf } from './robots'
import { addPages, type HarvestRow, storePage } from './storePage'

type SiteRow = typeof harvestSites.$inferSelect

/** How long one step goes on taking up sites, in milliseconds: a pause or a stop is heeded after it. */
const STEP = 1500
/** A site that asks to be left alone so often is left alone. */
const MOST_BUSY = 4
/** Pages to be read: HTML and plain text. */
const PAGES = /^(?:text\/html|application\/xhtml\+xml|text\/plain)\b/i

/** Reads the pages of a harvest: one at a time of each site, a few sites at once, each page once. */
export const harvestJob: JobHandler = {
  async step(services, job): Promise<StepOutcome> {
    const harvest = await findHarvestOf(services.db, job)
    await giveUpInterrupted(services.db, harvest.id)
    const until = Date.now() + STEP
    const taken = new Set<string>()
    // One chooses after the other: two that look at the same moment would take up the same site.
    const choosing = new PQueue({ concurrency: 1 })
    const choose = () =>
      choosing.add(async () => {
        const site = await nextSite(services.db, harvest.id, taken)
        if (site) taken.add(site.site)
        return site
      })
    const lane = async (): Promise<void> => {
      while (Date.now() < until) {
        const site = await choose()
        if (!site) return
        await visit(services, harvest, site).finally(() => taken.delete(site.site))
      }
    }
    await Promise.all(Array.from({ length: services.config.limits.pagesAtOnce }, lane))
    await tell(services.db, job, harvest.id)
    return whatNext(services.db, harvest.id)
  },
}

async function findHarvestOf(db: Db, job: JobRow): Promise<HarvestRow> {
  const { harvestId } = job.payload as { harvestId: string }
  const [harvest] = await db.select().from(harvests).where(eq(harvests.id, harvestId))
  if (!harvest) throw new JobProblem('harvest-gone')
  return harvest
}

/** A page that was being read when the server stopped may have been fetched: it is not asked for twice by itself. */
async function giveUpInterrupted(db: Db, harvestId: string): Promise<void> {
  await db
    .update(harvestPages)
    .set({ state: 'failed', problem: 'interrupted' })
    .where(and(eq(harvestPages.harvestId, harvestId), eq(harvestPages.state, 'reading')))
}

/** Sites with something to be done: those whose rules are not known, and those with pages that wait. */
const WITH_WORK = sql`(s.state = 'waiting' or (s.state = 'open' and exists (
  select 1 from harvest_pages p where p.harvest_id = s.harvest_id and p.site = s.site and p.state = 'waiting')))`

async function nextSite(db: Db, harvestId: string, taken: ReadonlySet<string>): Promise<SiteRow | null> {
  const found = await readRow(db, { site: text })`
    select s.site from harvest_sites s where s.harvest_id = ${harvestId} and ${WITH_WORK}
      and (s.next_at is null or s.next_at <= now()) and s.site <> all(${sql.param([...taken])}::text[])
    order by s.next_at nulls first, s.position limit 1`
  if (!found) return null
  const [site] = await db
    .select()
    .from(harvestSites)
    .where(and(eq(harvestSites.harvestId, harvestId), eq(harvestSites.site, found.site)))
  return site ?? null
}

async function visit(services: Services, harvest: HarvestRow, site: SiteRow): Promise<void> {
  const visitor = { config: services.config, contact: harvest.contact }
  if (site.state === 'waiting') return learnRules(services, visitor, harvest, site)
  const [page] = await services.db
    .select()
    .from(harvestPages)
    .where(
      and(eq(harvestPages.harvestId, harvest.id), eq(harvestPages.site, site.site), eq(harvestPages.state, 'waiting')),
    )
    .orderBy(harvestPages.rank, harvestPages.id)
    .limit(1)
  if (page) await readOne(services, visitor, harvest, site, page)
}

const later = (seconds: number): Date => new Date(Date.now() + seconds * 1000)

async function changeSite(db: Db, site: SiteRow, change: Partial<SiteRow>): Promise<void> {
  await db
    .update(harvestSites)
    .set(change)
    .where(and(eq(harvestSites.harvestId, site.harvestId), eq(harvestSites.site, site.site)))
}

/** Asks a site for its robots.txt, and closes it where nothing of it may be read. */
async function learnRules(services: Services, visitor: Visitor, { id }: HarvestRow, site: SiteRow): Promise<void> {
  const { db, config } = services
  const urls = await db
    .select({ url: harvestPages.url })
    .from(harvestPages)
    .where(and(eq(harvestPages.harvestId, id), eq(harvestPages.site, site.site)))
  const [first] = urls
  if (!first) return changeSite(db, site, { state: 'unreachable', problem: 'no-page' })
  const answer = await askRobots(visitor, first.url)
  if (answer.is === 'busy') return askedToWait(db, site, answer.seconds)
  if (answer.is === 'problem') return closeSite(db, site, 'unreachable', answer.problem)
  const rules = rulesOf(first.url, answer.text)
  if (!urls.some(({ url }) => rules.allows(url))) return closeSite(db, site, 'forbidden', 'forbidden')
  const delay = Math.max(config.limits.pageDelaySeconds, rules.delay)
  await changeSite(db, site, { state: 'open', robots: answer.text, delay, nextAt: later(delay) })
}

async function closeSite(db: Db, site: SiteRow, state: 'unreachable' | 'forbidden', problem: PageProblem) {
  await changeSite(db, site, { state, problem })
  await db
    .update(harvestPages)
    .set({ state: state === 'forbidden' ? 'forbidden' : 'failed', problem })
    .where(
      and(
        eq(harvestPages.harvestId, site.harvestId),
        eq(harvestPages.site, site.site),
        eq(harvestPages.state, 'waiting'),
      ),
    )
}

async function askedToWait(db: Db, site: SiteRow, seconds: number): Promise<void> {
  const timesBusy = site.timesBusy + 1
  if (timesBusy > MOST_BUSY) return closeSite(db, site, 'unreachable', 'site-failed')
  await changeSite(db, site, { timesBusy, nextAt: later(seconds) })
}

async function readOne(
  services: Services,
  visitor: Visitor,
  harvest: HarvestRow,
  site: SiteRow,
  page: PageRow,
): Promise<void> {
  const { db, config, pool } = services
  const rules = rulesOf(page.url, site.robots)
  const finish = async (change: Partial<PageRow>) => {
    await db.update(harvestPages).set(change).where(eq(harvestPages.id, page.id))
    await changeSite(db, site, { nextAt: later(site.delay) })
  }
  if (!rules.allows(page.url)) {
    await db.update(harvestPages).set({ state: 'forbidden', problem: 'forbidden' }).where(eq(harvestPages.id, page.id))
    return
  }
  if (site.delay > config.limits.longestPageDelay && page.depth > 0)
    return finish({ state: 'not-read', problem: 'long-wait' })
  await db.update(harvestPages).set({ state: 'reading' }).where(eq(harvestPages.id, page.id))
  const answer = await fetchPage(visitor, page.url, {
    takes: PAGES,
    bytes: config.limits.pageBytes,
    allows: rules.allows,
  })
  switch (answer.is) {
    case 'busy':
      await db.update(harvestPages).set({ state: 'waiting' }).where(eq(harvestPages.id, page.id))
      return askedToWait(db, site, answer.seconds)
    case 'problem':
      return finish({ state: answer.problem === 'forbidden' ? 'forbidden' : 'failed', problem: answer.problem })
    case 'elsewhere':
      // The other site has rules of its own; a way round and round comes to its end.
      if (page.depth < MOST_SITES_ON)
        await addPages(db, harvest.id, [{ url: answer.url, depth: page.depth + 1, rank: page.rank }])
      return finish({ state: 'not-read', problem: 'elsewhere', finalUrl: answer.url })
    case 'page':
      await transaction(pool, (tx) => storePage(tx, harvest, page, answer, { delay: site.delay, at: new Date() }))
  }
}

/** How often a page may lead on to another site. */
const MOST_SITES_ON = 3

async function tell(db: Db, job: JobRow, harvestId: string): Promise<void> {
  const told = await readRow(db, { done: num, total: num, numbers: num, sites: num })`
    select count(*) filter (where state not in ('waiting', 'reading')) as done, count(*) as total,
      (select count(distinct (site, value)) from harvest_findings f where f.harvest_id = ${harvestId} and kind = 'number') as numbers,
      count(distinct site) filter (where state = 'read') as sites
    from harvest_pages where harvest_id = ${harvestId}`
  await saveJob(db, job.id, {
    phase: 'reading',
    done: told?.done ?? 0,
    total: told?.total ?? 0,
    result: { numbers: told?.numbers ?? 0, sites: told?.sites ?? 0 },
  })
}

/** At once where a site is ready, later where all of them are to be waited for. */
async function whatNext(db: Db, harvestId: string): Promise<StepOutcome> {
  const sites = await readRow(db, { open: num, seconds: orZero })`
    select count(*) as open, min(extract(epoch from coalesce(s.next_at, now()) - now()))::float as seconds
    from harvest_sites s where s.harvest_id = ${harvestId} and ${WITH_WORK}`
  const { open, seconds } = sites ?? { open: 0, seconds: 0 }
  if (open === 0) return { next: 'done' }
  return seconds > 0 ? { next: 'later', seconds: Math.min(30, Math.max(0.1, seconds)) } : { next: 'step' }
}

/** Pages of a site that failed wait for their turn again. @returns how many */
export async function readFailedAgain(db: Db, harvestId: string, site: string): Promise<number> {
  const changed = await db
    .update(harvestPages)
    .set({ state: 'waiting', problem: null })
    .where(
      and(
        eq(harvestPages.harvestId, harvestId),
        eq(harvestPages.site, site),
        inArray(harvestPages.state, ['failed', 'not-read']),
      ),
    )
    .returning({ id: harvestPages.id })
  if (changed.length > 0)
    await db
      .update(harvestSites)
      .set({ state: 'waiting', problem: null, timesBusy: 0, nextAt: null })
      .where(and(eq(harvestSites.harvestId, harvestId), eq(harvestSites.site, site)))
  return changed.length
}
