import { sql } from 'drizzle-orm'
import type { Db } from '../db/database'
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
    return sql`select n.contact_id as id from ${facts} f join ${held} n on n.${column} = f.${column} where f.checked_at >= ${from}`
  })
  const { rows } = await tx.execute<{ id: string }>(sql`
    select distinct c.id from contacts h join contacts c on c.id in (h.id, h.joined_into)
    where h.batch_id = ${batchId} and h.id in (${sql.join(holders, sql` union `)}) order by c.id`)
  return rows.map(({ id }) => Number(id))
}
