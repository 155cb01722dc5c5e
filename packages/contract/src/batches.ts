import { z } from 'zod'
import {
  CountryCode,
  Encoding,
  Field,
  Format,
  HeldReason,
  Id,
  Instant,
  LawfulBasis,
  Merged,
  Micros,
  Note,
  SourceKind,
} from './words'

export const BATCH_STATES = ['uploading', 'queued', 'reading', 'ready', 'stopped', 'failed', 'taken-back'] as const
export const BatchState = z.enum(BATCH_STATES)

/** What the operator settles before a batch is brought in. */
export const NewBatch = z.object({
  name: z.string().trim().min(1).max(200),
  fileName: z.string().max(400),
  bytes: z.number().int().positive(),
  format: Format,
  /** Which sheet of a workbook; null where the format has none. */
  sheet: z.string().max(300).nullable(),
  encoding: Encoding,
  delimiter: z.string().length(1),
  bom: z.number().int().min(0).max(3),
  /** The first row that can be a contact, from 1. */
  firstRow: z.number().int().positive(),
  /** Row of the headings (of the last line of them); null where there are none. */
  headingsRow: z.number().int().positive().nullable(),
  headings: z.array(z.string().max(2000)).min(1).max(2000),
  mapping: z.array(Field.nullable()).min(1).max(2000),
  merged: Merged,
  takesHidden: z.boolean(),
  /** What was found in the file and how it was understood. */
  notes: z.array(Note).max(60),
  defaultCountry: CountryCode.nullable(),
  /** Mail hosts of the file that serve people of many companies: learnt from its rows. */
  publicHosts: z.array(z.string().max(253)).max(100).optional(),
  sourceKind: SourceKind,
  gatheredOn: z.iso.date().nullable(),
  lawfulBasis: LawfulBasis,
  note: z.string().max(2000),
  /** What was paid for the list. */
  price: Micros.nullable(),
})
export type NewBatch = z.infer<typeof NewBatch>

export const Batch = NewBatch.extend({
  id: Id,
  listId: Id,
  /** 0 where it came of no file: from a program, a directory or pages. */
  bytes: z.number().int().min(0),
  state: BatchState,
  /** Code of what went wrong, where the state is `failed`. */
  problem: z.string().nullable(),
  sha256: z.string().nullable(),
  /** Bytes of the file that are here: an upload that broke off goes on behind them. */
  received: z.number().int(),
  rows: z.number().int(),
  held: z.number().int(),
  withMobile: z.number().int(),
  /** Other batches of the very same file, not taken back. */
  sameFile: z.array(z.object({ batchId: Id, name: z.string(), listName: z.string() })),
  createdAt: Instant,
  jobId: Id.nullable(),
})
export type Batch = z.infer<typeof Batch>

export const HeldRow = z.object({
  row: z.number().int(),
  reason: HeldReason,
  text: z.string(),
  /** The same as cells, as well as it can be told. */
  cells: z.array(z.string()),
  /** A cell is longer than what is told of it here: to let the row in by these would lose the rest. */
  isCut: z.boolean(),
})
export type HeldRow = z.infer<typeof HeldRow>

/** A held row, mended: a cell for each column. */
export const MendedRow = z.object({ cells: z.array(z.string().max(65_536)).min(1).max(2000) })
/** Held rows that are let in as they stand: short ones blank at their end. */
export const LetIn = z.object({ reason: HeldReason })
export const LetInResult = z.object({ letIn: z.number().int(), stillHeld: z.number().int() })

/** How files of one layout were brought in last time. */
export const Layout = NewBatch.pick({
  mapping: true,
  defaultCountry: true,
  sourceKind: true,
  lawfulBasis: true,
}).extend({
  usedAt: Instant,
  batchName: z.string(),
})
export type Layout = z.infer<typeof Layout>
export const KnownLayout = z.object({ layout: Layout.nullable() })

/** A batch that was brought in from the same bytes. */
export const SameFile = z.object({
  batchId: Id,
  name: z.string(),
  listId: Id,
  listName: z.string(),
  createdAt: Instant,
})
export type SameFile = z.infer<typeof SameFile>

/** What became of a batch, for comparing sources. Contacts count once, where their first row stands. */
export const BatchYield = z.object({
  batchId: Id,
  contacts: z.number().int(),
  joined: z.number().int(),
  /** Of the contacts: by their lane. */
  text: z.number().int(),
  call: z.number().int(),
  adsOnly: z.number().int(),
  parked: z.number().int(),
  outOfService: z.number().int(),
  withEmail: z.number().int(),
  spent: Micros,
})
export type BatchYield = z.infer<typeof BatchYield>
