import { FOUND_HOW, LEFT_OUT_WHY } from '@upper-field/core/harvest'
import { z } from 'zod'
import { CountryCode, Id, Instant } from './words'

export const FOLLOWS = ['none', 'contact', 'all'] as const
/** How far the links of a page are followed: not at all, to pages that tell how a business is reached, or all of a site. */
export const Follow = z.enum(FOLLOWS)

const MOST_ADDRESSES = 10_000

/** Where pages come from: addresses of one's own, or the sites of contacts. */
export const HarvestSource = z.discriminatedUnion('from', [
  z.object({
    from: z.literal('addresses'),
    /** One to a line; a scheme need not be written. */
    addresses: z.array(z.string().max(2000)).min(1).max(MOST_ADDRESSES, `At most ${MOST_ADDRESSES} addresses at once.`),
  }),
  z.object({ from: z.literal('contacts'), filter: z.string().max(2000) }),
])
export type HarvestSource = z.infer<typeof HarvestSource>

export const HarvestPlanned = z.object({
  source: HarvestSource,
  follow: Follow,
  /** Of each site, besides the addresses that were given. */
  pagesPerSite: z.number().int().min(1).max(200),
  /** Where the numbers are dialled; null where each page tells. */
  country: CountryCode.nullable(),
})
export const NewHarvest = HarvestPlanned.extend({ name: z.string().trim().min(1).max(200) })
export type NewHarvest = z.infer<typeof NewHarvest>

const UnreadAddress = z.object({
  line: z.number().int(),
  text: z.string(),
  why: z.enum(['no-address', 'scheme', 'private']),
})

/** What a harvest would come to, before anything but robots.txt is read. */
export const HarvestPlan = z.object({
  addresses: z.number().int(),
  sites: z.number().int(),
  /** Lines that are no address of a page; the first of them. */
  unread: z.array(UnreadAddress),
  unreadCount: z.number().int(),
  repeated: z.number().int(),
  /** Sites of the chosen contacts beyond those that one harvest reads. */
  beyond: z.number().int(),
  /** Of the sites that were asked so far: what their robots.txt says. */
  asked: z.number().int(),
  forbidden: z.array(z.string()),
  unreachable: z.array(z.string()),
  /** Sites that ask for a wait between pages, in seconds. */
  slow: z.array(z.object({ site: z.string(), seconds: z.number() })),
  mostPages: z.number().int(),
  mostSeconds: z.number().int(),
  mostBytes: z.number(),
})
export type HarvestPlan = z.infer<typeof HarvestPlan>

export const SITE_STATES = ['waiting', 'open', 'forbidden', 'unreachable'] as const

export const HarvestSite = z.object({
  site: z.string(),
  state: z.enum(SITE_STATES),
  problem: z.string().nullable(),
  /** Seconds that are waited between two of its pages. */
  delay: z.number(),
  country: z.string().nullable(),
  pages: z.number().int(),
  read: z.number().int(),
  waiting: z.number().int(),
  /** Pages that were being read when the server stopped: they are not asked for a second time by themselves. */
  interrupted: z.number().int(),
  numbers: z.number().int(),
  emails: z.number().int(),
  /** Values that are not taken by themselves and that nobody has decided on. */
  toLookAt: z.number().int(),
})
export type HarvestSite = z.infer<typeof HarvestSite>

export const Harvest = z.object({
  id: Id,
  listId: Id,
  name: z.string(),
  follow: Follow,
  pagesPerSite: z.number().int(),
  country: z.string().nullable(),
  jobId: Id.nullable(),
  batchId: Id.nullable(),
  madeBy: z.string(),
  madeAt: Instant,
  sites: z.number().int(),
  sitesRead: z.number().int(),
  pages: z.number().int(),
  pagesRead: z.number().int(),
  businesses: z.number().int(),
  numbers: z.number().int(),
  emails: z.number().int(),
  toLookAt: z.number().int(),
})
export type Harvest = z.infer<typeof Harvest>
export const HarvestDetail = Harvest.extend({ ofSites: z.array(HarvestSite) })
export type HarvestDetail = z.infer<typeof HarvestDetail>

export const FINDING_STATES = ['taken', 'look', 'dropped'] as const
/** A value at a site, with all its pages. */
export const SiteFinding = z.object({
  kind: z.enum(['number', 'email']),
  value: z.string(),
  /** What a person has put in its place. */
  corrected: z.string().nullable(),
  state: z.enum(FINDING_STATES),
  decidedBy: z.string().nullable(),
  confidence: z.number(),
  how: z.array(z.enum(FOUND_HOW)),
  raw: z.string(),
  quote: z.string(),
  pages: z.array(z.string()),
})
export type SiteFinding = z.infer<typeof SiteFinding>

export const SitePage = z.object({
  id: z.number().int(),
  url: z.string(),
  state: z.enum(['waiting', 'reading', 'read', 'forbidden', 'failed', 'not-read']),
  problem: z.string().nullable(),
  title: z.string(),
  language: z.string(),
  country: z.string().nullable(),
  fetchedAt: Instant.nullable(),
  /** Its text, a block of it after the other. */
  blocks: z.array(z.string()),
  leftOut: z.array(z.object({ raw: z.string(), why: z.enum(LEFT_OUT_WHY) })),
})
export type SitePage = z.infer<typeof SitePage>

export const HarvestedSite = z.object({
  site: z.string(),
  business: z.object({ name: z.string(), address: z.string(), openingHours: z.array(z.string()) }).nullable(),
  pages: z.array(SitePage),
  findings: z.array(SiteFinding),
})
export type HarvestedSite = z.infer<typeof HarvestedSite>

export const FindingDecision = z.object({
  site: z.string().max(300),
  kind: z.enum(['number', 'email']),
  value: z.string().max(320),
  /** Null takes the decision back. */
  decision: z.enum(['taken', 'dropped']).nullable(),
  corrected: z.string().trim().max(320).nullable().default(null),
})
export type FindingDecision = z.input<typeof FindingDecision>

const Words = z.array(z.string().trim().toLowerCase().min(1).max(40)).max(20)
export const NumberFormat = z.object({
  name: z.string().trim().min(1).max(80),
  takes: z.boolean(),
  country: CountryCode.nullable(),
  startsWithPlus: z.boolean(),
  groups: z
    .array(z.object({ least: z.number().int().min(1), most: z.number().int().max(40), behind: z.string().max(4) }))
    .min(1)
    .max(12),
  after: Words,
  notAfter: Words,
})

/** What a person has marked on a page: a number that was missed, or one that is none. */
export const MarkedExample = z.object({
  block: z.string().max(20_000),
  raw: z.string().max(200),
  takes: z.boolean(),
  country: CountryCode.nullable(),
})
const Change = z.object({ url: z.string(), value: z.string(), raw: z.string(), quote: z.string() })
/** What a format would do on the pages of a harvest; the first of each. */
export const TriedFormat = z.object({
  format: NumberFormat,
  finds: z.number().int(),
  loses: z.number().int(),
  lookAlikes: z.number().int(),
  pages: z.number().int(),
  found: z.array(Change),
  lost: z.array(Change),
  suspects: z.array(Change.extend({ word: z.string() })),
})
export type TriedFormat = z.infer<typeof TriedFormat>
export const KeptFormat = z.object({ format: NumberFormat, madeBy: z.string(), madeAt: Instant })
