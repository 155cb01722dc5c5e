import {
  DELIMITERS,
  FILE_COLUMNS,
  FILE_KINDS,
  type FileColumn,
  NUMBER_FORMS,
  SEND_FIELDS,
  SHEETS,
  TAKES,
} from '@upper-field/core/send'
import { z } from 'zod'
import { Id, Instant } from './words'

export const EDITION_FORMS = ['hashed', 'plain', 'people'] as const
export const EditionForm = z.enum(EDITION_FORMS)

const OfField = z.object({ field: z.enum(SEND_FIELDS), n: z.number().int() })

export const Preflight = z.object({
  destination: z.string(),
  name: z.string(),
  takes: z.enum(TAKES),
  /** So many of a large list were looked at, and all figures are estimates by them; null where everybody was. */
  lookedAt: z.number().int().nullable(),
  /** Contacts the filter chose, parked and suppressed ones left out. */
  chosen: z.number().int(),
  ready: z.number().int(),
  /** Left out: a suppression list keeps them out of ads. */
  suppressed: z.number().int(),
  /** Left out: a field is missing that has to be there on every row. */
  missing: z.array(OfField),
  /** Left out: nothing of them can be matched. */
  nothingToMatch: z.number().int(),
  countryFromNumber: z.number().int(),
  /** Groups of fields that were not whole, and are blank on so many rows. */
  leftBlank: z.array(z.object({ fields: z.array(z.enum(SEND_FIELDS)), n: z.number().int() })),
  /** Values that are not what their form asks for, and are blank. */
  unreadable: z.array(OfField),
  /** Numbers that stood without a country code and have one now. */
  codeMended: z.number().int(),
  /** How many of those ready have each identifier. */
  identifiers: z.array(OfField),
  /** How many of those ready have one identifier, two, and three or more. */
  byCount: z.tuple([z.number().int(), z.number().int(), z.number().int()]),
  workAddresses: z.number().int(),
  personalAddresses: z.number().int(),
  toldFrom: z.number().int().nullable(),
  fewest: z.number().int().nullable(),
  fewestMatched: z.number().int().nullable(),
})
export type Preflight = z.infer<typeof Preflight>

const Column = z.object({
  column: z.enum(Object.keys(FILE_COLUMNS) as [FileColumn, ...FileColumn[]]),
  heading: z.string().trim().min(1).max(100),
})

/** How a file for people looks. */
export const FileLayout = z.object({
  kind: z.enum(FILE_KINDS),
  delimiter: z.enum(DELIMITERS),
  hasBom: z.boolean(),
  numberForm: z.enum(NUMBER_FORMS),
  columns: z.array(Column).min(1).max(60),
  hasExtras: z.boolean(),
  sheets: z.enum(SHEETS).default('one'),
})
export type FileLayout = z.infer<typeof FileLayout>

/** A layout kept by a name, for all lists. */
export const KeptLayout = z.object({ name: z.string().trim().min(1).max(60), layout: FileLayout })
export type KeptLayout = z.infer<typeof KeptLayout>

export const NewEdition = z.object({
  /** Id of a destination; `people` for a file for people. */
  destination: z.string().max(40),
  takes: z.enum(TAKES).default('people'),
  form: EditionForm,
  filter: z.string().max(2000),
  /** Of a file for people; null for the usual one. */
  layout: FileLayout.nullable().default(null),
  /** The file as it came: every row of this batch, with the columns of the layout beside its own. */
  batchId: Id.nullable().default(null),
})
export const Edition = z.object({
  id: Id,
  jobId: Id,
  destination: z.string(),
  takes: z.enum(TAKES),
  form: EditionForm,
  filter: z.string(),
  fileName: z.string(),
  /** `withdrawn`: it held a person who asked to be forgotten. */
  state: z.enum(['preparing', 'ready', 'stopped', 'failed', 'withdrawn']),
  people: z.number().int(),
  leftOut: z.number().int(),
  bytes: z.number().int(),
  sha256: z.string().nullable(),
  /** People in it who said no after it was made: it cannot be downloaded any more. */
  suppressedSince: z.number().int(),
  createdAt: Instant,
})
export type Edition = z.infer<typeof Edition>
