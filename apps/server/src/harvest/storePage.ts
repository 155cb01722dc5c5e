import { gunzipSync, gzipSync } from 'node:zlib'
import {
  countryOfPage,
  harvestPage,
  linksOn,
  type NumberFormat,
  type Page,
  readPage,
  siteOf,
} from '@upper-field/core/harvest'
import { and, eq, isNull, sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { insertRows } from '../db/insertRows'
import { num, readRow, readRows, text } from '../db/readRows'
import { harvestFindings, harvestPages, harvestSites, type harvests, numberFormats } from '../db/schema'
import { type PageRow, pagesRead, type WhichPages } from './pagesRead'

export type HarvestRow = typeof harvests.$inferSelect

/** A page of more values than this is no page about one business. */
const MOST_FINDINGS = 1000
/** Links of links are not followed further. */
const DEEPEST = 3
/** All pages of one harvest. */
const MOST_PAGES = 50_000

export const formatsOf = async (db: Db): Promise<readonly NumberFormat[]> =>
  (await db.select({ format: numberFormats.format }).from(numberFormats).orderBy(numberFormats.madeAt)).map(
    ({ format }) => format,
  )

export const htmlOf = (page: Pick<PageRow, 'html'>): string =>
  page.html === null ? '' : gunzipSync(page.html).toString('utf8')

/** Stores a page that was read with what was found on it, and the pages it leads to. */
export async function storePage(
  tx: Db,
  harvest: HarvestRow,
  page: PageRow,
  fetched: { readonly url: string; readonly html: string },
  { delay, at }: { readonly delay: number; readonly at: Date },
): Promise<void> {
  const parsed = readPage(fetched.html)
  await tx
    .update(harvestPages)
    .set({
      state: 'read',
      problem: null,
      finalUrl: fetched.url,
      title: parsed.title.slice(0, 300),
      language: parsed.language.slice(0, 20),
      html: gzipSync(fetched.html),
      fetchedAt: at,
    })
    .where(eq(harvestPages.id, page.id))
  const { country, isNew } = await countryOfSite(tx, harvest, page.site, parsed, fetched.url)
  const formats = await formatsOf(tx)
  const ofSite = { url: fetched.url, country }
  await storeFindings(tx, page, parsed, ofSite, formats)
  // What an earlier page could not tell, this one does.
  if (isNew) await findAnew(tx, harvest, formats, { site: page.site, withoutCountry: true, except: page.id })
  await addLinks(tx, harvest, page, linksOn(parsed, fetched.url))
  await tx
    .update(harvestSites)
    .set({ nextAt: new Date(at.getTime() + delay * 1000) })
    .where(and(eq(harvestSites.harvestId, harvest.id), eq(harvestSites.site, page.site)))
}

/** The country a page is of; that of its site where it does not tell itself. */
async function countryOfSite(
  tx: Db,
  { id, settings }: HarvestRow,
  site: string,
  page: Page,
  url: string,
): Promise<{ country: string | null; isNew: boolean }> {
  if (settings.country !== null) return { country: settings.country, isNew: false }
  const ofSite = and(eq(harvestSites.harvestId, id), eq(harvestSites.site, site))
  const told = countryOfPage(page, url)
  const [known] = await tx.select({ country: harvestSites.country }).from(harvestSites).where(ofSite)
  if (told === null) return { country: known?.country ?? null, isNew: false }
  const learnt = await tx
    .update(harvestSites)
    .set({ country: told })
    .where(and(ofSite, isNull(harvestSites.country)))
    .returning({ site: harvestSites.site })
  return { country: told, isNew: learnt.length > 0 }
}

async function storeFindings(
  tx: Db,
  page: Pick<PageRow, 'id' | 'harvestId' | 'site'>,
  parsed: Page,
  { url, country }: { readonly url: string; readonly country: string | null },
  formats: readonly NumberFormat[],
): Promise<void> {
  const found = harvestPage(parsed, { url, country, formats })
  await tx.delete(harvestFindings).where(eq(harvestFindings.pageId, page.id))
  await insertRows(
    tx,
    harvestFindings,
    found.findings.slice(0, MOST_FINDINGS).map((one, position) => ({
      harvestId: page.harvestId,
      pageId: page.id,
      site: page.site,
      kind: one.kind,
      value: one.value,
      raw: one.raw.slice(0, 200),
      how: one.how,
      confidence: one.confidence,
      quote: one.quote.slice(0, 300),
      position,
    })),
  )
  await tx
    .update(harvestPages)
    .set({
      country: found.country,
      business: found.business,
      leftOut: found.leftOut.slice(0, MOST_FINDINGS),
      ...(found.findings.length > MOST_FINDINGS ? { problem: 'many-values' } : {}),
    })
    .where(eq(harvestPages.id, page.id))
}

/** Looks through pages that were read once more: with other formats, or knowing the country. */
export async function findAnew(
  tx: Db,
  { id, settings }: HarvestRow,
  formats: readonly NumberFormat[],
  which: WhichPages = {},
): Promise<void> {
  for await (const { page, siteCountry } of pagesRead(tx, id, which)) {
    const country = page.country ?? settings.country ?? siteCountry
    await storeFindings(tx, page, readPage(htmlOf(page)), { url: page.finalUrl ?? page.url, country }, formats)
  }
}

/** Ranks of pages that are found by links: what tells how a business is reached comes first. */
const CONTACT_RANK = 1
const OTHER_RANK = 2

async function addLinks(
  tx: Db,
  harvest: HarvestRow,
  page: PageRow,
  links: readonly { readonly url: string; readonly isContact: boolean }[],
): Promise<void> {
  const { follow, pagesPerSite } = harvest.settings
  if (follow === 'none' || page.depth >= DEEPEST) return
  const wanted = links.filter(({ isContact }) => isContact || follow === 'all')
  const counted = await readRow(tx, { followed: num, all: num })`
    select count(*) filter (where site = ${page.site} and depth > 0) as followed, count(*) as all
    from harvest_pages where harvest_id = ${harvest.id}`
  const room = Math.min(pagesPerSite - (counted?.followed ?? 0), MOST_PAGES - (counted?.all ?? 0))
  if (room <= 0) return
  const known = await readRows(tx, { url: text })`
    select url from harvest_pages where harvest_id = ${harvest.id} and url = any(${sql.param(wanted.map(({ url }) => url))}::text[])`
  const there = new Set(known.map(({ url }) => url))
  await addPages(
    tx,
    harvest.id,
    wanted
      .filter(({ url }) => !there.has(url))
      .slice(0, room)
      .map(({ url, isContact }) => ({ url, depth: page.depth + 1, rank: isContact ? CONTACT_RANK : OTHER_RANK })),
  )
}

interface NewPage {
  readonly url: string
  readonly depth: number
  readonly rank: number
}

/** Adds pages that are not there yet, and their sites. */
export async function addPages(tx: Db, harvestId: string, pages: readonly NewPage[]): Promise<void> {
  await insertRows(
    tx,
    harvestPages,
    pages.map(({ url, depth, rank }) => ({ harvestId, site: siteOf(url), url, depth, rank })),
    sql`on conflict do nothing`,
  )
  const first = await tx.$count(harvestSites, eq(harvestSites.harvestId, harvestId))
  await insertRows(
    tx,
    harvestSites,
    [...new Set(pages.map(({ url }) => siteOf(url)))].map((site, at) => ({ harvestId, site, position: first + at })),
    sql`on conflict do nothing`,
  )
}
