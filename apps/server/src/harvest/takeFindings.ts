import type { Mapping } from '@upper-field/core/table'
import { and, eq, sql } from 'drizzle-orm'
import { batchIsReady } from '../bring/batchReady'
import { begunOrNew, growBatch } from '../bring/ownBatch'
import { type Db, transaction } from '../db/database'
import { batches, harvestPages, harvests } from '../db/schema'
import { Problem } from '../http/problem'
import type { BatchRow } from '../projection/rowCells'
import type { Services } from '../services'
import { takenAlready } from './findHarvest'
import { type FoundAt, findingsOf } from './findings'
import type { HarvestRow } from './storePage'

/** The columns of a batch from public pages. */
const COLUMNS: readonly { readonly heading: string; readonly field: Mapping[number] }[] = [
  { heading: 'Business', field: 'company' },
  { heading: 'Telephone', field: 'number' },
  { heading: 'E-mail', field: 'email' },
  { heading: 'Site', field: 'web' },
  { heading: 'Country', field: 'country' },
  { heading: 'Address', field: null },
  { heading: 'Opening hours', field: null },
  { heading: 'Page', field: null },
  { heading: 'How it was found', field: null },
  { heading: 'Quotation', field: null },
  { heading: 'Read on', field: null },
]
/** A site that shows more lines than this tells of several businesses: each line is a row of its own. */
const MOST_LINES = 6

/**
 * Makes an ordinary batch of what was found: a row for each business, with where everything stands. What was cut off goes
 * on behind the rows that are there.
 */
export async function takeFindings(services: Services, { id }: HarvestRow): Promise<BatchRow> {
  return transaction(services.pool, async (tx) => {
    // Held to the end: of two who take it at once, the second finds it taken.
    await tx.execute(sql`select pg_advisory_xact_lock(hashtextextended(${id}, 0))`)
    const [harvest] = await services.db.select().from(harvests).where(eq(harvests.id, id))
    if (!harvest || harvest.takenAt !== null) throw takenAlready()
    return take(services, harvest)
  })
}

async function take(services: Services, harvest: HarvestRow): Promise<BatchRow> {
  const { db } = services
  const cells = await rowsOf(db, harvest)
  if (cells.length === 0)
    throw new Problem(422, 'nothing-found', 'Nothing that was found is taken: there would be no row.')
  const batch = await batchFor(services, harvest)
  await growBatch(services, batch, cells.slice(batch.rows))
  await transaction(services.pool, async (tx) => {
    await tx
      .update(harvests)
      .set({ takenAt: new Date(services.now()) })
      .where(eq(harvests.id, harvest.id))
    await batchIsReady(tx, batch, { rows: cells.length, held: 0 })
  })
  const [grown] = await db.select().from(batches).where(eq(batches.id, batch.id))
  return grown ?? batch
}

/** The batch of a harvest. */
function batchFor(services: Services, harvest: HarvestRow): Promise<BatchRow> {
  const facts = {
    listId: harvest.listId,
    name: harvest.name,
    columns: COLUMNS,
    sourceKind: 'public-page',
    gatheredOn: new Date(services.now()).toISOString().slice(0, 10),
    lawfulBasis: 'not-stated',
    note: `Read from public pages, begun on ${harvest.madeAt.toISOString().slice(0, 10)}.`,
  }
  return begunOrNew(services, harvest.batchId, facts, async (tx, batchId) => {
    await tx.update(harvests).set({ batchId }).where(eq(harvests.id, harvest.id))
  })
}

type Row = readonly string[]

async function rowsOf(db: Db, { id }: HarvestRow): Promise<readonly Row[]> {
  const taken = (await findingsOf(db, id, null)).filter(({ state }) => state === 'taken')
  const facts = await factsOfSites(db, id)
  const bySite = new Map<string, FoundAt[]>()
  for (const one of taken) bySite.set(one.site, [...(bySite.get(one.site) ?? []), one])
  return [...bySite].flatMap(([site, all]) => rowsOfSite(site, all, facts.get(site)))
}

interface SiteFacts {
  readonly country: string
  readonly name: string
  readonly title: string
  readonly address: string
  readonly openingHours: string
  readonly fetchedOn: string
}

function rowsOfSite(site: string, all: readonly FoundAt[], facts: SiteFacts | undefined): readonly Row[] {
  const numbers = all.filter(({ kind }) => kind === 'number')
  const emails = all.filter(({ kind }) => kind === 'email')
  const together = numbers.length <= MOST_LINES ? [numbers] : numbers.map((one) => [one])
  return together.map((lines, at) => {
    const mails = at === 0 ? emails : []
    const those = [...lines, ...mails]
    return [
      facts?.name || facts?.title || site,
      lines.map(shownValue).join(' / '),
      mails.map(shownValue).join(' / '),
      site,
      facts?.country ?? '',
      facts?.address ?? '',
      facts?.openingHours ?? '',
      [...new Set(those.flatMap(({ pages }) => pages))].join(' '),
      [...new Set(those.flatMap(({ how }) => how))].join(', '),
      those.map(({ quote }) => quote).join(' | '),
      facts?.fetchedOn ?? '',
    ]
  })
}

const shownValue = ({ value, corrected }: FoundAt): string => corrected ?? value

async function factsOfSites(db: Db, harvestId: string): Promise<ReadonlyMap<string, SiteFacts>> {
  const pages = await db
    .select({
      site: harvestPages.site,
      title: harvestPages.title,
      country: harvestPages.country,
      business: harvestPages.business,
      fetchedAt: harvestPages.fetchedAt,
    })
    .from(harvestPages)
    .where(and(eq(harvestPages.harvestId, harvestId), eq(harvestPages.state, 'read')))
    .orderBy(harvestPages.depth, harvestPages.id)
  const facts = new Map<string, SiteFacts>()
  for (const { site, title, country, business, fetchedAt } of pages) {
    const known = facts.get(site)
    facts.set(site, {
      country: known?.country || (country ?? ''),
      name: known?.name || (business?.name ?? ''),
      title: known?.title || title,
      address: known?.address || (business?.address ?? ''),
      openingHours: known?.openingHours || (business?.openingHours.join('; ') ?? ''),
      fetchedOn: known?.fetchedOn || (fetchedAt?.toISOString().slice(0, 10) ?? ''),
    })
  }
  return facts
}
