import { type Harvest, type HarvestedSite, type HarvestSite, isOver, type Me } from '@upper-field/contract'
import { readPage } from '@upper-field/core/harvest'
import { isValidE164 } from '@upper-field/core/phone'
import { and, desc, eq, inArray, sql } from 'drizzle-orm'
import type { Hono } from 'hono'
import { asBatch } from '../bring/batches'
import { transaction } from '../db/database'
import { harvestDecisions, harvestPages, harvests, jobs } from '../db/schema'
import { notFound, Problem } from '../http/problem'
import { serve } from '../http/serve'
import { createJob, resumeJob } from '../jobs/store'
import { findList, findOpenList } from '../lists/routes'
import type { CallServices } from '../services'
import type { Visitor } from './fetchPage'
import { findHarvest, findOpenHarvest, findUntakenHarvest } from './findHarvest'
import { findingsOf, sitesOfHarvest } from './findings'
import { formatRoutes } from './formatRoutes'
import { readFailedAgain } from './harvestJob'
import type { PageRow } from './pagesRead'
import { addressesOf, planOf } from './plan'
import { addPages, type HarvestRow, htmlOf } from './storePage'
import { takeFindings } from './takeFindings'

/** Pages of one site that are shown at once: those on which something was found come before others. */
const PAGES_SHOWN = 50

export function harvestRoutes(app: Hono, services: CallServices): void {
  formatRoutes(app, services)
  const { db, pool, config } = services
  const visitorOf = (me: Me): Visitor => ({ config, contact: me.email })
  serve(app, services, 'planHarvest', async ({ params, body, me }) => {
    await findOpenList(db, params.listId)
    return planOf(services, visitorOf(me), await addressesOf(services, params.listId, body.source), body)
  })

  serve(app, services, 'startHarvest', async ({ params, body, me }) => {
    const list = await findOpenList(db, params.listId)
    const { urls } = await addressesOf(services, list.id, body.source)
    const { follow, pagesPerSite, country, name } = body
    const made = await transaction(pool, async (tx) => {
      const [row] = await tx
        .insert(harvests)
        .values({
          listId: list.id,
          name,
          settings: { follow, pagesPerSite, country },
          contact: me.email,
          madeBy: me.name,
        })
        .returning()
      if (!row) throw new Error('insert returned nothing')
      await addPages(
        tx,
        row.id,
        urls.map((url) => ({ url, depth: 0, rank: 0 })),
      )
      const job = await createJob(tx, {
        kind: 'harvest',
        listId: list.id,
        unit: 'pages',
        total: urls.length,
        payload: { harvestId: row.id },
        startedBy: me.name,
      })
      await tx.update(harvests).set({ jobId: job.id }).where(eq(harvests.id, row.id))
      return { ...row, jobId: job.id }
    })
    return describe(made)
  })

  serve(app, services, 'readHarvests', async ({ params, query }) => {
    await findList(db, params.listId)
    const all = await db
      .select()
      .from(harvests)
      .where(eq(harvests.listId, params.listId))
      .orderBy(desc(harvests.madeAt))
      .limit(query.limit)
    return Promise.all(all.map((one) => describe(one)))
  })

  serve(app, services, 'readHarvest', async ({ params }) => {
    const harvest = await findHarvest(db, params.harvestId)
    const ofSites = await sitesOfHarvest(db, harvest.id)
    return { ...(await describe(harvest, ofSites)), ofSites }
  })

  serve(app, services, 'readHarvestedSite', async ({ params, query, me }) => {
    const harvest = await findHarvest(db, params.harvestId)
    const findings = await findingsOf(db, harvest.id, query.site)
    await services.callLimits.read(me.id, findings.length)
    return {
      site: query.site,
      findings: findings.map(({ site: _, ...one }) => one),
      ...(await pagesOf(harvest, query.site)),
    }
  })

  async function pagesOf({ id }: HarvestRow, site: string): Promise<Pick<HarvestedSite, 'business' | 'pages'>> {
    const isOfSite = and(eq(harvestPages.harvestId, id), eq(harvestPages.site, site))
    const inOrder = [harvestPages.depth, harvestPages.rank, harvestPages.id]
    const hasFindings = sql`exists (select 1 from harvest_findings f where f.page_id = ${harvestPages.id})`
    const first = db.select({ id: harvestPages.id }).from(harvestPages).where(isOfSite)
    const pages = await db
      .select()
      .from(harvestPages)
      .where(inArray(harvestPages.id, first.orderBy(desc(hasFindings), ...inOrder).limit(PAGES_SHOWN)))
      .orderBy(...inOrder)
    if (pages.length === 0) throw notFound('site')
    return {
      business: asBusiness(pages.find(({ business }) => business !== null)?.business ?? null),
      pages: pages.map((page) => ({
        id: page.id,
        url: page.finalUrl ?? page.url,
        state: page.state,
        problem: page.problem,
        title: page.title,
        language: page.language,
        country: page.country,
        fetchedAt: page.fetchedAt?.toISOString() ?? null,
        blocks: page.state === 'read' ? blocksOf(htmlOf(page)) : [],
        leftOut: page.leftOut.map((one) => ({ ...one })),
      })) as HarvestedSite['pages'],
    }
  }

  serve(app, services, 'decideFinding', async ({ params, body, me }) => {
    const harvest = await findUntakenHarvest(db, params.harvestId)
    const { site, kind, value, decision, corrected } = body
    const known = (await findingsOf(db, harvest.id, site)).some((one) => one.kind === kind && one.value === value)
    if (!known) throw notFound('value')
    if (corrected !== null && kind === 'number' && !isValidE164(corrected))
      throw new Problem(422, 'no-number', 'This is no number that can be dialled from abroad, such as +43 5246 555018.')
    if (corrected !== null && kind === 'email' && !/^[^\s@]+@[^\s@]+\.[^\s@]+$/.test(corrected))
      throw new Problem(422, 'no-address', 'This is no e-mail address.')
    const key = { harvestId: harvest.id, site, kind, value }
    if (decision === null)
      await db
        .delete(harvestDecisions)
        .where(
          and(
            eq(harvestDecisions.harvestId, harvest.id),
            eq(harvestDecisions.site, site),
            eq(harvestDecisions.kind, kind),
            eq(harvestDecisions.value, value),
          ),
        )
    else {
      const decided = { decision, corrected, by: me.name, at: new Date(services.now()) }
      await db
        .insert(harvestDecisions)
        .values({ ...key, ...decided })
        .onConflictDoUpdate({
          target: [harvestDecisions.harvestId, harvestDecisions.site, harvestDecisions.kind, harvestDecisions.value],
          set: decided,
        })
    }
    return {}
  })

  serve(app, services, 'readPagesAgain', async ({ params, body }) => {
    const harvest = await findUntakenHarvest(db, params.harvestId)
    const pages = await transaction(pool, async (tx) => {
      const waiting = await readFailedAgain(tx, harvest.id, body.site)
      if (waiting > 0 && harvest.jobId) {
        const [job] = await tx.select().from(jobs).where(eq(jobs.id, harvest.jobId)).for('update')
        if (job?.state === 'done') await tx.update(jobs).set({ state: 'stopped' }).where(eq(jobs.id, job.id))
        if (job && isOver(job)) await resumeJob(tx, job.id)
      }
      return waiting
    })
    return { pages }
  })

  serve(app, services, 'takeHarvest', async ({ params }) => {
    const harvest = await findOpenHarvest(db, params.harvestId)
    const [job] = harvest.jobId ? await db.select().from(jobs).where(eq(jobs.id, harvest.jobId)) : []
    if (job && !isOver(job))
      throw new Problem(409, 'still-reading', 'Pages are still being read. Stop it, or wait until it is done.')
    return asBatch(await takeFindings(services, harvest))
  })

  async function describe(harvest: HarvestRow, known?: readonly HarvestSite[]): Promise<Harvest> {
    const sites = known ?? (await sitesOfHarvest(db, harvest.id))
    const sum = (of: (site: (typeof sites)[number]) => number) => sites.reduce((all, site) => all + of(site), 0)
    const { follow, pagesPerSite, country } = harvest.settings
    return {
      id: harvest.id,
      listId: harvest.listId,
      name: harvest.name,
      follow,
      pagesPerSite,
      country,
      jobId: harvest.jobId,
      batchId: harvest.takenAt === null ? null : harvest.batchId,
      madeBy: harvest.madeBy,
      madeAt: harvest.madeAt.toISOString(),
      sites: sites.length,
      sitesRead: sites.filter(({ state, waiting }) => state !== 'waiting' && waiting === 0).length,
      pages: sum(({ pages }) => pages),
      pagesRead: sum(({ read }) => read),
      businesses: sites.filter(({ numbers, emails }) => numbers + emails > 0).length,
      numbers: sum(({ numbers }) => numbers),
      emails: sum(({ emails }) => emails),
      toLookAt: sum(({ toLookAt }) => toLookAt),
    }
  }
}

const asBusiness = (business: PageRow['business']): HarvestedSite['business'] =>
  business && { ...business, openingHours: [...business.openingHours] }

/** The text of a page as it is shown: its first blocks, none of them without end. */
const blocksOf = (html: string): string[] =>
  readPage(html)
    .blocks.slice(0, MOST_BLOCKS)
    .map(({ text }) => text.slice(0, LONGEST_BLOCK))
const MOST_BLOCKS = 400
const LONGEST_BLOCK = 4000
