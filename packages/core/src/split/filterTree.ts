/** Facets: what can be chosen with a click, and typed as `line:mobile country:GB`. */
export const FILTER_FIELDS = [
  'batch',
  'country',
  'verdict',
  'line',
  'status',
  'lane',
  'reason',
  'fell',
  'is',
  /** How sure the contact can be reached; what its best address is, and whether it takes mail. */
  'sure',
  'kind',
  'address',
  /** Whether the contact may be called at this moment. */
  'call',
  /** What suppression lists forbid: by it the contact is not reached. */
  'suppressed',
  /** What the contact does, and at which level: by its title. */
  'function',
  'level',
  /** Those who are in another list too, and those who are not: ids of lists. */
  'in',
  'notin',
] as const
export type FilterField = (typeof FILTER_FIELDS)[number]

/** Texts of a contact: `company:lodge` holds it, `city=Kelso` is it. */
export const TEXT_FIELDS = [
  'name',
  'company',
  'title',
  'city',
  'region',
  'postal',
  'street',
  'site',
  'email',
  'number',
  'profile',
  'industry',
  'page',
  'gender',
  'device',
] as const
export type TextField = (typeof TEXT_FIELDS)[number]

/** Dates, by ISO 8601: `added>2026-11-01`, `gathered:2026-01-01..2026-06-30`. */
export const DATE_FIELDS = ['added', 'gathered', 'birth'] as const
export type DateField = (typeof DATE_FIELDS)[number]

/** Amounts: what was spent on a contact, in euros; how many rows were joined into it; what it is worth as a customer. */
export const AMOUNT_FIELDS = ['cost', 'joined', 'value'] as const
export type AmountField = (typeof AMOUNT_FIELDS)[number]

/** What is there or not: `missing:email`, `has:street`. */
export const PRESENCE_FIELDS = ['missing', 'has'] as const
export type PresenceField = (typeof PRESENCE_FIELDS)[number]
/** What `missing` and `has` can be asked about. */
export const PRESENT = [...TEXT_FIELDS, 'country', 'birth', 'value'] as const

/** What others did: a provider that was asked or has found something, a destination it was sent to, an audience it is in. */
export const TRACE_FIELDS = ['asked', 'found', 'sent', 'audience'] as const
export type TraceField = (typeof TRACE_FIELDS)[number]

export type AnyField = FilterField | TextField | DateField | AmountField | PresenceField | TraceField
export const ALL_FIELDS: readonly AnyField[] = [
  ...FILTER_FIELDS,
  ...TEXT_FIELDS,
  ...DATE_FIELDS,
  ...AMOUNT_FIELDS,
  ...PRESENCE_FIELDS,
  ...TRACE_FIELDS,
]

export type Operator = ':' | '=' | '!=' | '<' | '>' | '<=' | '>='

/** A field compared with values: with one of them, or lying between two. */
export interface Term {
  readonly kind: 'term'
  readonly field: AnyField
  readonly operator: Operator
  readonly values: readonly string[]
}

/** A column of the list's own files compared with values: `seats>20`. By its key: small letters, joined by dashes. */
export interface ColumnTerm {
  readonly kind: 'column'
  readonly column: string
  readonly operator: Operator
  readonly values: readonly string[]
}

/** Part of a filter that is more than facets and words. */
export type FilterNode =
  | { readonly kind: 'and' | 'or'; readonly of: readonly FilterNode[] }
  | { readonly kind: 'not'; readonly of: FilterNode }
  | Term
  | ColumnTerm
  /** Words that each stand somewhere; a phrase stands there as a whole. */
  | { readonly kind: 'words'; readonly text: string }
  | { readonly kind: 'phrase'; readonly text: string }

/** Whom is meant: facets, words, and conditions beyond both. All of it has to hold. */
export interface Filter {
  readonly piles: Partial<Record<FilterField, readonly string[]>>
  /** Free words, as typed. */
  readonly words: string
  readonly rest: readonly FilterNode[]
}

/** What is wrong with a typed filter, and where. */
export interface FilterIssue {
  readonly code: 'unknown-field' | 'unbalanced' | 'incomplete' | 'no-number' | 'no-date' | 'unknown-value' | 'no-order'
  /** Where it stands in the text, and how long that is. */
  readonly at: number
  readonly length: number
  /** The word it is about. */
  readonly word: string
  /** What was probably meant; null where nothing is near. */
  readonly nearest: string | null
}
