import type { AutomationStart } from '@upper-field/contract'
import { sql } from 'drizzle-orm'
import type { Db } from '../db/database'

/**
 * Begins the automations of a list that start with this, in the transaction of what happened. What was begun for the
 * same batch and has not worked yet will do for both.
 */
export async function beginAutomations(
  tx: Db,
  listId: string,
  start: Exclude<AutomationStart, 'day'>,
  batchId: string,
): Promise<void> {
  await tx.execute(sql`
    insert into automation_runs (automation_id, list_id, start, batch_id, steps, started_by)
    select a.id, a.list_id, a.start, ${batchId}::uuid, a.steps, a.made_by from automations a
    where a.list_id = ${listId} and a.start = ${start} and a.is_on and not exists (
      select 1 from automation_runs r where r.automation_id = a.id and r.batch_id = ${batchId} and r.state = 'running'
        and r.job_id is null and r.done = '[]'::jsonb)`)
}

/**
 * Begins those that start with a day, once a day each. Those of archived lists rest, and one whose last run is not over
 * waits for its end.
 */
export async function beginDay(db: Db, at: Date): Promise<void> {
  const day = at.toISOString().slice(0, 10)
  await db.execute(sql`
    with due as (
      update automations set last_day = ${day}
      where start = 'day' and is_on and hour <= ${at.getUTCHours()} and last_day is distinct from ${day}
        and exists (select 1 from lists l where l.id = list_id and l.archived_at is null)
        and not exists (select 1 from automation_runs r where r.automation_id = automations.id and r.state = 'running')
      returning id, list_id, start, steps, made_by)
    insert into automation_runs (automation_id, list_id, start, steps, started_by)
    select id, list_id, start, steps, made_by from due`)
}
