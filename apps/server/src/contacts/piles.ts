import type { Piles } from '@upper-field/contract'
import type { Filter, FilterField } from '@upper-field/core/split'
import { type SQL, sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { CUBE_DIMENSIONS } from '../projection/cube'
import { elsewhereConditions, pileConditions, READY } from './conditions'
import { readFilter } from './readFilter'

const FIELDS = [
  ['batch', 'batch_id'],
  ['country', 'country'],
  ['verdict', 'verdict'],
  ['line', 'line_type'],
  ['status', 'line_status'],
  ['lane', 'lane'],
  ['reason', 'lane_reason'],
  [
    'lines',
    "line_type || '/' || case when known_from = 'register' or line_status <> 'unknown' then line_status else 'not-checked' end",
  ],
] as const

/**
 * Counts for the sieve. A pile's own field does not narrow its counts, so that a second pile can be seen before it
 * is chosen.
 */
export async function countPiles(db: Db, listId: string, text: string): Promise<Piles> {
  const filter = readFilter(text)
  const source = sourceOf(listId, filter)
  const piles: Record<string, Record<string, number>> = {}
  for (const [field, expression] of FIELDS) {
    const others = { ...filter, piles: { ...filter.piles, [field as FilterField]: [] } }
    const where = sql.join([sql`list_id = ${listId}`, ...pileConditions(others, 'cube')], sql` and `)
    const { rows } = await db.execute<{ value: string; n: string }>(sql`
      select ${sql.raw(expression)}::text as value, sum(contacts) as n from ${source} where ${where} group by 1 order by 2 desc, 1`)
    piles[field] = Object.fromEntries(rows.map((row) => [row.value === '' ? 'none' : row.value, Number(row.n)]))
  }
  const where = sql.join(
    [sql`list_id = ${listId}`, ...pileConditions({ ...filter, piles: { ...filter.piles, is: [] } }, 'cube')],
    sql` and `,
  )
  const { rows } = await db.execute<{ joined: string | null; shared: string | null }>(sql`
    select sum(contacts) filter (where has_joined) as joined, sum(contacts) filter (where is_shared) as shared
    from ${source} where ${where}`)
  piles.is = { joined: Number(rows[0]?.joined ?? 0), shared: Number(rows[0]?.shared ?? 0) }
  return piles as Piles
}

/** The cube; or the contacts in its shape, where it cannot tell whom the filter means. */
function sourceOf(listId: string, filter: Filter): SQL {
  const elsewhere = elsewhereConditions(filter)
  if (elsewhere.length === 0) return sql`contact_cube`
  return sql`(select list_id, ${CUBE_DIMENSIONS}, joined_into is not null as is_joined, joined > 0 as has_joined, 1 as contacts
    from contacts where list_id = ${listId} and ${READY} and ${sql.join(elsewhere, sql` and `)}) as cube`
}
