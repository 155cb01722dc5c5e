import { PAIR_KEYS, PAIR_LEVELS, SHARED_LINE_KINDS, SURVIVORSHIP_RULES } from '@upper-field/core/pair'
import { z } from 'zod'
import { Id, Instant, LineType, SurvivorPart } from './words'

export const PairKey = z.enum(PAIR_KEYS)

/** Scores from which on pairs join by themselves, and from which on a person decides: bits for one person. */
export const Thresholds = z
  .object({ join: z.number().min(-30).max(60), decide: z.number().min(-30).max(60) })
  .refine(({ join, decide }) => decide <= join, 'What is left to a person cannot begin above what joins by itself.')
export type Thresholds = z.infer<typeof Thresholds>

/** What a field says about two contacts, in bits: above zero for one person, below for two. */
export const Evidence = z.object({
  field: z.enum(Object.keys(PAIR_LEVELS) as [keyof typeof PAIR_LEVELS, ...(keyof typeof PAIR_LEVELS)[]]),
  level: z.string(),
  bits: z.number(),
})
export type Evidence = z.infer<typeof Evidence>

export const SurvivorshipRule = z.enum(SURVIVORSHIP_RULES)
/** Whose values come first where several rows are one person, for each part of a contact. */
export const Survivorship = z.object({
  name: SurvivorshipRule,
  company: SurvivorshipRule,
  title: SurvivorshipRule,
  place: SurvivorshipRule,
  profile: SurvivorshipRule,
  numbers: SurvivorshipRule,
  emails: SurvivorshipRule,
})

/** Two contacts that were compared, by name. */
export const PairExample = z.object({
  score: z.number(),
  sides: z.array(
    z.object({ contactId: z.number().int(), fullName: z.string(), company: z.string(), city: z.string() }),
  ),
})
export type PairExample = z.infer<typeof PairExample>

/** How the contacts of a list have been paired. */
export const PairState = z.object({
  /** When likeness was last looked for; null where it never was. */
  ranAt: Instant.nullable(),
  contacts: z.number().int(),
  thresholds: Thresholds,
  /** Pairs by their scores, in whole bits, with some to look at. */
  bins: z.array(z.object({ from: z.number().int(), pairs: z.number().int(), examples: z.array(PairExample) })),
  /** How many groups there would be with other upper lines, as far as they were counted. */
  groups: z.array(z.object({ from: z.number().int(), groups: z.number().int() })),
  joined: z.number().int(),
  toDecide: z.number().int(),
  keptApart: z.number().int(),
  survivorship: Survivorship,
})
export type PairState = z.infer<typeof PairState>

export const PairSide = z.object({
  contactId: z.number().int(),
  batch: z.string(),
  row: z.number().int(),
  fullName: z.string(),
  title: z.string(),
  company: z.string(),
  domain: z.string(),
  city: z.string(),
  postalCode: z.string(),
  street: z.string(),
  /** ISO 8601, or the year alone. */
  birthDate: z.string(),
  country: z.string(),
  profile: z.string(),
  numbers: z.array(z.object({ e164: z.string(), lineType: LineType })),
  emails: z.array(z.string()),
})
export type PairSide = z.infer<typeof PairSide>

/** Two contacts that may be one person, side by side. */
export const PairItem = z.object({
  id: z.number().int(),
  score: z.number(),
  key: PairKey,
  evidence: z.array(Evidence),
  /** Bits against any two contacts being one person; the evidence has to outweigh them. */
  against: z.number(),
  sides: z.tuple([PairSide, PairSide]),
  /** Contacts that may be the same person as one of the two as well, likeliest first. */
  others: z.array(PairSide),
  /** How many pairs left to decide look the same in every field, this one counted in. */
  alike: z.number().int(),
})
export type PairItem = z.infer<typeof PairItem>

export const PairPage = z.object({ pairs: z.array(PairItem), next: z.string().nullable(), total: z.number().int() })
export type PairPage = z.infer<typeof PairPage>

export const PairDecision = z.object({
  decision: z.enum(['join', 'apart']),
  /** True for all pairs that look the same in every field. */
  alike: z.boolean().default(false),
  /** Contacts that are joined with the two, of those shown beside them. */
  also: z.array(z.number().int()).max(20).default([]),
  /** The contact of the pair whose value comes first, for the parts where a person chose. */
  chosen: z.partialRecord(SurvivorPart, z.number().int()).default({}),
})

/** Pairs a person decided at once. */
export const Decided = z.object({
  id: z.number().int(),
  decision: z.enum(['join', 'apart']),
  pairs: z.number().int(),
  who: z.string(),
  at: Instant,
})
export type Decided = z.infer<typeof Decided>

/** A number that several people of a list hold. */
export const SharedLine = z.object({
  e164: z.string(),
  lineType: LineType,
  kind: z.enum(SHARED_LINE_KINDS),
  holders: z.number().int(),
  who: z.array(z.object({ contactId: z.number().int(), fullName: z.string(), company: z.string() })),
})
export type SharedLine = z.infer<typeof SharedLine>
export const SharedLines = z.object({
  lines: z.array(SharedLine),
  next: z.string().nullable(),
  total: z.number().int(),
})
export type SharedLines = z.infer<typeof SharedLines>

/** How many contacts of a list are in another one too. */
export const AlsoIn = z.object({ listId: Id, name: z.string(), contacts: z.number().int() })
export type AlsoIn = z.infer<typeof AlsoIn>

/** Another list beside this one. Who is in both is counted on either side: one person may be several contacts there. */
export const ListBeside = z.object({
  listId: Id,
  name: z.string(),
  bothHere: z.number().int(),
  bothThere: z.number().int(),
  onlyHere: z.number().int(),
  onlyThere: z.number().int(),
})
export type ListBeside = z.infer<typeof ListBeside>
