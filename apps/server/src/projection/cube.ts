import { drawTerrace, type TerraceStep } from '@upper-field/core/story'
import { sql } from 'drizzle-orm'
import { isShown } from '../contacts/shown'
import type { Db } from '../db/database'
import { num, readRows, text } from '../db/readRows'
import { decideLanes } from '../split/decideLanes'
import { endOfChanges, isCountedByChange } from './countedChanges'
import { COUNTED_BY, CUBE_DIMENSIONS, SENT } from './cubeDimensions'

/**
 * Brings lanes and counts of a list up to date, in the transaction that changed its contacts and holds the list. Sieve and
 * terrace read these counts: from the table itself they would take seconds on a large list. Where changes are counted as
 * they are made, only those touched are looked at; else the whole list is.
 * @param repairs told by work that tidies no row: how many were mended, and how many need a person, is what it was
 */
export async function countContacts(
  tx: Db,
  listId: string,
  { repairs }: { readonly repairs?: 'as-they-were' } = {},
): Promise<void> {
  if (await isCountedByChange(tx)) {
    await decideLanes(tx, listId, sql`id in (select t.id from touched_contacts t where t.list_id = ${listId})`)
    await endOfChanges(tx, listId)
  } else {
    await decideLanes(tx, listId)
    await (repairs === 'as-they-were' ? countStanding(tx, listId) : recountContacts(tx, listId))
  }
  await tx.execute(sql`update lists set changed_at = now() where id = ${listId}`)
}

/** Counts a whole list anew, whatever was counted before. */
export async function recountContacts(tx: Db, listId: string): Promise<void> {
  await countStanding(tx, listId)
  await countRepairs(tx, listId)
  await tx.execute(sql`update lists set unsummed = 0 where id = ${listId}`)
}

/** How many contacts there are of each kind that sieve and terrace tell apart. */
async function countStanding(tx: Db, listId: string): Promise<void> {
  await tx.execute(sql`delete from contact_cube where list_id = ${listId}`)
  await tx.execute(sql`
    insert into contact_cube (list_id, ${CUBE_DIMENSIONS}, contacts)
    select ${listId}, ${COUNTED_BY}, count(*) from contacts ${SENT}
    where list_id = ${listId} and ${isShown()} group by ${CUBE_DIMENSIONS}`)
}

/** How many contacts each repair touched, and how many need a person. */
async function countRepairs(tx: Db, listId: string): Promise<void> {
  const ready = sql`c.list_id = ${listId} and ${isShown('c')}`
  await tx.execute(sql`delete from tidy_counts where list_id = ${listId}`)
  await tx.execute(sql`
    insert into tidy_counts (list_id, batch_id, code, contacts)
    select c.list_id, c.batch_id, code, count(*) from contacts c cross join unnest(c.changes) as code where ${ready} group by 1, 2, 3
    union all
    select c.list_id, c.batch_id, 'hand', count(*) from contacts c where ${ready} and c.hand > 0 group by 1, 2`)
}

export interface ListCounts {
  readonly terrace: readonly TerraceStep[]
  /** Contacts that stand for themselves. */
  readonly contacts: number
}

const COUNTED = {
  listId: text,
  contacts: num,
  rows: num,
  held: num,
  nothingReadable: num,
  joined: num,
  outOfService: num,
  filled: num,
  byPost: num,
  suppressed: num,
  parked: num,
  notSent: num,
}

/** Terraces of lists, from their counts. Lists that are not told of have no rows yet. */
export async function readTerraces(tx: Db, listIds: readonly string[]): Promise<Map<string, ListCounts>> {
  const counted = await readRows(tx, COUNTED)`
    select l.id as list_id,
      coalesce(b.rows, 0) as rows, coalesce(b.held, 0) as held, coalesce(c.contacts, 0) as contacts,
      coalesce(c.nothing, 0) as nothing_readable, coalesce(c.joined, 0) as joined, coalesce(c.dead, 0) as out_of_service,
      coalesce(c.filled, 0) as filled, coalesce(c.suppressed, 0) as suppressed, coalesce(c.parked, 0) as parked,
      coalesce(c.by_post, 0) as by_post, coalesce(c.not_sent, 0) as not_sent
    from lists l
    left join (select list_id, sum(rows) as rows, sum(held) as held from batches where state = 'ready' group by list_id) b on b.list_id = l.id
    left join (
      select list_id,
        sum(contacts) filter (where not is_joined) as contacts,
        sum(contacts) filter (where not is_readable) as nothing,
        sum(contacts) filter (where is_readable and is_joined) as joined,
        sum(contacts) filter (where is_readable and not is_joined and is_dead) as dead,
        sum(contacts) filter (where not is_joined and is_filled) as filled,
        sum(contacts) filter (where not is_joined and ((is_readable and not is_dead) or is_filled) and lane_reason = 'suppressed') as suppressed,
        sum(contacts) filter (where not is_joined and ((is_readable and not is_dead) or is_filled) and lane = 'parked' and lane_reason <> 'suppressed') as parked,
        sum(contacts) filter (where not is_joined and not ((is_readable and not is_dead) or is_filled) and lane <> 'parked') as by_post,
        sum(contacts) filter (where not is_joined and lane <> 'parked' and not is_sent) as not_sent
      from contact_cube group by list_id) c on c.list_id = l.id
    where l.id = any(${sql.param(listIds)}::uuid[])`
  return new Map(counted.map(({ listId, contacts, ...facts }) => [listId, { terrace: drawTerrace(facts), contacts }]))
}
