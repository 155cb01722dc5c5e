import type { Piles } from '@upper-field/contract'
import { type Filter, type FilterField, SCOPES } from '@upper-field/core/split'
import { type SQL, sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { orZero, readRows, text } from '../db/readRows'
import { COUNTED_BY, CUBE_DIMENSIONS, SENT } from '../projection/cubeDimensions'
import { elsewhereConditions, isInCube, pileConditions, wordConditions } from './conditions'
import { CALLED_NOW, STATUS } from './facets'
import { readFilter } from './readFilter'
import { asEstimate, type Sample, type Sampling, sampleOf } from './sample'
import { isShown } from './shown'

const FIELDS = [
  ['batch', 'batch_id'],
  ['country', 'country'],
  ['verdict', 'verdict'],
  ['line', 'line_type'],
  ['status', STATUS],
  ['lane', 'lane'],
  ['reason', 'lane_reason'],
  ['sure', 'sureness'],
  ['kind', 'email_kind'],
  ['address', 'email_state'],
  ['call', `case when call_from = '' then 'none' when ${CALLED_NOW} then 'now' else 'later' end`],
  ['lines', `line_type || '/' || ${STATUS}`],
  ['countries', `country || '/' || line_type || '/' || ${STATUS}`],
  ['addresses', "email_kind || '/' || email_state"],
] as const

/**
 * Counts for the sieve. A pile's own field does not narrow its counts, so that a second pile can be seen before it
 * is chosen. Whom the words mean is found once, and counted by every field.
 * @param sampling where an estimate will do for a large list; null for counts of everybody
 */
export async function countPiles(
  db: Db,
  listId: string,
  typed: string,
  sampling: Sampling | null = null,
): Promise<Piles> {
  const filter = readFilter(typed)
  const sample = sampling === null || isInCube(filter) ? null : await sampleOf(db, listId, sampling)
  const selects = [
    ...FIELDS.map(
      ([field, expression]) => sql`
      select ${field} as field, ${sql.raw(expression)}::text as value, sum(contacts) as n
      from cube where ${without(listId, filter, field as FilterField)} group by 2`,
    ),
    ...SCOPES.map(
      (scope) => sql`
      select 'suppressed' as field, ${scope} as value, sum(contacts) as n
      from cube where ${without(listId, filter, 'suppressed')} and ${scope} = any(string_to_array(suppressed_for, ' '))`,
    ),
    ...IS_PILES.map(
      ([value, condition]) => sql`
      select 'is' as field, ${value} as value, sum(contacts) as n
      from cube where ${without(listId, filter, 'is')} and ${sql.raw(condition)}`,
    ),
  ]
  const counts = await readRows(db, { field: text, value: text, n: orZero })`
    with cube as materialized (${cubeOf(listId, filter, sample)})
    select * from (${sql.join(selects, sql` union all `)}) as counts order by n desc nulls last, value`
  const piles: Record<string, Record<string, number>> = Object.fromEntries(
    [...FIELDS.map(([field]) => field), 'is', 'suppressed'].map((field) => [field, {}]),
  )
  for (const { field, value, n } of counts) {
    const pile = piles[field]
    // Groups that everybody has left stand among the counts until these are summed up.
    if (pile && (n > 0 || field === 'is' || field === 'suppressed'))
      pile[value === '' ? 'none' : value] = sample ? asEstimate(n * sample.each) : n
  }
  return { ...(piles as Omit<Piles, 'isEstimate'>), isEstimate: sample !== null }
}

const IS_PILES = [
  ['joined', 'has_joined'],
  ['shared', 'is_shared'],
] as const

/** The conditions of a filter on the cube, but for those of one field. */
const without = (listId: string, filter: Filter, field: FilterField): SQL =>
  sql.join(
    [sql`list_id = ${listId}`, ...pileConditions({ ...filter, piles: { ...filter.piles, [field]: [] } }, 'cube')],
    sql` and `,
  )

/** The cube of a list; or the contacts in its shape, where it cannot tell whom the filter means. */
function cubeOf(listId: string, filter: Filter, sample: Sample | null): SQL {
  if (isInCube(filter)) return sql`select * from contact_cube where list_id = ${listId}`
  const words = wordConditions(listId, filter, sample ? 'one-by-one' : 'by-index')
  const meant = [...elsewhereConditions(filter), ...words]
  return sql`select list_id, ${COUNTED_BY}, count(*) as contacts
    from ${sample?.from ?? sql`contacts`} ${SENT} where list_id = ${listId} and ${isShown()} and ${sql.join([sql`true`, ...meant], sql` and `)}
    group by list_id, ${CUBE_DIMENSIONS}`
}
