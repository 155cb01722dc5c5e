import { RECORD_STATES } from '@upper-field/core/connect'
import { z } from 'zod'
import { Id, Instant, Micros } from './words'

/** A trade or a place, as the directory that is asked names it. */
export const Named = z.object({ code: z.string().min(1).max(500), name: z.string().min(1).max(200) })
export type Named = z.infer<typeof Named>

const Asked = z.object({ provider: z.string().max(40), trade: Named, place: Named })

/** What is looked for: businesses of a trade at a place. */
export const DirectoryQuestion = Asked
export type DirectoryQuestion = z.infer<typeof DirectoryQuestion>

/** What a search of a directory would come to, before anything is paid. */
export const DirectoryPlan = z.object({
  /** Businesses there are, those left out with them. */
  total: z.number().int(),
  /** Of those, known already and left out by the service: not told and not paid for. */
  leftOut: z.number().int(),
  /** How many of the list's numbers and of those suppressed the service is told of, so that it can leave them out. */
  named: z.number().int(),
  /** True where there are more of those than the service takes: the rest is paid for, but not taken. */
  isNamedInPart: z.boolean(),
  pricePer: z.enum(['call', 'candidate']),
  price: Micros,
  calls: z.number().int(),
  most: Micros,
})
export type DirectoryPlan = z.infer<typeof DirectoryPlan>

export const NewDirectorySearch = Asked.extend({
  name: z.string().trim().min(1).max(200),
  /** The most it may cost, in millionths of a euro. */
  budget: Micros,
})
export type NewDirectorySearch = z.infer<typeof NewDirectorySearch>

/** What became of a business that a directory told of. */
export const RecordState = z.enum(RECORD_STATES)

export const DirectorySearch = z.object({
  id: Id,
  listId: Id,
  name: z.string(),
  provider: z.string(),
  trade: Named,
  place: Named,
  jobId: Id.nullable(),
  batchId: Id.nullable(),
  madeBy: z.string(),
  madeAt: Instant,
  budget: Micros,
  spent: Micros,
  /** Businesses there were when it began. */
  total: z.number().int(),
  pages: z.number().int(),
  /** Left out by the service as known. */
  leftOut: z.number().int(),
  /** True once the last page was read. */
  isWhole: z.boolean(),
  /** How many became what. */
  became: z.record(RecordState, z.number().int()),
})
export type DirectorySearch = z.infer<typeof DirectorySearch>

/** A business as a directory told of it. */
export const DirectoryRecord = z.object({
  record: z.string(),
  state: RecordState,
  name: z.string(),
  number: z.string(),
  email: z.string(),
  site: z.string(),
  address: z.string(),
  city: z.string(),
  headOffice: z.string(),
})
export type DirectoryRecord = z.infer<typeof DirectoryRecord>
