import type { Filter, FilterField } from '@upper-field/core/split'
import { type SQL, sql } from 'drizzle-orm'
import { matchesElsewhere } from '../pair/elsewhere'
import { searchTerms } from '../projection/searchText'

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
}

/** A batch that is still being read shows none of its contacts. */
export const READY = sql`exists (select 1 from batches b where b.id = contacts.batch_id and b.state = 'ready')`

/** Which contacts can be reached now: the Fill step of the terrace. */
export const REACHABLE = '((is_readable and not is_dead) or is_filled)'

/** True for contacts whose line to call may be called at this moment. */
export const IS_CALLED_NOW = sql`call_from in (select p.call_from from call_places p where p.state = 'now')`

/** What each riser of the terrace counts, as a condition on contacts and on their cube alike. */
export const FELL: ReadonlyMap<string, string> = new Map(
  Object.entries({
    'nothing-readable': 'not is_readable',
    joined: 'is_readable and is_joined',
    'out-of-service': 'is_readable and not is_joined and is_dead',
    filled: 'not is_joined and is_filled',
    suppressed: `not is_joined and ${REACHABLE} and lane_reason = 'suppressed'`,
    parked: `not is_joined and ${REACHABLE} and lane = 'parked' and lane_reason <> 'suppressed'`,
    'not-sent': `not is_joined and ${REACHABLE} and lane <> 'parked' and not is_sent`,
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

/** Names of the same facts in the table itself, where the cube has a column of its own. */
const inTable = (condition: string): string =>
  condition.replaceAll('is_joined', '(joined_into is not null)').replaceAll('has_joined', '(joined > 0)')

/**
 * The piles of a filter as SQL conditions. All values are parameters; a pile that does not exist matches nothing.
 * Contacts that were joined to another are left out unless they are asked for.
 */
export function pileConditions({ piles }: Filter, place: 'table' | 'cube'): SQL[] {
  const raw = (condition: string) => sql.raw(place === 'table' ? inTable(condition) : condition)
  const conditions: SQL[] = []
  if (!piles.fell?.some((riser) => riser === 'joined' || riser === 'nothing-readable'))
    conditions.push(raw('not is_joined'))
  for (const [field, values] of Object.entries(piles) as [FilterField, readonly string[]][]) {
    if (values.length === 0) continue
    const column = COLUMN[field]
    if (column) {
      conditions.push(
        sql`${sql.raw(column)}::text = any(${sql.param(values.map((value) => storedValue(field, value)))}::text[])`,
      )
      continue
    }
    if (field === 'in' || field === 'notin') continue
    if (field === 'call') {
      const wanted = values.map((value) =>
        value === 'now'
          ? IS_CALLED_NOW
          : value === 'later'
            ? sql`(call_from <> '' and not ${IS_CALLED_NOW})`
            : sql`false`,
      )
      conditions.push(sql`(${sql.join(wanted, sql` or `)})`)
      continue
    }
    if (field === 'suppressed') {
      conditions.push(sql`string_to_array(suppressed_for, ' ') && ${sql.param([...values])}::text[]`)
      continue
    }
    const named = values.map((value) => (field === 'fell' ? FELL : IS).get(value) ?? 'false')
    conditions.push(raw(`(${named.map((one) => `(${one})`).join(' or ')})`))
  }
  return conditions
}

/** What the counts of the cube cannot tell: who is in other lists too, or is not. */
export function elsewhereConditions({ piles }: Filter): SQL[] {
  const isIn = (listIds: readonly string[]) =>
    sql`exists (${matchesElsewhere(sql`c.id = contacts.id`, sql`o.list_id::text = any(${sql.param([...listIds])}::text[])`)})`
  return [
    ...(piles.in?.length ? [isIn(piles.in)] : []),
    ...(piles.notin?.length ? [sql`not ${isIn(piles.notin)}`] : []),
  ]
}

/** True where a filter can be counted from the cube alone. */
export const isInCube = ({ piles, words }: Filter): boolean =>
  words.trim() === '' && !piles.in?.length && !piles.notin?.length

/** Columns that say `none` themselves. */
const SAYS_NONE: ReadonlySet<FilterField> = new Set(['kind', 'address'])
const storedValue = (field: FilterField, value: string): string =>
  value === 'none' && !SAYS_NONE.has(field) ? '' : value

/**
 * Free words: each must stand somewhere in name, company, number, e-mail or extra cells. Batches that are not in the
 * index yet are looked through one by one.
 */
export function wordConditions(listId: string, { words }: Filter): SQL[] {
  const patterns = searchTerms(words).map((term) => `%${term.replace(/[\\%_]/g, '\\$&')}%`)
  if (patterns.length === 0) return []
  const all = (column: string) =>
    sql.join(
      patterns.map((pattern) => sql`${sql.raw(column)} like ${pattern}`),
      sql` and `,
    )
  return [
    sql`id in (
      select contact_id from contact_words where list_id = ${listId} and ${all('words')}
      union all
      select id from contacts where batch_id in (select id from batches where list_id = ${listId} and not is_indexed) and ${all('search')})`,
  ]
}
