import { z } from 'zod'
import { CountryCode, Encoding, Field, HeldReason, Id, Instant, LawfulBasis, SourceKind } from './words'

export const BATCH_STATES = ['uploading', 'queued', 'reading', 'ready', 'stopped', 'failed'] as const
export const BatchState = z.enum(BATCH_STATES)

/** What the operator settles before a batch is brought in. */
export const NewBatch = z.object({
  name: z.string().trim().min(1).max(200),
  fileName: z.string().max(400),
  bytes: z.number().int().positive(),
  encoding: Encoding,
  delimiter: z.string().length(1),
  bom: z.number().int().min(0).max(3),
  hasHeadings: z.boolean(),
  headings: z.array(z.string().max(2000)).min(1).max(2000),
  mapping: z.array(Field.nullable()).min(1).max(2000),
  defaultCountry: CountryCode.nullable(),
  sourceKind: SourceKind,
  gatheredOn: z.iso.date().nullable(),
  lawfulBasis: LawfulBasis,
  note: z.string().max(2000),
})
export type NewBatch = z.infer<typeof NewBatch>

export const Batch = NewBatch.extend({
  id: Id,
  listId: Id,
  state: BatchState,
  /** Code of what went wrong, where the state is `failed`. */
  problem: z.string().nullable(),
  sha256: z.string().nullable(),
  rows: z.number().int(),
  held: z.number().int(),
  withMobile: z.number().int(),
  createdAt: Instant,
  jobId: Id.nullable(),
})
export type Batch = z.infer<typeof Batch>

export const HeldRow = z.object({ row: z.number().int(), reason: HeldReason, text: z.string() })
export type HeldRow = z.infer<typeof HeldRow>
