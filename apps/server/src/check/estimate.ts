import type { CheckEstimate } from '@upper-field/contract'
import type { FreshDays } from '@upper-field/core/check'
import { type SQL, sql } from 'drizzle-orm'
import { chosenContacts } from '../contacts/page'
import { readFilter } from '../contacts/readFilter'
import type { Db } from '../db/database'
import { num, readRow } from '../db/readRows'
import { factTerms } from './openFacts'
import { freshCondition, readFreshDays } from './settings'
import type { Subject } from './subjects'

/** Whose numbers or addresses are meant, and how long answers about them keep. */
export interface Chosen {
  readonly listId: string
  readonly filter: string
  readonly days: FreshDays
  /** Of which countries the service knows; null for all. */
  readonly countries: readonly string[] | null
}

/** What of the chosen contacts can be asked about, each once, and whether an answer is known or on its way. */
export function chosenSubjects<A>(
  { checks, facts, holders, column, isWorth, country }: Subject<A>,
  { listId, filter, days, countries }: Chosen,
): SQL {
  const name = sql.raw(column)
  const isKnown =
    country === null || countries === null
      ? sql``
      : sql` and ${sql.raw(country)} = any(${sql.param([...countries])}::text[])`
  return sql`
    select distinct n.${name} as subject, f.checked_at is not null as is_known, ${freshCondition(days)}
      or exists (select 1 from ${sql.raw(checks)} l join jobs j on j.id = l.job_id
                 where l.${name} = n.${name} and l.answered_at is null
                   and (l.order_id is not null or j.state in ('queued', 'running', 'waiting', 'pausing', 'paused'))) as is_fresh
    from ${sql.raw(holders)} n
    join (select id from contacts where ${chosenContacts(listId, readFilter(filter))}) c on c.id = n.contact_id
    left join ${sql.raw(facts)} f on f.${name} = n.${name}
    where ${sql.raw(isWorth)}${isKnown}`
}

/** How many a check would ask about, and the most it can cost: each once, fresh answers not again. */
export async function estimateCheck<A>(
  db: Db,
  subject: Subject<A>,
  listId: string,
  filter: string,
): Promise<CheckEstimate> {
  const days = await readFreshDays(db)
  const terms = await factTerms(db, subject)
  const counted = await readRow(db, { subjects: num, fresh: num, stale: num })`
    select count(*) as subjects, count(*) filter (where is_fresh) as fresh, count(*) filter (where is_known and not is_fresh) as stale from (${chosenSubjects(subject, { listId, filter, days, countries: terms?.countries ?? null })}) chosen`
  const { subjects, fresh, stale } = counted ?? { subjects: 0, fresh: 0, stale: 0 }
  const price = terms?.price ?? 0
  return {
    subjects,
    fresh,
    stale,
    toAsk: subjects - fresh,
    most: (subjects - fresh) * price,
  }
}
