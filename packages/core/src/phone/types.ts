/** Line types of the open numbering plan, in the words of the product. */
export const LINE_TYPES = [
  'mobile',
  'fixed',
  'fixed-or-mobile',
  'voip',
  'toll-free',
  'premium',
  'shared-cost',
  'personal',
  'pager',
  'uan',
  'voicemail',
  'unknown',
] as const
export type LineType = (typeof LINE_TYPES)[number]

export const VERDICTS = ['clean', 'repaired', 'doubtful', 'unreadable', 'placeholder', 'empty'] as const
export type Verdict = (typeof VERDICTS)[number]

/** What was mended on the way from the cell to the number. One code, one plain sentence (in the web client). */
export const REPAIRS = [
  'trunk-zero',
  'international-prefix',
  'country-code-without-plus',
  'country-code-twice',
  'lost-zero',
  'label-taken-off',
  'several-numbers',
  'keypad-letters',
  'letters-for-digits',
  'scientific-notation',
  'decimal-tail',
  'apostrophe',
  'percent-encoding',
  'odd-plus',
  'shared-stem',
  'old-form',
] as const
export type Repair = (typeof REPAIRS)[number]

/** Why a cell holds no number that can be used. */
export const PROBLEMS = [
  'masked',
  'digits-lost',
  'date',
  'opening-hours',
  'money',
  'percentage',
  'coordinates',
  'card',
  'ip-address',
  'email',
  'reference-number',
  'too-short',
  'too-long',
  'not-in-plan',
  'no-country',
  'no-digits',
  'two-readings',
  'unsure-repair',
  'plus-missing',
  'cell-too-long',
  'left-out',
] as const
export type Problem = (typeof PROBLEMS)[number]

const UNSURE: ReadonlySet<Problem | null> = new Set<Problem>(['two-readings', 'unsure-repair', 'plus-missing'])

/** True for a reading whose numbers are valid, but of which a person has to choose: until then nobody holds them. */
export const isUnsure = ({ problem }: { readonly problem: Problem | null }): boolean => UNSURE.has(problem)

export const LABELS = ['mobile', 'work', 'home', 'fax', 'main', 'other'] as const
export type NumberLabel = (typeof LABELS)[number]

export interface ReadNumber {
  /** E.164 with its plus sign. */
  readonly e164: string
  /** ISO 3166-1 alpha-2; null for numbers that belong to no country (freephone +800 and the like). */
  readonly country: string | null
  readonly lineType: LineType
  readonly extension: string | null
  readonly label: NumberLabel | null
  readonly valid: boolean
  readonly possible: boolean
}

/** What the engine makes of one phone cell. */
export interface Reading {
  readonly verdict: Verdict
  readonly numbers: readonly ReadNumber[]
  readonly repairs: readonly Repair[]
  readonly problem: Problem | null
  /** Words beside the numbers that are no label: when to ring, whose it is. They are kept as they stood. */
  readonly remark?: string
}

export interface ReadOptions {
  /** ISO 3166-1 alpha-2 of the row, else of the batch. Without it only international forms can be read. */
  readonly country?: string | null
}
