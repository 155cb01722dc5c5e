import { sql } from 'drizzle-orm'
import { contactsIn } from '../contacts/contactsIn'
import type { Db } from '../db/database'
import { readIds, readRows, text } from '../db/readRows'

/** Whose lines are asked for: the numbers of a page, and the lists they stand in. */
interface Asked {
  readonly listIds: readonly string[]
  readonly e164s: readonly string[]
}

/** A number as one list knows it. */
export const lineIn = (listId: string, e164: string): string => `${listId} ${e164}`

/** Tells which numbers of a page more than one contact of a list holds, joined ones counted as the one they are joined to. */
export type SharedIn = (page: Asked) => Promise<ReadonlySet<string>>

/** Fewer contacts are asked for page by page, however small their list is. */
const FEW = 1000
/** A number asked for takes so many times as long as a contact, where all of a list are looked through. */
const DEARER = 8

/** @param contacts how many of them are going to be asked for, where that is known; more may be */
export function sharedLines(tx: Db, contacts: number): SharedIn {
  const shared = new Set<string>()
  const known = new Set<string>()
  let asked = 0
  return async ({ listIds, e164s }) => {
    const unknown = listIds.filter((id) => !known.has(id))
    if (unknown.length === 0) return shared
    asked += e164s.length
    const wanted = Math.max(contacts, asked)
    if (wanted < FEW || wanted * DEARER < (await contactsIn(tx, unknown))) return findShared(tx, listIds, e164s)
    await findShared(tx, unknown, null, shared)
    for (const id of unknown) known.add(id)
    return shared
  }
}

/** Which of these contacts hold a line that another contact of their list holds too, joined ones counted as the one they are joined to. */
export async function sharersAmong(tx: Db, ids: readonly number[]): Promise<number[]> {
  if (ids.length === 0) return []
  const these = sql`any(${sql.param([...ids])}::bigint[])`
  return readIds(tx)`
    with lines as (select distinct list_id, e164 from contact_numbers where contact_id = ${these}),
      shared as (
        select n.list_id, n.e164 from lines join contact_numbers n using (list_id, e164) join contacts c on c.id = n.contact_id
        where ${COUNTS} group by n.list_id, n.e164 having ${HELD_BY_SEVERAL})
    select distinct n.contact_id as id from shared join contact_numbers n using (list_id, e164) where n.contact_id = ${these}`
}

/** Of a contact `c`: one whose batch was taken back shares no line with anybody. */
const COUNTS = sql`exists (select 1 from batches b where b.id = c.batch_id and b.state <> 'taken-back')`
const HOLDER = sql`coalesce(c.joined_into, c.id)`
/** To count them would sort all who hold a number. */
const HELD_BY_SEVERAL = sql`min(${HOLDER}) <> max(${HOLDER})`

/**
 * @param e164s the numbers that are asked for; null for all
 * @param found what they are added to
 */
async function findShared(
  tx: Db,
  listIds: readonly string[],
  e164s: readonly string[] | null,
  found = new Set<string>(),
): Promise<ReadonlySet<string>> {
  if (e164s?.length === 0) return found
  const areThese = e164s === null ? sql`` : sql`and n.e164 = any(${sql.param(e164s)}::text[])`
  const rows = await readRows(tx, { listId: text, e164: text })`
    select n.list_id, n.e164 from contact_numbers n join contacts c on c.id = n.contact_id
    where n.list_id = any(${sql.param(listIds)}::uuid[]) ${areThese} and ${COUNTS}
    group by n.list_id, n.e164 having ${HELD_BY_SEVERAL}`
  for (const { listId, e164 } of rows) found.add(lineIn(listId, e164))
  return found
}
