import type { BatchYield } from '@upper-field/contract'
import { sql } from 'drizzle-orm'
import type { Db } from '../db/database'

/** What became of each batch of a list, from the counts kept for it and the charges of its contacts. */
export async function yieldsOf(db: Db, listId: string): Promise<BatchYield[]> {
  const { rows } = await db.execute<Record<string, string>>(sql`
    select b.id, y.*, coalesce(s.spent, 0) as spent
    from batches b
    left join (
      select batch_id,
        sum(contacts) filter (where not is_joined) as contacts,
        sum(contacts) filter (where is_joined) as joined,
        sum(contacts) filter (where not is_joined and lane = 'text') as text,
        sum(contacts) filter (where not is_joined and lane = 'call') as call,
        sum(contacts) filter (where not is_joined and lane = 'ads-only') as ads_only,
        sum(contacts) filter (where not is_joined and lane = 'parked') as parked,
        sum(contacts) filter (where not is_joined and line_status = 'out-of-service') as out_of_service,
        sum(contacts) filter (where not is_joined and email_kind <> 'none') as with_email
      from contact_cube where list_id = ${listId} group by batch_id) y on y.batch_id = b.id
    left join (
      select c.batch_id, sum(h.amount) as spent from charges h join contacts c on c.id = h.contact_id
      where h.list_id = ${listId} group by c.batch_id) s on s.batch_id = b.id
    where b.list_id = ${listId} and b.state = 'ready' order by b.created_at`)
  return rows.map((row) => ({
    batchId: row.id ?? '',
    contacts: Number(row.contacts ?? 0),
    joined: Number(row.joined ?? 0),
    text: Number(row.text ?? 0),
    call: Number(row.call ?? 0),
    adsOnly: Number(row.ads_only ?? 0),
    parked: Number(row.parked ?? 0),
    outOfService: Number(row.out_of_service ?? 0),
    withEmail: Number(row.with_email ?? 0),
    spent: Number(row.spent ?? 0),
  }))
}
