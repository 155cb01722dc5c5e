import type { AlsoIn } from '@upper-field/contract'
import { sql } from 'drizzle-orm'
import { chosenContacts } from '../contacts/page'
import { readFilter } from '../contacts/readFilter'
import type { Db } from '../db/database'
import { num, readRows, text } from '../db/readRows'
import { matchesElsewhere } from './elsewhere'

/** How many of the contacts that a filter chooses are in each other open list too, whichever of those the filter names. */
export async function alsoIn(db: Db, listId: string, chosenBy: string): Promise<AlsoIn[]> {
  const filter = readFilter(chosenBy)
  const { in: _, ...piles } = filter.piles
  const chosen = sql`c.id in (select id from contacts where joined_into is null and ${chosenContacts(listId, { ...filter, piles })})`
  return readRows(db, { listId: text, name: text, contacts: num })`
    with same as (${matchesElsewhere(chosen, sql`true`)})
    select l.id as list_id, l.name, count(distinct s.id) as contacts from same s join lists l on l.id = s.list_id
    where l.archived_at is null group by l.id, l.name order by 3 desc, l.name`
}
