import { PROBLEMS } from '@upper-field/core/phone'
import { DATE_ORDERS, ROUTINE_VERSION, type Routine, type Step } from '@upper-field/core/tidy'
import { z } from 'zod'
import { ChangeCode, Field, Id, Instant } from './words'

const ColumnName = z.string().min(1).max(2000)
const ColumnNames = z.array(ColumnName).max(200)
const noOptions = z.object({})
const stepOf = <K extends string, O extends z.ZodType>(kind: K, options: O) =>
  z.object({ id: z.string().min(1).max(60), kind: z.literal(kind), isOn: z.boolean(), options })

export const RoutineStep = z.discriminatedUnion('kind', [
  stepOf('letters', noOptions),
  stepOf('refusals', noOptions),
  stepOf('blanks', z.object({ words: z.array(z.string().max(100)).max(200) })),
  stepOf('numbers', noOptions),
  stepOf(
    'names',
    z.object({
      split: z.boolean(),
      mendsCase: z.boolean(),
      takesTitles: z.boolean(),
      takesDecorations: z.boolean(),
    }),
  ),
  stepOf('company', z.object({ takesLegalForm: z.boolean(), mendsCase: z.boolean() })),
  stepOf('emails', noOptions),
  stepOf('country', noOptions),
  stepOf('region', noOptions),
  stepOf('postal-code', noOptions),
  stepOf('dates', z.object({ columns: ColumnNames, order: z.enum(DATE_ORDERS) })),
  stepOf('web', noOptions),
  stepOf(
    'replace',
    z.object({
      columns: ColumnNames,
      find: z.string().max(500),
      with: z.string().max(500),
      isPattern: z.boolean(),
      minds: z.enum(['case', 'nothing']),
    }),
  ),
  stepOf('derive', z.object({ column: z.string().max(200), template: z.string().max(2000) })),
  stepOf(
    'columns',
    z.object({
      hidden: ColumnNames,
      renamed: z.record(ColumnName, z.string().trim().min(1).max(200)),
      order: ColumnNames,
    }),
  ),
]) satisfies z.ZodType<Step>

/** An ordered set of steps. One written by a later version is refused: it may hold what is not understood here. */
export const RoutineShape: z.ZodType<Routine, Routine> = z.object({
  version: z
    .number()
    .int()
    .min(1)
    .max(
      ROUTINE_VERSION,
      `This routine was written by a later version; routines up to ${ROUTINE_VERSION} can be read.`,
    ),
  steps: z
    .array(RoutineStep)
    .max(60)
    .refine((steps) => new Set(steps.map(({ id }) => id)).size === steps.length, 'Two steps have the same id.'),
})

export const RoutineName = z.string().trim().min(1, 'A routine needs a name.').max(120)
export const RoutineChange = z.object({ routine: RoutineShape, name: RoutineName.nullable() })

/** What a person has changed at once, and can take back at once. */
export const Act = z.object({
  id: Id,
  kind: z.enum(['edit', 'bulk-edit', 'leave-out', 'routine', 'reading']),
  contacts: z.number().int().nullable(),
  detail: z.string(),
  madeBy: z.string(),
  madeAt: Instant,
  undoneAt: Instant.nullable(),
})
export type Act = z.infer<typeof Act>

export const SavedRoutine = z.object({ id: Id, name: z.string(), routine: RoutineShape, savedAt: Instant })
export type SavedRoutine = z.infer<typeof SavedRoutine>

/** Where the tidying of a list stands. */
export const TidyState = z.object({
  routine: RoutineShape,
  name: z.string().nullable(),
  /** True until somebody has settled a routine: this one is proposed from what the columns hold. */
  isProposed: z.boolean(),
  columns: z.array(z.object({ name: z.string(), field: Field.nullable() })),
  /** Rows that became contacts, joined ones included. */
  contacts: z.number().int(),
  /** How many contacts each repair touched, and under `hand` how many need a person. */
  counts: z.record(z.string(), z.number().int()),
  problems: z.array(z.object({ step: z.string(), code: z.enum(['column-gone', 'refused']), detail: z.string() })),
  leftOut: z.array(z.object({ actId: Id, code: ChangeCode, batch: z.string().nullable() })),
  /** What people have changed, latest first. */
  acts: z.array(Act),
  /** True where there are more before these. */
  hasOlderActs: z.boolean(),
})
export type TidyState = z.infer<typeof TidyState>

/** Rows to try a routine on, before it is applied. */
export const TidySample = z.object({
  layouts: z.record(
    z.string(),
    z.object({
      mapping: z.array(Field.nullable()),
      headings: z.array(z.string()),
      defaultCountry: z.string().nullable(),
    }),
  ),
  rows: z.array(z.object({ contactId: z.number().int(), batchId: Id, cells: z.array(z.string()) })),
})
export type TidySample = z.infer<typeof TidySample>

export const ChangedValue = z.object({
  contactId: z.number().int(),
  batchId: Id,
  who: z.string(),
  country: z.string(),
  column: z.string(),
  was: z.string(),
  is: z.string(),
})
export type ChangedValue = z.infer<typeof ChangedValue>
export const ChangedPage = z.object({ values: z.array(ChangedValue), next: z.string().nullable() })
export type ChangedPage = z.infer<typeof ChangedPage>

export const HandItem = z.object({
  contactId: z.number().int(),
  batch: z.string(),
  row: z.number().int(),
  who: z.string(),
  country: z.string(),
  column: z.string(),
  isNumber: z.boolean(),
  raw: z.string(),
  problem: z.enum([...PROBLEMS, 'no-address', 'slip-in-domain', 'two-people', 'zero-contradicted']),
  fixes: z.array(z.object({ kind: z.string(), text: z.string() })),
})
export type HandItem = z.infer<typeof HandItem>
export const HandPage = z.object({ items: z.array(HandItem), next: z.string().nullable(), total: z.number().int() })
export type HandPage = z.infer<typeof HandPage>

export const NewEdits = z.object({
  edits: z
    .array(z.object({ contactId: z.number().int(), column: ColumnName, value: z.string().trim().max(2000) }))
    .min(1)
    .max(500),
})
/** So many contacts can be picked one by one. */
export const MOST_PICKED = 5000
/** One value for every contact that a filter chooses; of those, only the picked ones where some are. */
export const BulkEdit = z.object({
  filter: z.string().max(2000),
  contactIds: z.array(z.number().int()).min(1).max(MOST_PICKED).optional(),
  column: ColumnName,
  value: z.string().trim().max(2000),
})
/** A repair left out: for one contact, for one batch, or for the whole list. */
export const NewLeftOut = z.object({
  code: ChangeCode,
  contactId: z.number().int().optional(),
  batchId: Id.optional(),
})
/** Cells with the same slip as one that was just accepted. */
export const AlikeFixes = z.object({ kind: z.string().max(40), problem: z.string().max(40), apply: z.boolean() })
