import { sql } from 'drizzle-orm'

/** What contacts are counted by, besides being joined and standing for others. The trigger on contacts counts by the same. */
export const DIMENSIONS =
  'batch_id, country, verdict, line_type, line_status, known_from, lane, lane_reason, email_kind, email_state, sureness, call_from, suppressed_for, is_readable, is_dead, is_filled, wants_mobile, is_shared, is_sent'

export const CUBE_DIMENSIONS = sql.raw(DIMENSIONS)
