import type { NetworkCalls } from './networkCalls'

/** What is sent of a contact or a company: each may have several values, the best first. */
export const SEND_FIELDS = [
  'email',
  'number',
  'given-name',
  'family-name',
  'full-name',
  'title',
  'company',
  'site',
  'company-page',
  'industry',
  'street',
  'postal-code',
  'city',
  'region',
  'country',
  'birth-date',
  'gender',
  'device-id',
  'value',
] as const
export type SendField = (typeof SEND_FIELDS)[number]

/** One column of an audience file; values of a field may be repeated side by side. */
export interface DestinationColumn {
  readonly heading: string
  readonly field: SendField
  readonly repeats: number
  /** Named steps, in order: see `normalForms`. */
  readonly form: readonly string[]
  /** Hashed where the file is a hashed one. */
  readonly isHashed: boolean
}

/** What has to be there on a row. */
export interface DestinationRules {
  /** On every row. */
  readonly everyRow: readonly SendField[]
  /** At least one of these, on every row: whom nothing of it is known of cannot be matched. */
  readonly someOf: readonly SendField[]
  /** All of a group, or none of it: a group that is not whole is left blank. */
  readonly together: readonly (readonly SendField[])[]
}

/** What one kind of audience holds: people, or companies. */
export interface AudienceShape {
  readonly takes: Takes
  readonly columns: readonly DestinationColumn[]
  readonly rules: DestinationRules
}

export const TAKES = ['people', 'companies'] as const
export type Takes = (typeof TAKES)[number]

/** What one ad network accepts, declared: no code knows one by its name. */
export interface Destination {
  readonly format: typeof DESTINATION_FORMAT
  readonly id: string
  readonly name: string
  readonly about: string
  /** One for each kind it takes. */
  readonly audiences: readonly AudienceShape[]
  /** Whether identifiers are hashed: always, never, or as the sender likes. */
  readonly hashing: 'always' | 'never' | 'either'
  readonly file: {
    readonly kinds: readonly ('csv' | 'txt')[]
    readonly mostRows: number | null
  }
  readonly size: {
    /** Fewest rows of an upload, and fewest people matched for it to be of use; null where nothing is asked. */
    readonly fewest: number | null
    readonly fewestMatched: number | null
    /** The size of audiences below is not told; null where it always is. */
    readonly toldFrom: number | null
  }
  /** How many days somebody stays at most; null where membership does not lapse. */
  readonly lapsesAfterDays: number | null
  /** Whether an audience can be changed, or is replaced whole. */
  readonly changes: 'added-and-removed' | 'whole'
  /** How it is called; null where files alone are made for it. */
  readonly network: NetworkCalls | null
}

/** The shape of an audience of these; null where a destination does not take them. */
export const shapeOf = ({ audiences }: Pick<Destination, 'audiences'>, takes: Takes): AudienceShape | null =>
  audiences.find((one) => one.takes === takes) ?? null

/** The format of these documents. What is written for a newer one is refused. */
export const DESTINATION_FORMAT = 1

/** The heading line: a column that may be repeated stands there as often as it may be filled. */
export const headingsOf = ({ columns }: Pick<AudienceShape, 'columns'>): readonly string[] =>
  columns.flatMap(({ heading, repeats }) => Array<string>(repeats).fill(heading))

/** What does not fit together in the shape of an audience, each with the part it stands in. */
export function contradictionsIn(shape: Pick<AudienceShape, 'columns' | 'rules'>): readonly {
  readonly part: 'columns' | 'rules'
  readonly message: string
}[] {
  const { columns, rules } = shape
  const fields = new Set(columns.map(({ field }) => field))
  const missing = [...new Set([...rules.everyRow, ...rules.someOf, ...rules.together.flat()])].filter(
    (field) => !fields.has(field),
  )
  const found: { part: 'columns' | 'rules'; message: string }[] = missing.map((field) => ({
    part: 'rules',
    message: `"${field}" is asked for, and no column holds it.`,
  }))
  const headings = columns.map(({ heading }) => heading)
  for (const heading of new Set(headings.filter((one, at) => headings.indexOf(one) !== at)))
    found.push({ part: 'columns', message: `Two columns are headed "${heading}": say "repeats" instead.` })
  const twice = columns.filter(
    ({ field, form }, at) => columns.findIndex((one) => one.field === field && one.form.join() === form.join()) !== at,
  )
  for (const { field } of twice)
    found.push({ part: 'columns', message: `"${field}" stands there twice in the same form.` })
  if (rules.together.some((group) => group.length === 1))
    found.push({
      part: 'rules',
      message: 'A group of one field says nothing: take it out, or ask for it on every row.',
    })
  if (rules.someOf.length === 0)
    found.push({ part: 'rules', message: 'Say by which fields somebody can be matched: "someOf".' })
  return found
}
