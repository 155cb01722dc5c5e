import { type SQL, sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { listOf, readRows, text, when } from '../db/readRows'
import type { Subject } from './subjects'

/** Questions of one order that no answer was stored for yet. */
export interface OpenOrder {
  readonly orderId: string
  readonly orderedAt: Date
  readonly subjects: readonly string[]
}

/** The questions of a kind of thing, and the column that names it. */
function placeOf<A>({ checks, column }: Subject<A>): { readonly table: SQL; readonly name: SQL } {
  return { table: sql.raw(checks), name: sql.raw(column) }
}

/** The orders of this job that are still to be fetched, the oldest first. */
export async function openOrders<A>(db: Db, subject: Subject<A>, jobId: string): Promise<readonly OpenOrder[]> {
  const { table, name } = placeOf(subject)
  return readRows(db, { orderId: text, orderedAt: when, subjects: listOf(text) })`
    select order_id, min(ordered_at) as ordered_at, array_agg(${name} order by ${name}) as subjects
    from ${table} where job_id = ${jobId} and order_id is not null and answered_at is null
    group by order_id order by 2, 1`
}

/** What of a job nobody was asked about yet, in the same order whenever it is asked for. */
export async function subjectsToOrder<A>(db: Db, subject: Subject<A>, jobId: string, most: number): Promise<string[]> {
  const { table, name } = placeOf(subject)
  const open = await readRows(db, { subject: text })`
    select ${name} as subject from ${table} where job_id = ${jobId} and order_id is null and answered_at is null
    order by 1 limit ${most}`
  return open.map(({ subject }) => subject)
}

/** Writes down which order holds these, so that it is fetched whatever happens meanwhile. */
export async function noteOrder<A>(
  db: Db,
  subject: Subject<A>,
  jobId: string,
  { orderId, subjects }: Pick<OpenOrder, 'orderId' | 'subjects'>,
): Promise<void> {
  const { table, name } = placeOf(subject)
  await db.execute(sql`
    update ${table} set order_id = ${orderId}, ordered_at = now()
    where job_id = ${jobId} and ${name} = any(${sql.param([...subjects])}::text[])`)
}

/** Those of these that no answer was stored for: a step may have been committed without our hearing of it. */
export async function unanswered<A>(
  tx: Db,
  subject: Subject<A>,
  jobId: string,
  asked: readonly string[],
): Promise<string[]> {
  const { table, name } = placeOf(subject)
  const open = await readRows(tx, { subject: text })`
    select ${name} as subject from ${table}
    where job_id = ${jobId} and answered_at is null and ${name} = any(${sql.param([...asked])}::text[])`
  return open.map(({ subject }) => subject)
}
