import { type Connector, isFreeAnswer, type PageTerms, priceOf, sizeWithin } from '@upper-field/core/connect'
import { eq, sql } from 'drizzle-orm'
import { batchIsReady } from '../bring/batchReady'
import { type Asking, type OpenDirectory, openDirectory, type Page } from '../connections/directoryClient'
import { type Db, transaction } from '../db/database'
import { readRows, text } from '../db/readRows'
import { directoryRecords, directorySearches } from '../db/schema'
import { JobProblem } from '../jobs/jobProblem'
import type { JobHandler, StepOutcome } from '../jobs/runner'
import { type JobRow, saveJob } from '../jobs/store'
import type { Services } from '../services'
import { charge } from '../spend/charge'
import type { SearchRow } from './findSearch'
import { type JudgedRecord, judgeRecords, recordOf } from './judgeRecords'
import { knownOfList } from './known'
import { takeRecords } from './takeRecords'

/**
 * Fetches businesses page by page. A page is asked for under its own key, so that it is charged once however often it
 * is asked for; it is kept and booked in one transaction, and becomes rows in the next step.
 */
export const directoryJob: JobHandler = {
  async step(services, job): Promise<StepOutcome> {
    const search = await searchOf(services.db, job)
    await takeRecords(services, search)
    if (search.isWhole) return finish(services, job)
    const open = await openDirectory(services, search.provider)
    const { isInPart: _, ...known } = await knownOfList(services.db, { ...search, known: open.directory.known })
    const asking = { trade: search.trade.code, place: search.place.code, ...known }
    const terms = termsOf(open.connector, await priceNow(open, asking, search))
    const size = sizeWithin(terms, search.budget - search.spent)
    if (size === 0) return finish(services, job)
    const key = `${search.id}:${search.pages}`
    const page = await open.page({ ...asking, cursor: search.cursor ?? '', size }, key)
    await keepPage(services, job, search, open, page, key)
    return { next: 'step' }
  },
  // What was paid for becomes rows before the work rests.
  mayStop: async (services, job) => {
    await takeRecords(services, await searchOf(services.db, job))
    return null
  },
}

async function searchOf(db: Db, { payload }: JobRow): Promise<SearchRow> {
  const { searchId } = payload as { searchId: string }
  const [search] = await db.select().from(directorySearches).where(eq(directorySearches.id, searchId))
  if (!search) throw new JobProblem('search-gone')
  return search
}

/** What pages of a directory cost, at a price. */
export function termsOf({ charge: { per }, directory }: Connector, price: number): PageTerms {
  if (!directory || (per !== 'call' && per !== 'candidate')) throw new JobProblem('no-directory')
  return { per, price, perPage: directory.perPage }
}

/** What one charge costs now: asked for anew where that costs nothing, so that no page passes the budget by a price that rose. */
async function priceNow({ directory, count }: OpenDirectory, asking: Asking, search: SearchRow): Promise<number> {
  return (directory.count.price === null ? null : (await count(asking)).price) ?? search.price
}

/** Keeps a page with what it cost, and goes on behind it. */
async function keepPage(
  { db, pool, now }: Services,
  job: JobRow,
  search: SearchRow,
  { connector }: OpenDirectory,
  page: Page,
  key: string,
): Promise<void> {
  const price = page.price ?? priceOf(connector)
  const judged = await judgeRecords(db, search.listId, page.items, await toldBefore(db, search, page))
  const at = new Date(now())
  const booked = chargesOf(connector, judged, key).map(({ subject, question }) => ({
    listId: search.listId,
    jobId: job.id,
    provider: search.provider,
    subject,
    question,
    amount: price,
    reason: 'directory',
    at,
  }))
  await transaction(pool, async (tx) => {
    const { added, kept } = await keepRecords(tx, search.id, judged)
    const spent = search.spent + (price > 0 ? await charge(tx, booked) : 0)
    const leftOut = search.leftOut + page.leftOut
    await tx
      .update(directorySearches)
      .set({
        spent,
        price,
        leftOut,
        cursor: page.next,
        pages: search.pages + 1,
        // Pages that lead nowhere, or tell again what this search was told, would be paid for ever.
        isWhole: page.next === null || page.next === search.cursor || (added === 0 && page.leftOut === 0),
      })
      .where(eq(directorySearches.id, search.id))
    await saveJob(tx, job.id, {
      phase: 'fetching',
      done: Math.min(search.total, kept + leftOut),
      total: search.total,
      result: { spent, businesses: kept },
    })
  })
}

/** What a page is charged for: the call, or each business that is not free. */
function chargesOf({ charge: terms }: Connector, judged: readonly JudgedRecord[], key: string) {
  if (terms.per === 'call') return [{ subject: 'a page', question: key }]
  return judged
    .filter(({ facts }) => !isFreeAnswer(terms, facts))
    .map(({ record }) => ({ subject: record, question: `${key}|${record}` }))
}

async function toldBefore(db: Db, search: SearchRow, { items }: Page): Promise<ReadonlySet<string>> {
  const records = items.map(recordOf)
  const told = await readRows(db, { record: text })`
    select r.record from directory_records r join directory_searches s on s.id = r.search_id
    where s.list_id = ${search.listId} and s.provider = ${search.provider} and r.record = any(${sql.param(records)}::text[])`
  return new Set(told.map(({ record }) => record))
}

/** @returns how many businesses this search was told of now, and altogether */
async function keepRecords(
  tx: Db,
  searchId: string,
  judged: readonly JudgedRecord[],
): Promise<{ readonly added: number; readonly kept: number }> {
  const lines = judged.map((one) => ({ searchId, ...one, reach: [...one.reach] }))
  const added =
    lines.length === 0
      ? []
      : await tx.insert(directoryRecords).values(lines).onConflictDoNothing().returning({ id: directoryRecords.id })
  return { added: added.length, kept: await tx.$count(directoryRecords, eq(directoryRecords.searchId, searchId)) }
}

async function finish(services: Services, job: JobRow): Promise<StepOutcome> {
  const { id, listId, batchId } = await searchOf(services.db, job)
  if (batchId === null) return { next: 'done' }
  await transaction(services.pool, async (tx) => {
    const rows = await tx.$count(
      directoryRecords,
      sql`${directoryRecords.searchId} = ${id} and ${directoryRecords.contactId} is not null`,
    )
    await batchIsReady(tx, { id: batchId, listId }, { rows, held: 0 })
  })
  return { next: 'done' }
}
