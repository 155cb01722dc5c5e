import { sql } from 'drizzle-orm'
import { holdsId, spanOf } from '../db/spans'

/** What contacts themselves hold of it, under the same names. The trigger on contacts counts by the same. */
const OWN =
  'batch_id, country, verdict, line_type, line_status, known_from, lane, lane_reason, email_kind, email_state, sureness, call_from, suppressed_for, is_readable, is_dead, is_filled, wants_mobile, is_shared'

/** What contacts are counted by. */
export const DIMENSIONS = `${OWN}, is_sent, is_joined, has_joined`

export const CUBE_DIMENSIONS = sql.raw(DIMENSIONS)

/** The same of contacts, as they are selected `from contacts` with whom they were sent to: see `SENT`. */
export const COUNTED_BY = sql`${sql.raw(OWN)}, coalesce(${holdsId(sql`sent.bits`, sql`contacts.id`)}, false) as is_sent,
  joined_into is not null as is_joined, joined > 0 as has_joined`

/** What `COUNTED_BY` needs beside `contacts`. */
export const SENT = sql`left join sent_contacts sent on sent.span = ${spanOf(sql`contacts.id`)}`
