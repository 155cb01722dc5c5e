import { sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { readIds } from '../db/readRows'
import { rootsOf } from '../pair/standsFor'
import { ADDRESSES, LINES } from './subjects'

/** What was learnt is written down a moment after it was told, in milliseconds at most. */
const SLACK = 5 * 60_000

/**
 * Contacts of a batch, and those they are joined to, that hold a number or an address of which something was learnt since
 * a moment: whoever tells their holders does not find rows that are being stored.
 */
export async function learntSince(tx: Db, batchId: string, since: Date): Promise<readonly number[]> {
  const from = new Date(since.getTime() - SLACK).toISOString()
  const holders = [LINES, ADDRESSES].map((subject) => {
    const [facts, held, column] = [subject.facts, subject.holders, subject.column].map((name) => sql.raw(name))
    // From the batch on: what is known of all numbers is far more than a small file asks about.
    return sql`select c.id from contacts c join ${held} n on n.contact_id = c.id join ${facts} f on f.${column} = n.${column}
      where c.batch_id = ${batchId} and f.checked_at >= ${from}`
  })
  const ids = await readIds(tx)`${sql.join(holders, sql` union `)}`
  return ids.length === 0 ? [] : [...ids, ...(await rootsOf(tx, ids))]
}
