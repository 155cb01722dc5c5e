import { type SQL, sql } from 'drizzle-orm'
import { orNull, text } from '../db/readRows'

/**
 * What a provider can be told about a contact, as columns of a query. The domain is that of the contact's own site, of the one a
 * provider told, or of a work address.
 *
 * Where everybody is asked, what one provider tells in the run is not told to the next: orders are replayed on those answers,
 * also such that ask the next one first.
 * @param contact alias of the contacts in the query
 * @param jobId the run in which it is told; none where no run has begun
 */
export function askedInputs(contact: string, jobId: string | null = null): SQL {
  const c = sql.raw(contact)
  const isNew = (attemptId: string): SQL => (jobId === null ? sql`false` : isOfSample(jobId, sql.raw(attemptId)))
  const isFound = (address: string): SQL =>
    jobId === null
      ? sql`false`
      : sql`exists (select 1 from fills x where x.contact_id = ${c}.id and x.address = ${sql.raw(address)} and ${isNew('x.attempt_id')})`
  return sql`full_name, company, profile, country,
    case when ${isFound(`${contact}.email`)} then '' else ${c}.email end as email,
    coalesce(nullif(${c}.domain, ''),
      (select nullif(f.domain, '') from company_facts f where f.contact_id = ${c}.id and not ${isNew('f.attempt_id')}),
      (select split_part(e.address, '@', 2) from contact_emails e
       where e.contact_id = ${c}.id and e.kind = 'work' and not ${isFound('e.address')}
       order by e.position limit 1), '') as domain`
}

/** How those columns are read: all are null where the contact is not there any more. */
export const ASKED = {
  full_name: orNull(text),
  company: orNull(text),
  domain: orNull(text),
  profile: orNull(text),
  email: orNull(text),
  country: orNull(text),
}

/** Whether an attempt is of this run, and the run asks everybody. */
const isOfSample = (jobId: string, attemptId: SQL): SQL =>
  sql`exists (select 1 from attempts told join fill_runs r on r.job_id = told.job_id
    where told.id = ${attemptId} and told.job_id = ${jobId} and r.asking = 'everybody')`
