import { ADDRESS_STATES, LINE_STATUSES, SURENESS } from '@upper-field/core/check'
import { SURVIVOR_PARTS } from '@upper-field/core/pair'
import { LABELS, LINE_TYPES, PROBLEMS, REPAIRS, VERDICTS } from '@upper-field/core/phone'
import { LANE_REASONS } from '@upper-field/core/split'
import { RISERS, STAGES } from '@upper-field/core/story'
import { ENCODINGS, FIELDS, FORMATS, HELD_REASONS, MERGED, NOTE_CODES } from '@upper-field/core/table'
import { CHANGE_CODES, EMAIL_KINDS } from '@upper-field/core/tidy'
import { z } from 'zod'

/** The words of the product as schemas. The lists themselves belong to core. */
export const LineType = z.enum(LINE_TYPES)
export const LineStatus = z.enum(LINE_STATUSES)
export const Verdict = z.enum(VERDICTS)
export const Repair = z.enum(REPAIRS)
export const Problem = z.enum(PROBLEMS)
export const NumberLabel = z.enum(LABELS)
/** One of the usual lanes, or an operator's own. */
export const Lane = z.string()
export const LaneReason = z.enum(LANE_REASONS)
export const Stage = z.enum(STAGES)
export const Riser = z.enum(RISERS)
export const Field = z.enum(FIELDS)
export const Encoding = z.enum(ENCODINGS)
export const Format = z.enum(FORMATS)
export const Merged = z.enum(MERGED)
export const Note = z.object({ code: z.enum(NOTE_CODES), text: z.string().max(1000) })
export const HeldReason = z.enum(HELD_REASONS)
export const ChangeCode = z.enum(CHANGE_CODES)
export const EmailKind = z.enum(EMAIL_KINDS)
export const AddressState = z.enum(ADDRESS_STATES)
export const Sureness = z.enum(SURENESS)

export const SOURCE_KINDS = ['asked-us', 'event', 'bought', 'public-page', 'partner', 'other'] as const
export const SourceKind = z.enum(SOURCE_KINDS)
export const LAWFUL_BASES = ['not-stated', 'consent', 'contract', 'legitimate-interest'] as const
export const LawfulBasis = z.enum(LAWFUL_BASES)
export const ROLES = ['owner', 'operator', 'viewer'] as const
export const Role = z.enum(ROLES)
export type Role = z.infer<typeof Role>

/** Two capital letters (ISO 3166-1 alpha-2). */
export const CountryCode = z.string().regex(/^[A-Z]{2}$/)
/** Millionths of a euro. */
export const Micros = z.number().int().nonnegative()
export const Instant = z.iso.datetime({ offset: true })
export const Id = z.uuid()
export const SurvivorPart = z.enum(SURVIVOR_PARTS)
