import type { Directory } from '@upper-field/core/connect'
import { type SQL, sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { readRows, text } from '../db/readRows'
import { WITHOUT_ID } from './judgeRecords'

/** What a directory is told of, so that it neither tells nor charges it. */
export interface Known {
  readonly knownRecords: readonly string[]
  readonly knownNumbers: readonly string[]
  /** True where there is more than it takes. */
  readonly isInPart: boolean
}

const NOTHING: Known = { knownRecords: [], knownNumbers: [], isInPart: false }

/**
 * What is there already in a list or suppressed: numbers, hashed where the directory takes hashes, and what the same
 * directory has told this list before.
 */
export async function knownOfList(
  db: Db,
  { listId, provider, known }: { listId: string; provider: string; known: Directory['known'] },
): Promise<Known> {
  if (known === null) return NOTHING
  const records = known.records ? await column(db, recordsTold(listId, provider, known.most + 1)) : []
  const numbers = known.numbers === 'none' ? [] : await column(db, numbersKnown(listId, known.numbers, known.most + 1))
  return {
    knownRecords: records.slice(0, known.most),
    knownNumbers: numbers.slice(0, known.most),
    isInPart: records.length > known.most || numbers.length > known.most,
  }
}

async function column(db: Db, query: SQL): Promise<readonly string[]> {
  return (await readRows(db, { value: text })`${query}`).map(({ value }) => value)
}

const recordsTold = (listId: string, provider: string, most: number): SQL => sql`
  select distinct on (r.record) r.record as value
  from directory_records r join directory_searches s on s.id = r.search_id
  where s.list_id = ${listId} and s.provider = ${provider} and not starts_with(r.record, ${WITHOUT_ID}) limit ${most}`

/** Those suppressed first: a hash is all that is known of some of them, and it names nobody where none is asked for. */
const numbersKnown = (listId: string, form: 'plain' | 'sha256', most: number): SQL => sql`
  select value from (
    select ${form === 'plain' ? sql`key` : sql`hash`} as value, 0 as part from suppression_entries
    where kind ${form === 'plain' ? sql`= 'number' and key is not null` : sql`in ('number', 'hash')`}
      and (expires_at is null or expires_at > now())
    union all
    (select ${form === 'plain' ? sql`e164` : sql`encode(sha256(convert_to(e164, 'UTF8')), 'hex')`}, 1
      from contact_numbers where list_id = ${listId} and is_valid limit ${most})) known
  group by value order by min(part) limit ${most}`
