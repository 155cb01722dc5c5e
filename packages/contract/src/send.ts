import { z } from 'zod'
import { Id, Instant } from './words'

export const EDITION_FORMS = ['hashed', 'plain', 'people'] as const
export const EditionForm = z.enum(EDITION_FORMS)

export const Preflight = z.object({
  destination: z.string(),
  /** Contacts the filter chose, parked ones left out. */
  chosen: z.number().int(),
  ready: z.number().int(),
  noCountry: z.number().int(),
  noIdentifier: z.number().int(),
  countryFromNumber: z.number().int(),
  /** Numbers that stood without a country code and have one now. */
  codeMended: z.number().int(),
  emptyNumbers: z.number().int(),
  withEmail: z.number().int(),
  withNumber: z.number().int(),
  sizeFloor: z.number().int(),
})
export type Preflight = z.infer<typeof Preflight>

export const NewEdition = z.object({
  destination: z.enum(['brassbell', 'people']),
  form: EditionForm,
  filter: z.string().max(2000),
})
export const Edition = z.object({
  id: Id,
  jobId: Id,
  destination: z.string(),
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
