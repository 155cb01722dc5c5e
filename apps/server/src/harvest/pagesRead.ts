import { and, eq, isNull, type SQL, sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { harvestPages, harvestSites } from '../db/schema'

export type PageRow = typeof harvestPages.$inferSelect

/** A page that was read, with the country its site is of by now. */
export interface PageOfSite {
  readonly page: PageRow
  readonly siteCountry: string | null
}

/** Which pages of a harvest. */
export interface WhichPages {
  readonly site?: string
  readonly withoutCountry?: boolean
  readonly except?: number
}

/** So many pages are held at once. */
const AT_ONCE = 50

/** The pages of a harvest that were read, in the order in which they came, a few at a time. */
export async function* pagesRead(
  db: Db,
  harvestId: string,
  { site, withoutCountry = false, except }: WhichPages = {},
): AsyncGenerator<PageOfSite> {
  const ofSite = and(eq(harvestSites.harvestId, harvestPages.harvestId), eq(harvestSites.site, harvestPages.site))
  const meant: (SQL | undefined)[] = [
    eq(harvestPages.harvestId, harvestId),
    eq(harvestPages.state, 'read'),
    site === undefined ? undefined : eq(harvestPages.site, site),
    withoutCountry ? isNull(harvestPages.country) : undefined,
    except === undefined ? undefined : sql`${harvestPages.id} <> ${except}`,
  ]
  for (let after = 0; ; ) {
    const some = await db
      .select({ page: harvestPages, siteCountry: harvestSites.country })
      .from(harvestPages)
      .innerJoin(harvestSites, ofSite)
      .where(and(...meant, sql`${harvestPages.id} > ${after}`))
      .orderBy(harvestPages.id)
      .limit(AT_ONCE)
    yield* some
    const last = some.at(-1)?.page.id
    if (last === undefined) return
    after = last
  }
}
