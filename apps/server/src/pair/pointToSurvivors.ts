import { sql } from 'drizzle-orm'
import type { Db } from '../db/database'

/** From so many survivors on, their ids are a table. */
const MANY = 500

/**
 * Points everything that was joined below these contacts at them. A contact that survived a join may be joined to
 * another later: its members then belong to that one, and come back with it when the join is undone.
 */
export async function pointToSurvivors(tx: Db, survivors: readonly number[]): Promise<void> {
  const isMany = survivors.length > MANY
  // As a table the planner knows the size of: it would guess a handful, and look through all joins for each.
  if (isMany) {
    await tx.execute(sql`create temp table if not exists pointing (id bigint primary key) on commit drop`)
    await tx.execute(sql`truncate pointing`)
    await tx.execute(sql`insert into pointing select distinct unnest(${sql.param(survivors)}::bigint[])`)
    await tx.execute(sql`analyze pointing`)
  }
  const areThese = isMany ? sql`(select id from pointing)` : sql`(select unnest(${sql.param(survivors)}::bigint[]))`
  await tx.execute(sql`
    with recursive below as (
      select j.member_id, j.survivor_id as root from joins j
      where j.survivor_id in ${areThese} and j.undone_at is null and j.suspended_by is null
        and not exists (select 1 from joins up where up.member_id = j.survivor_id and up.undone_at is null and up.suspended_by is null)
      union all
      select j.member_id, b.root from below b join joins j on j.survivor_id = b.member_id and j.undone_at is null and j.suspended_by is null
    )
    update contacts c set joined_into = below.root from below where c.id = below.member_id and c.joined_into is distinct from below.root`)
}
