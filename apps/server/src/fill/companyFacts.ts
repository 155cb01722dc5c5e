import { companyFactsIn } from '@upper-field/core/fill'
import { areNamesCompatible } from '@upper-field/core/pair'
import { readDomain } from '@upper-field/core/tidy'
import { type SQL, sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { asGiven, insertRows } from '../db/insertRows'
import { companyFacts } from '../db/schema'
import type { JudgedAnswer } from './judgeAnswers'

/** Keeps what answers told of companies, besides what they were asked for: the latest word on each contact's. */
export async function keepCompanyFacts(
  tx: Db,
  listId: string,
  judged: readonly JudgedAnswer[],
  toldAt: Date,
): Promise<void> {
  const rows = judged.flatMap(({ attempt, contact, provider, items }) => {
    const facts = companyFactsIn(items, (name) => !areNamesCompatible(name, contact.fullName))
    if (facts === null) return []
    const domain = readDomain(facts.site) ?? ''
    return [{ contactId: contact.id, listId, attemptId: attempt.id, provider: provider.id, domain, toldAt, ...facts }]
  })
  const once = [...new Map(rows.map((row) => [row.contactId, row])).values()]
  await insertRows(
    tx,
    companyFacts,
    once,
    sql`on conflict (contact_id) do update ${asGiven('attempt_id', 'provider', 'domain', 'site', 'page', 'industry', 'headcount', 'told_at')}`,
  )
}

/**
 * The domain a provider is told: of the contact's own site, of the one a provider told, or of a work address.
 * @param contact alias of the contacts in the query
 * @param mayUse of a fact (`f`): whether it may be used
 */
export const askedDomain = (contact: string, mayUse: SQL = sql`true`): SQL =>
  sql`coalesce(nullif(${sql.raw(contact)}.domain, ''),
    (select nullif(f.domain, '') from company_facts f where f.contact_id = ${sql.raw(contact)}.id and ${mayUse}),
    (select split_part(e.address, '@', 2) from contact_emails e
     where e.contact_id = ${sql.raw(contact)}.id and e.kind = 'work' order by e.position limit 1), '')`

/**
 * Whether a fact may be used in a run. What one service tells of a company is not told to the next where everybody is asked:
 * orders are replayed on those answers, also such that ask the next one first.
 */
export const mayBeTold = (jobId: string): SQL =>
  sql`not exists (select 1 from attempts told join fill_runs r on r.job_id = told.job_id
    where told.id = f.attempt_id and told.job_id = ${jobId} and r.asking = 'everybody')`
