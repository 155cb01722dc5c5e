import { SUPPRESSION_KEYS, SUPPRESSION_KINDS } from '@upper-field/core/pair'
import { SCOPES } from '@upper-field/core/split'
import { z } from 'zod'
import { Id, Instant } from './words'

export const SuppressionKind = z.enum(SUPPRESSION_KINDS)

/** What a list keeps people out of: everything, or one way to reach them. */
export const SuppressionScope = z.enum(SCOPES)

/** People who must not be contacted, whatever list they are in. */
export const SuppressionList = z.object({
  id: Id,
  name: z.string(),
  kind: SuppressionKind,
  scope: SuppressionScope,
  entries: z.number().int(),
  createdAt: Instant,
})
export type SuppressionList = z.infer<typeof SuppressionList>

export const SuppressionEntry = z.object({
  id: Id,
  kind: z.enum(SUPPRESSION_KEYS),
  /** Null where only the hash is kept. */
  key: z.string().nullable(),
  /** True where only a part of the key is shown: viewers do not see it whole. */
  isMasked: z.boolean(),
  reason: z.string(),
  /** The file it came with; null where it was added in another way. */
  source: z.string().nullable(),
  addedBy: z.string(),
  addedAt: Instant,
  expiresAt: Instant.nullable(),
})
export type SuppressionEntry = z.infer<typeof SuppressionEntry>

export const SuppressionPage = z.object({ entries: z.array(SuppressionEntry), next: z.string().nullable() })
export type SuppressionPage = z.infer<typeof SuppressionPage>

export const NewSuppressionEntries = z.object({
  /** A number, address, domain or SHA-256 hash a line. */
  text: z.string().min(1).max(1_000_000),
  /** For numbers without a country code. */
  country: z.string().length(2).nullable().default(null),
  reason: z.string().trim().max(200).default(''),
  /** Only the hash of each key is kept. */
  asHashes: z.boolean().default(false),
  expiresAt: Instant.nullable().default(null),
})

/**
 * True where only hashes of some are known and there are very many contacts: no file holds whom they mean any more, and who
 * that is is looked for by a job in each list.
 */
const AreLookedFor = z.boolean().optional()

/** What became of the lines. */
export const SuppressionAdded = z.object({
  added: z.number().int(),
  known: z.number().int(),
  unread: z.array(z.object({ line: z.number().int(), text: z.string() })),
  unreadTotal: z.number().int(),
  /** Contacts of all lists that are marked now and were not before. */
  marked: z.number().int(),
  /**
   * Contacts of lists that are being worked on, or that hold very many of them: no file holds them any more, and a job
   * marks them.
   */
  waiting: z.number().int(),
  areLookedFor: AreLookedFor,
})
export type SuppressionAdded = z.infer<typeof SuppressionAdded>

/** A file of people who must not be contacted. */
export const SuppressionBatch = z.object({
  id: Id,
  name: z.string(),
  sha256: z.string(),
  reason: z.string(),
  rows: z.number().int(),
  /** Rows that hold no key. */
  unread: z.number().int(),
  /** Entries that stand on the list because of it. */
  entries: z.number().int(),
  addedBy: z.string(),
  addedAt: Instant,
  expiresAt: Instant.nullable(),
  takenBackAt: Instant.nullable(),
})
export type SuppressionBatch = z.infer<typeof SuppressionBatch>

export const NewSuppressionBatch = NewSuppressionEntries.omit({ text: true }).extend({
  name: z.string().trim().min(1).max(255),
  sha256: z.string().regex(/^[0-9a-f]{64}$/, 'A SHA-256 has 64 hexadecimal digits in small letters.'),
})

const Cells = z.array(z.string().max(1000)).max(20).readonly().default([])

/** Rows of a suppression file: their cells, by what their columns hold. */
export const SuppressionRows = z.object({
  rows: z
    .array(z.object({ row: z.number().int().min(1), numbers: Cells, emails: Cells, domains: Cells, hashes: Cells }))
    .min(1)
    .max(5000),
})

/** What became of the rows. */
export const SuppressionRowsAdded = z.object({
  added: z.number().int(),
  known: z.number().int(),
  marked: z.number().int(),
  waiting: z.number().int(),
  areLookedFor: AreLookedFor,
  /** Rows that hold no key. */
  unread: z.array(z.number().int()),
})
export type SuppressionRowsAdded = z.infer<typeof SuppressionRowsAdded>

/** What is erased when a person is forgotten, in all lists. */
export const Forgetting = z.object({
  contacts: z.number().int(),
  lists: z.array(z.string()),
  /** Keys that are kept as hashes, so that the person does not come back. */
  keys: z.number().int(),
  /** Numbers that other people hold too: they are not kept out. */
  heldByOthers: z.array(z.string()),
  /** Files that held the person and can be downloaded no more. */
  files: z.number().int(),
})
export type Forgetting = z.infer<typeof Forgetting>
