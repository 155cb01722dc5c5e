import { sql } from 'drizzle-orm'
import { type Db, transaction } from '../db/database'
import { isThereAlready } from '../db/errors'
import { readRows, text } from '../db/readRows'
import { logError } from '../http/problem'
import { byItself } from '../jobs/byItself'
import type { Services } from '../services'
import { countBehind } from './audienceCounts'
import { startDelivery } from './startDelivery'

/** Whoever has to leave is taken out by itself after this long, in hours; after a day it is overdue. */
const BY_ITSELF_AFTER_HOURS = 20

/** Takes out by itself whoever should have left, where an audience is kept so. @returns how many deliveries began */
export async function removeOverdue(services: Services): Promise<number> {
  // One that cannot be counted keeps nobody in the others.
  await byItself(services, countBehind)
  const overdue = await readRows(services.db, { id: text })`
    select a.id from audiences a
    where a.removed_at is null and a.removes_by_itself and a.remote_id is not null and exists (
      select 1 from audience_members m where m.audience_id = a.id
        and m.owed_since <= now() - make_interval(hours => ${BY_ITSELF_AFTER_HOURS}))
      and not exists (select 1 from deliveries d where d.audience_id = a.id
        and (d.state = 'under-way' or d.started_at > now() - interval '1 hour'))`
  let count = 0
  for (const { id } of overdue) {
    try {
      await transaction(services.pool, (tx) => startDelivery(tx, { audienceId: id, editionId: null, startedBy: null }))
      count++
    } catch (error) {
      // Another server was quicker.
      if (!isThereAlready(error)) logError('removals', error)
    }
  }
  return count
}

/**
 * Somebody was forgotten: their lines are kept without a name until the network has taken them out, and no edition
 * holds them any more.
 */
export async function leaveAudiences(tx: Db, contactIds: readonly number[]): Promise<void> {
  const these = sql`any(${sql.param([...contactIds])}::bigint[])`
  await tx.execute(sql`
    update audience_members set owed_since = coalesce(owed_since, now()), contact_id = null where contact_id = ${these}`)
  await tx.execute(sql`delete from edition_lines where contact_id = ${these}`)
  await tx.execute(sql`delete from edition_left_out where contact_id = ${these}`)
}
