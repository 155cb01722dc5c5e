import { sql } from 'drizzle-orm'
import type { Db } from '../db/database'

/** Whose lines are asked for: the numbers of a page, and the lists they stand in. */
interface Asked {
  readonly listIds: readonly string[]
  readonly e164s: readonly string[]
}

/** A number as one list knows it. */
export const lineIn = (listId: string, e164: string): string => `${listId} ${e164}`

/** From so many contacts on, the shared lines of their lists are found at once: page by page would take longer. */
const MANY = 20_000

/** Tells which numbers of a page more than one contact of a list holds, joined ones counted as the one they are joined to. */
export function sharedLines(tx: Db, contacts: number): (page: Asked) => Promise<ReadonlySet<string>> {
  if (contacts < MANY) return ({ listIds, e164s }) => findShared(tx, listIds, e164s)
  const shared = new Set<string>()
  const known = new Set<string>()
  return async ({ listIds }) => {
    const unknown = listIds.filter((id) => !known.has(id))
    for (const line of unknown.length > 0 ? await findShared(tx, unknown, null) : []) shared.add(line)
    for (const id of unknown) known.add(id)
    return shared
  }
}

/** All lines that several contacts hold in the lists these are in. */
export async function sharedLinesOf(tx: Db, ids: readonly number[]): Promise<ReadonlySet<string>> {
  const { rows } = await tx.execute<{ list_id: string }>(
    sql`select distinct list_id from contacts where id = any(${sql.param([...ids])}::bigint[])`,
  )
  return findShared(
    tx,
    rows.map((row) => row.list_id),
    null,
  )
}

/** Which of these contacts hold one of these lines. @param lines see `lineIn` */
export async function holdersOfLines(tx: Db, ids: readonly number[], lines: readonly string[]): Promise<number[]> {
  if (lines.length === 0) return []
  const { rows } = await tx.execute<{ id: string }>(sql`
    select distinct n.contact_id as id from unnest(${sql.param([...lines])}::text[]) line
    join contact_numbers n on n.e164 = split_part(line, ' ', 2) and n.list_id = split_part(line, ' ', 1)::uuid
    where n.contact_id = any(${sql.param([...ids])}::bigint[])`)
  return rows.map(({ id }) => Number(id))
}

/** @param e164s the numbers that are asked for; null for all */
async function findShared(
  tx: Db,
  listIds: readonly string[],
  e164s: readonly string[] | null,
): Promise<ReadonlySet<string>> {
  if (e164s?.length === 0) return new Set()
  const areThese = e164s === null ? sql`` : sql`and n.e164 = any(${sql.param(e164s)}::text[])`
  const { rows } = await tx.execute<{ list_id: string; e164: string }>(sql`
    select n.list_id, n.e164 from contact_numbers n join contacts c on c.id = n.contact_id
    where n.list_id = any(${sql.param(listIds)}::uuid[]) ${areThese}
      and exists (select 1 from batches b where b.id = c.batch_id and b.state <> 'taken-back')
    group by n.list_id, n.e164 having count(distinct coalesce(c.joined_into, c.id)) > 1`)
  return new Set(rows.map((row) => lineIn(row.list_id, row.e164)))
}
