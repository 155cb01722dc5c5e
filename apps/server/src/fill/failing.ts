import { sql } from 'drizzle-orm'
import type { Db } from '../db/database'

/** So many failures of a provider one after another set it aside for the rest of a run. */
const TOO_MANY = 5

/** Providers that keep failing in a run: it goes on without them. Answers that only came too late are no failures. */
export async function failingProviders(db: Db, jobId: string): Promise<ReadonlySet<string>> {
  const { rows } = await db.execute<{ provider: string }>(sql`
    select provider from (
      select provider, state, row_number() over (partition by provider order by answered_at desc, id) as back
      from attempts where job_id = ${jobId} and state <> 'waiting'
    ) latest
    where back <= ${TOO_MANY} group by provider
    having count(*) = ${TOO_MANY} and bool_and(state = 'failed')`)
  return new Set(rows.map(({ provider }) => provider))
}
