import { sql } from 'drizzle-orm'
import { contactsIn } from '../contacts/contactsIn'
import type { Db } from '../db/database'
import { isOneOf } from '../db/isOneOf'
import { readIds, readRows, text } from '../db/readRows'
import { contacts } from '../db/schema'

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

/** All lines that several contacts hold in the lists these are in. */
export async function sharedLinesOf(tx: Db, ids: readonly number[]): Promise<ReadonlySet<string>> {
  const lists = await tx.selectDistinct({ id: contacts.listId }).from(contacts).where(isOneOf(contacts.id, ids))
  return findShared(
    tx,
    lists.map(({ id }) => id),
    null,
  )
}

/** Which of these contacts hold one of these lines. @param lines see `lineIn` */
export async function holdersOfLines(tx: Db, ids: readonly number[], lines: readonly string[]): Promise<number[]> {
  if (lines.length === 0) return []
  return readIds(tx)`
    select distinct n.contact_id as id from unnest(${sql.param([...lines])}::text[]) line
    join contact_numbers n on n.e164 = split_part(line, ' ', 2) and n.list_id = split_part(line, ' ', 1)::uuid
    where n.contact_id = any(${sql.param([...ids])}::bigint[])`
}

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
    where n.list_id = any(${sql.param(listIds)}::uuid[]) ${areThese}
      and exists (select 1 from batches b where b.id = c.batch_id and b.state <> 'taken-back')
    group by n.list_id, n.e164 having count(distinct coalesce(c.joined_into, c.id)) > 1`
  for (const { listId, e164 } of rows) found.add(lineIn(listId, e164))
  return found
}
