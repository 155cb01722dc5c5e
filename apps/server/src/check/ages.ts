import type { AnswerAge, AnswerAges } from '@upper-field/contract'
import { sql } from 'drizzle-orm'
import { chosenContacts } from '../contacts/page'
import { readFilter } from '../contacts/readFilter'
import type { Db } from '../db/database'
import { groupBy } from '../db/groupBy'
import { num, type RowOf, readRows, text, word } from '../db/readRows'
import { freshCondition, readFreshDays } from './settings'
import type { Subject } from './subjects'

const GROUP = { country: text, age: word<AnswerAge>, n: num, stale: num, listed: num }

/** How old the answers are about what the chosen contacts hold, each number or address once for each country. */
export async function answerAges<A>(
  db: Db,
  { facts, holders, column, isWorth, isListed }: Subject<A>,
  listId: string,
  filter: string,
): Promise<AnswerAges[]> {
  const name = sql.raw(column)
  const groups = await readRows(db, GROUP)`
    with held as (
      select distinct n.${name}, c.country, f.checked_at, ${freshCondition(await readFreshDays(db))} as is_fresh,
        coalesce(${sql.raw(isListed)}, false) as is_listed
      from ${sql.raw(holders)} n
      join (select id, country from contacts where ${chosenContacts(listId, readFilter(filter))}) c on c.id = n.contact_id
      left join ${sql.raw(facts)} f on f.${name} = n.${name}
      where ${sql.raw(isWorth)})
    select country, count(*) as n, count(*) filter (where checked_at is not null and not is_fresh) as stale,
      count(*) filter (where is_listed) as listed,
      case when checked_at is null then 'never'
        when checked_at > now() - interval '7 days' then 'week' when checked_at > now() - interval '30 days' then 'month'
        when checked_at > now() - interval '90 days' then 'quarter' else 'older' end as age
    from held group by country, age`
  const told = [...groupBy(groups, ({ country }) => country)].map(([country, found]) => ({
    country,
    subjects: sumOf(found, 'n'),
    byAge: {
      ...NO_AGES,
      ...Object.fromEntries(found.map(({ age, n }) => [age, n])),
    },
    stale: sumOf(found, 'stale'),
    listed: sumOf(found, 'listed'),
  }))
  return told.sort((a, b) => b.subjects - a.subjects)
}

const NO_AGES: Readonly<Record<AnswerAge, number>> = { week: 0, month: 0, quarter: 0, older: 0, never: 0 }

const sumOf = (groups: readonly RowOf<typeof GROUP>[], what: 'n' | 'stale' | 'listed'): number =>
  groups.reduce((sum, group) => sum + group[what], 0)
