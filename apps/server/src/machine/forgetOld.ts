import { sql } from 'drizzle-orm'
import type { Services } from '../services'

/** How long is kept what programs called and were told, in days. */
const KEPT = 90

/**
 * Lets go what is told of other programs once it is old: their calls, and messages to them that are not waiting any more.
 * The latest message of each webhook stays: by it is told when it was told something last.
 */
export async function forgetOldCalls({ db }: Pick<Services, 'db'>): Promise<void> {
  await db.execute(sql`delete from machine_calls where at < now() - make_interval(days => ${KEPT})`)
  await db.execute(sql`
    delete from webhook_messages m where m.state <> 'waiting' and m.made_at < now() - make_interval(days => ${KEPT})
      and exists (select 1 from webhook_messages l where l.webhook_id = m.webhook_id and l.made_at > m.made_at)`)
}
