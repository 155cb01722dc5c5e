import { suppressibleKeys } from '@upper-field/core/pair'
import type { ProjectedContact } from '@upper-field/core/tidy'
import { sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { sha256Hex } from '../sha256'

/** Everything a projected row can be suppressed by. */
export const keysOfProjected = ({ numbers, emails, values }: ProjectedContact): readonly string[] =>
  suppressibleKeys({
    e164s: numbers.map(({ e164 }) => e164),
    addresses: emails.map(({ address }) => address),
    domain: values.domain,
  })

/**
 * Which of these keys are on a suppression list now; entries that have expired do not count.
 * @param keysOf asked only where there is any entry at all
 */
export async function suppressedAmong(db: Db, keysOf: () => readonly string[]): Promise<ReadonlySet<string>> {
  const { rows: any } = await db.execute(sql`select 1 from suppression_entries limit 1`)
  if (any.length === 0) return NONE
  const byHash = new Map([...new Set(keysOf())].map((key) => [sha256Hex(key), key]))
  const { rows } = await db.execute<{ hash: string }>(sql`
    select distinct hash from suppression_entries
    where hash = any(${sql.param([...byHash.keys()])}::text[]) and (expires_at is null or expires_at > now())`)
  return new Set(rows.flatMap(({ hash }) => byHash.get(hash) ?? []))
}

const NONE: ReadonlySet<string> = new Set()
