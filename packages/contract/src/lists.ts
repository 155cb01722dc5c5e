import { z } from 'zod'
import { Id, Instant, Riser, Stage } from './words'

export const TerraceStep = z.object({
  stage: Stage,
  count: z.number().int(),
  changes: z.array(z.object({ riser: Riser, by: z.number().int() })),
})
export type TerraceStep = z.infer<typeof TerraceStep>

export const List = z.object({
  id: Id,
  name: z.string(),
  contacts: z.number().int(),
  batches: z.number().int(),
  createdAt: Instant,
  changedAt: Instant,
  archivedAt: Instant.nullable(),
  terrace: z.array(TerraceStep),
})
export type List = z.infer<typeof List>

export const ListName = z.string().trim().min(1, 'A list needs a name.').max(120, 'At most 120 characters.')
export const NewList = z.object({ name: ListName })
export const ListChange = z.object({ name: ListName.optional(), archived: z.boolean().optional() })

/** Counts of contacts by pile: the sieve. */
export const Piles = z.object({
  batch: z.record(z.string(), z.number()),
  country: z.record(z.string(), z.number()),
  verdict: z.record(z.string(), z.number()),
  line: z.record(z.string(), z.number()),
  status: z.record(z.string(), z.number()),
  lane: z.record(z.string(), z.number()),
  reason: z.record(z.string(), z.number()),
  is: z.record(z.string(), z.number()),
  sure: z.record(z.string(), z.number()),
  kind: z.record(z.string(), z.number()),
  address: z.record(z.string(), z.number()),
  /** Who may be called now, and who later. */
  call: z.record(z.string(), z.number()),
  /** Line type by status, as `mobile/in-service`. */
  lines: z.record(z.string(), z.number()),
  /** The same by country, as `GB/mobile/in-service`. */
  countries: z.record(z.string(), z.number()),
  /** What suppression lists keep contacts out of; a contact may count several times. */
  suppressed: z.record(z.string(), z.number()),
  /** Kind of the best address by what the verifier said, as `work/deliverable`. */
  addresses: z.record(z.string(), z.number()),
  /** Counted on a part of a large list alone, and told to two figures. */
  isEstimate: z.boolean(),
})
export type Piles = z.infer<typeof Piles>
