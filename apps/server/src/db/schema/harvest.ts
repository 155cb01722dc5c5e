import type { Harvest, NumberFormat } from '@upper-field/core/harvest'
import { bigint, index, integer, jsonb, pgTable, primaryKey, real, text, unique, uuid } from 'drizzle-orm/pg-core'
import { bytea, id, instant } from './columns'
import { ofList } from './lists'

/** How far a harvest reads. */
export interface HarvestSettings {
  readonly follow: 'none' | 'contact' | 'all'
  readonly pagesPerSite: number
  readonly country: string | null
}

/** Pages that are read for numbers and addresses, for one list. */
export const harvests = pgTable(
  'harvests',
  {
    id: id(),
    listId: ofList(),
    name: text('name').notNull(),
    settings: jsonb('settings').$type<HarvestSettings>().notNull(),
    jobId: uuid('job_id'),
    /** The batch its findings become, and when all of them stood in it. */
    batchId: uuid('batch_id'),
    takenAt: instant('taken_at'),
    /** Whom a site may write to: told to it with every call. */
    contact: text('contact').notNull(),
    madeBy: text('made_by').notNull(),
    madeAt: instant('made_at').notNull().defaultNow(),
  },
  (t) => [index('harvests_list').on(t.listId, t.madeAt)],
)

/** The sites of a harvest: one is read a page at a time. */
export const harvestSites = pgTable(
  'harvest_sites',
  {
    harvestId: uuid('harvest_id').notNull(),
    /** Host, without `www.`. */
    site: text('site').notNull(),
    position: integer('position').notNull(),
    /** `waiting` until its rules are known, then `open`, `forbidden` or `unreachable`. */
    state: text('state').notNull().default('waiting'),
    problem: text('problem'),
    /** Its robots.txt as it stood; null where it has none. */
    robots: text('robots'),
    /** Seconds that are waited between two of its pages. */
    delay: real('delay').notNull().default(0),
    nextAt: instant('next_at'),
    /** How often it has asked to be left alone. */
    timesBusy: integer('times_busy').notNull().default(0),
    country: text('country'),
  },
  (t) => [primaryKey({ columns: [t.harvestId, t.site] })],
)

/** Every page that is to be read or was, once. */
export const harvestPages = pgTable(
  'harvest_pages',
  {
    id: bigint('id', { mode: 'number' }).primaryKey().generatedAlwaysAsIdentity(),
    harvestId: uuid('harvest_id').notNull(),
    site: text('site').notNull(),
    url: text('url').notNull(),
    /** 0 for an address that was given, one more for each link that was followed. */
    depth: integer('depth').notNull(),
    /** The lower, the sooner: given ones, then those that tell how a business is reached. */
    rank: integer('rank').notNull(),
    /** `waiting`, `reading`, `read`, `forbidden`, `failed`, `not-read`. */
    state: text('state').notNull().default('waiting'),
    problem: text('problem'),
    finalUrl: text('final_url'),
    title: text('title').notNull().default(''),
    language: text('language').notNull().default(''),
    country: text('country'),
    /** The page, packed: formats that are taught later are tried on it. */
    html: bytea('html'),
    business: jsonb('business').$type<Harvest['business']>(),
    leftOut: jsonb('left_out').$type<Harvest['leftOut']>().notNull().default([]),
    fetchedAt: instant('fetched_at'),
  },
  (t) => [
    unique('harvest_pages_url').on(t.harvestId, t.url),
    index('harvest_pages_site').on(t.harvestId, t.site, t.state, t.rank, t.id),
  ],
)

/** What was found on a page. */
export const harvestFindings = pgTable(
  'harvest_findings',
  {
    id: bigint('id', { mode: 'number' }).primaryKey().generatedAlwaysAsIdentity(),
    harvestId: uuid('harvest_id').notNull(),
    pageId: bigint('page_id', { mode: 'number' }).notNull(),
    site: text('site').notNull(),
    kind: text('kind').$type<'number' | 'email'>().notNull(),
    value: text('value').notNull(),
    raw: text('raw').notNull(),
    how: text('how').notNull(),
    confidence: real('confidence').notNull(),
    quote: text('quote').notNull(),
    position: integer('position').notNull(),
  },
  (t) => [
    unique('harvest_findings_once').on(t.pageId, t.kind, t.value),
    index('harvest_findings_site').on(t.harvestId, t.site),
  ],
)

/** What a person has decided of a value at a site, on whatever page it stands. */
export const harvestDecisions = pgTable(
  'harvest_decisions',
  {
    harvestId: uuid('harvest_id').notNull(),
    site: text('site').notNull(),
    kind: text('kind').notNull(),
    value: text('value').notNull(),
    decision: text('decision').$type<'taken' | 'dropped'>().notNull(),
    /** The value a person has put in its place. */
    corrected: text('corrected'),
    by: text('by').notNull(),
    at: instant('at').notNull().defaultNow(),
  },
  (t) => [primaryKey({ columns: [t.harvestId, t.site, t.kind, t.value] })],
)

/** Formats of numbers that were taught by example, for all harvests. */
export const numberFormats = pgTable('number_formats', {
  name: text('name').primaryKey(),
  format: jsonb('format').$type<NumberFormat>().notNull(),
  madeBy: text('made_by').notNull(),
  madeAt: instant('made_at').notNull().defaultNow(),
})
