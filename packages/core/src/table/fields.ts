/** What a column of a prospect list can become. A column without a field is kept as it stands, as an extra. */
export const FIELDS = [
  'full-name',
  'given-name',
  'family-name',
  'title',
  'company',
  'number',
  'email',
  'country',
  'city',
  'region',
  'postal-code',
  'web',
  'profile',
  'street',
  'birth-date',
  'gender',
  'device-id',
  'value',
  'industry',
  'company-page',
] as const
export type Field = (typeof FIELDS)[number]
/** A field for each column, by position. Numbers and e-mails may stand in several columns. */
export type Mapping = readonly (Field | null)[]

/** Fields of which a list may have several columns. */
export const isRepeatable = (field: Field): boolean => field === 'number' || field === 'email'

/** True where contacts mapped so can be reached, or looked for: by name and company, or by an address on the web. */
export function canBeReached(mapping: Mapping): boolean {
  const has = (...fields: readonly Field[]) => mapping.some((field) => field !== null && fields.includes(field))
  return has('number', 'email', 'profile', 'web') || (has('full-name', 'family-name') && has('company'))
}

/** Gives a column a field; a field that a list can have only once is taken from the column that had it. */
export function assignField(mapping: Mapping, column: number, field: Field | null): Mapping {
  const isOnce = field !== null && !isRepeatable(field)
  return mapping.map((one, i) => (i === column ? field : isOnce && one === field ? null : one))
}
