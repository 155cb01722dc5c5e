import { sql } from 'drizzle-orm'
import type { PoolClient } from 'pg'
import type { Db } from '../db/database'
import { readIds } from '../db/readRows'
import type { fills } from '../db/schema'
import { joinAgain } from '../pair/joinAgain'
import { rootsOf } from '../pair/standsFor'
import { countContacts } from '../projection/cube'
import { reproject } from '../projection/reproject'

/** A number or an address that was found for a contact, or taken out of it again. */
export interface FoundValue {
  readonly contactId: number
  readonly value: string
}

/** What was found, of a line of `fills`. */
export const foundValueOf = ({
  contactId,
  e164,
  address,
}: Pick<typeof fills.$inferInsert, 'contactId' | 'e164' | 'address'>): FoundValue => ({
  contactId,
  value: e164 ?? address ?? '',
})

/**
 * Projects contacts of a list anew for whom something was found, or from whom it was taken, and whoever they are joined to:
 * what was found is that one's. Where others hold a value too, who is one person with whom and who shares a line is decided
 * anew. The list is held, and counted.
 * @param told contacts besides, of whose numbers or addresses something was learnt
 */
export async function projectFound(
  tx: Db,
  client: PoolClient,
  listId: string,
  found: readonly FoundValue[],
  told: readonly number[] = [],
): Promise<void> {
  const meeting = await whoMeet(tx, listId, found)
  await joinAgain(tx, client, listId, [...meeting])
  const alone = [...found.map(({ contactId }) => contactId), ...told].filter((id) => !meeting.has(id))
  await reproject(tx, client, { contacts: [...alone, ...(await rootsOf(tx, alone))], because: 'changed' })
  await countContacts(tx, listId)
}

/** Contacts of which several hold one of these values, or are to hold it: they may be one person, or share a line. */
async function whoMeet(tx: Db, listId: string, found: readonly FoundValue[]): Promise<ReadonlySet<number>> {
  // Most answers of providers bring nothing.
  if (found.length === 0) return new Set()
  const shared = await readIds(tx)`
    with found as (
      select * from unnest(${sql.param(found.map(({ contactId }) => contactId))}::bigint[], ${sql.param(found.map(({ value }) => value))}::text[]) as f (id, value)),
    holding as (
      select id, value from found
      union select n.contact_id, n.e164 from contact_numbers n where n.list_id = ${listId} and n.e164 in (select value from found)
      union select e.contact_id, e.address from contact_emails e where e.list_id = ${listId} and e.address in (select value from found))
    select distinct id from holding where value in (select value from holding group by value having count(*) > 1)`
  return new Set(shared)
}
