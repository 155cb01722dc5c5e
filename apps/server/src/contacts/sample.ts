import { type SQL, sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { readCount } from '../db/readRows'

/** How large lists are looked at where a first answer is wanted quickly. */
export interface Sampling {
  /** Lists of more contacts are not looked at whole. */
  readonly above: number
  /** So many contacts are looked at, in runs spread evenly over the rows of all batches. */
  readonly size: number
}

export const USUAL_SAMPLING: Sampling = { above: 150_000, size: 10_000 }

export interface Sample {
  /** To be selected from in place of `contacts`. */
  readonly from: SQL
  /** How many contacts of the list each of the sample stands for. */
  readonly each: number
}

/** Contacts side by side that are looked at together: they stand on a few pages of the disk. */
const RUN = 100

/** Contacts spread evenly over the rows of a list; null where it is small enough to be looked at whole. */
export async function sampleOf(db: Db, listId: string, { above, size }: Sampling): Promise<Sample | null> {
  const contacts = await readCount(db)`
    select coalesce(sum(contacts), 0) as n from contact_cube where list_id = ${listId}`
  if (contacts <= above) return null
  const run = Math.min(RUN, Math.ceil(size / 10))
  const stride = Math.ceil((contacts * run) / size)
  const from = sql`(
    select c.* from batches b cross join generate_series(0, b.rows, ${stride}::int) as start
      cross join lateral (
        -- The limit keeps the planner from looking through the whole table instead.
        select * from contacts where batch_id = b.id and row > start and row <= start + ${run}::int order by row limit ${run}) c
    where b.list_id = ${listId} and b.state = 'ready') contacts`
  return { from, each: stride / run }
}

/** An estimate is told as exactly as it is known: to two figures. */
export function asEstimate(n: number): number {
  const unit = 10 ** Math.max(0, Math.floor(Math.log10(Math.max(1, n))) - 1)
  return Math.round(n / unit) * unit
}
