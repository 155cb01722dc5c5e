import type { CheckEstimate } from '@upper-field/contract'
import { FRESH_DAYS } from '@upper-field/core/check'
import { type SQL, sql } from 'drizzle-orm'
import { chosenContacts } from '../contacts/page'
import { readFilter } from '../contacts/readFilter'
import type { Db } from '../db/database'
import { registerTerms } from './register'

/** Distinct valid numbers of the chosen contacts, and whether an answer is known or on its way. */
export function chosenNumbers(listId: string, filter: string): SQL {
  return sql`
    select distinct n.e164, coalesce(f.checked_at > now() - make_interval(days => ${FRESH_DAYS}), false)
      or exists (select 1 from line_checks l join jobs j on j.id = l.job_id
                 where l.e164 = n.e164 and l.answered_at is null
                   and (l.order_id is not null or j.state in ('queued', 'running', 'waiting', 'pausing', 'paused'))) as is_fresh
    from contact_numbers n
    join (select id from contacts where ${chosenContacts(listId, readFilter(filter))}) c on c.id = n.contact_id
    left join numbers f on f.e164 = n.e164
    where n.is_valid`
}

/** How many numbers a check would ask about, and the most it can cost: each once, fresh answers not again. */
export async function estimateCheck(db: Db, listId: string, filter: string): Promise<CheckEstimate> {
  const { rows } = await db.execute<{ numbers: string; fresh: string }>(
    sql`select count(*) as numbers, count(*) filter (where is_fresh) as fresh from (${chosenNumbers(listId, filter)}) chosen`,
  )
  const numbers = Number(rows[0]?.numbers ?? 0)
  const fresh = Number(rows[0]?.fresh ?? 0)
  const price = (await registerTerms(db))?.price ?? 0
  return { numbers, fresh, toAsk: numbers - fresh, most: (numbers - fresh) * price }
}
