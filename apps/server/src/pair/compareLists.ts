import type { ListBeside } from '@upper-field/contract'
import { sql } from 'drizzle-orm'
import { isShown } from '../contacts/shown'
import type { Db } from '../db/database'
import { num, readRows, text } from '../db/readRows'
import { matchesElsewhere } from './elsewhere'

/** Every other open list beside this one: who is in both, only here, only there. Most in common first. */
export async function compareLists(db: Db, listId: string): Promise<ListBeside[]> {
  const standing = (list: ReturnType<typeof sql>) => sql`(select count(*) from contacts s
    where s.list_id = ${list} and s.joined_into is null and ${isShown('s')})`
  const isMine = sql`c.list_id = ${listId} and c.joined_into is null
    and ${isShown('c')}`
  const lists = await readRows(db, { listId: text, name: text, bothHere: num, bothThere: num, here: num, there: num })`
    with same as (${matchesElsewhere(isMine, sql`true`)}),
      counted as (select list_id, count(distinct id) as here, count(distinct other) as there from same group by list_id)
    select l.id as list_id, l.name, coalesce(m.here, 0) as both_here, coalesce(m.there, 0) as both_there,
      ${standing(sql`${listId}::uuid`)} as here, ${standing(sql`l.id`)} as there
    from lists l left join counted m on m.list_id = l.id
    where l.id <> ${listId} and l.archived_at is null
    order by coalesce(m.here, 0) desc, l.name`
  return lists.map(({ here, there, ...one }) => ({
    ...one,
    onlyHere: here - one.bothHere,
    onlyThere: there - one.bothThere,
  }))
}
