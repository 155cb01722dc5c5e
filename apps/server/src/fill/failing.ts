import { sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { readRows, text } from '../db/readRows'

/** So many failures of a provider one after another set it aside for the rest of a run. */
const TOO_MANY = 5

/** Providers that keep failing in a run: it goes on without them. Answers that only came too late are no failures. */
export async function failingProviders(
  db: Db,
  jobId: string,
  providers: readonly string[],
): Promise<ReadonlySet<string>> {
  const failing = await readRows(db, { provider: text })`
    select provider from unnest(${sql.param([...providers])}::text[]) as provider, lateral (
      select state from attempts a where a.job_id = ${jobId} and a.provider = provider.provider and a.answered_at is not null
        and a.state <> 'waiting' order by a.answered_at desc, a.id limit ${TOO_MANY}
    ) latest
    group by provider having count(*) = ${TOO_MANY} and bool_and(state = 'failed')`
  return new Set(failing.map(({ provider }) => provider))
}
