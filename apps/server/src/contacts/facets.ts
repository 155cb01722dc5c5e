import type { FilterField } from '@upper-field/core/split'
import { type SQL, sql } from 'drizzle-orm'
import { IS_SENT } from '../db/spans'
import { matchesElsewhere } from '../pair/elsewhere'

/** The status of the best line, apart from what was never asked about. */
export const STATUS =
  "case when known_from = 'register' or line_status <> 'unknown' then line_status else 'not-checked' end"

const COLUMN: Partial<Record<FilterField, string>> = {
  batch: 'batch_id',
  country: 'country',
  verdict: 'verdict',
  line: 'line_type',
  status: `(${STATUS})`,
  lane: 'lane',
  reason: 'lane_reason',
  sure: 'sureness',
  kind: 'email_kind',
  address: 'email_state',
  level: 'job_level',
}

/** Contacts themselves, or the counts of their list. */
export type Place = 'table' | 'cube'

/** Facets the counts of the cube know nothing of. */
export const BEYOND_CUBE: ReadonlySet<FilterField> = new Set(['in', 'notin', 'function', 'level'])

/** Which contacts can be reached now: the Fill step of the terrace. */
export const REACHABLE = '((is_readable and not is_dead) or is_filled)'

/** True for contacts whose line to call may be called at this moment. */
// As an array: joined to the places, contacts that are wanted in order are all read before the first is told.
export const CALLED_NOW = "call_from = any(array(select p.call_from from call_places p where p.state = 'now'))"
export const IS_CALLED_NOW = sql.raw(CALLED_NOW)

/** What each riser of the terrace counts, as a condition on contacts and on their cube alike. */
export const FELL: ReadonlyMap<string, string> = new Map(
  Object.entries({
    'nothing-readable': 'not is_readable',
    joined: 'is_readable and is_joined',
    'out-of-service': 'is_readable and not is_joined and is_dead',
    filled: 'not is_joined and is_filled',
    suppressed: `not is_joined and ${REACHABLE} and lane_reason = 'suppressed'`,
    parked: `not is_joined and ${REACHABLE} and lane = 'parked' and lane_reason <> 'suppressed'`,
    'by-post': `not is_joined and not ${REACHABLE} and lane <> 'parked'`,
    'not-sent': `not is_joined and lane <> 'parked' and not is_sent`,
  }),
)

/** What can be asked of a contact with `is:`. */
export const IS: ReadonlyMap<string, string> = new Map(
  Object.entries({
    joined: 'has_joined',
    shared: 'is_shared',
    'no-mobile': 'wants_mobile',
    checked: "known_from = 'register'",
  }),
)

/** Where the table itself knows of what the cube has a column for. */
const IN_TABLE: Readonly<Record<string, string>> = {
  is_joined: '(joined_into is not null)',
  has_joined: '(joined > 0)',
  is_sent: IS_SENT,
}
const inTable = (condition: string): string =>
  condition.replace(/\b(?:is_joined|has_joined|is_sent)\b/g, (name) => IN_TABLE[name] ?? name)

/** Columns that say `none` themselves. */
const SAYS_NONE: ReadonlySet<FilterField> = new Set(['kind', 'address'])
const storedValue = (field: FilterField, value: string): string =>
  value === 'none' && !SAYS_NONE.has(field) ? '' : value

export const rawIn = (place: Place, condition: string): SQL =>
  sql.raw(place === 'table' ? inTable(condition) : condition)

/** One facet with its chosen values, as a condition. */
export function pileCondition(field: FilterField, values: readonly string[], place: Place): SQL {
  const column = COLUMN[field]
  if (column)
    return sql`${sql.raw(column)}::text = any(${sql.param(values.map((value) => storedValue(field, value)))}::text[])`
  switch (field) {
    case 'call':
      return sql`(${sql.join(values.map(callCondition), sql` or `)})`
    case 'suppressed':
      return sql`string_to_array(suppressed_for, ' ') && ${sql.param([...values])}::text[]`
    case 'function':
      return sql`string_to_array(job_functions, ' ') && ${sql.param([...values])}::text[]`
    case 'in':
      return isInLists(values)
    case 'notin':
      return sql`not ${isInLists(values)}`
    default: {
      const named = values.map((value) => (field === 'fell' ? FELL : IS).get(value) ?? 'false')
      return rawIn(place, `(${named.map((one) => `(${one})`).join(' or ')})`)
    }
  }
}

function callCondition(value: string): SQL {
  if (value === 'now') return IS_CALLED_NOW
  return value === 'later' ? sql`(call_from <> '' and not ${IS_CALLED_NOW})` : sql`false`
}

const isInLists = (listIds: readonly string[]): SQL =>
  sql`exists (${matchesElsewhere(sql`c.id = contacts.id`, sql`o.list_id::text = any(${sql.param([...listIds])}::text[])`)})`
