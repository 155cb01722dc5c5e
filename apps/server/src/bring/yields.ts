import type { BatchYield } from '@upper-field/contract'
import type { Db } from '../db/database'
import { num, orZero, readRows, text } from '../db/readRows'

const YIELD = {
  batchId: text,
  contacts: orZero,
  joined: orZero,
  text: orZero,
  call: orZero,
  adsOnly: orZero,
  parked: orZero,
  outOfService: orZero,
  withEmail: orZero,
  spent: num,
}

/** What became of each batch of a list, from the counts kept for it and the charges of its contacts. */
export async function yieldsOf(db: Db, listId: string): Promise<BatchYield[]> {
  return readRows(db, YIELD)`
    select b.id as batch_id, y.contacts, y.joined, y.text, y.call, y.ads_only, y.parked, y.out_of_service, y.with_email,
      coalesce(s.spent, 0) as spent
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
    where b.list_id = ${listId} and b.state = 'ready' order by b.created_at`
}
