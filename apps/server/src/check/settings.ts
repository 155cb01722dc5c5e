import type { CheckSettings } from '@upper-field/contract'
import { AGES_AS, DEFAULT_CALL_HOURS, DEFAULT_FRESH_DAYS, type FreshDays } from '@upper-field/core/check'
import { type SQL, sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { checkSettings } from '../db/schema'

/** What a message costs until somebody sets it otherwise, in millionths of a euro. */
const TEXT_PRICE = 70_000
const MAIL_PRICE = 1_000

/** How checks are done here: how long answers keep, and what a message costs that reaches nobody. */
export async function readCheckSettings(db: Db): Promise<CheckSettings> {
  const [set] = await db.select().from(checkSettings)
  return {
    freshDays: { ...DEFAULT_FRESH_DAYS, ...set?.freshDays },
    textPrice: set?.textPrice ?? TEXT_PRICE,
    mailPrice: set?.mailPrice ?? MAIL_PRICE,
    callHours: { '*': { ...DEFAULT_CALL_HOURS, days: [...DEFAULT_CALL_HOURS.days] }, ...set?.callHours },
  }
}

export async function changeCheckSettings(db: Db, set: CheckSettings): Promise<CheckSettings> {
  await db.insert(checkSettings).values(set).onConflictDoUpdate({ target: checkSettings.isOnly, set })
  return readCheckSettings(db)
}

export const readFreshDays = async (db: Db): Promise<FreshDays> => (await readCheckSettings(db)).freshDays

/** True for facts `f` that are fresh: null counts as not. */
export function freshCondition(days: FreshDays): SQL {
  const cases = AGES_AS.map((agesAs) => sql`when ${agesAs} then ${days[agesAs]}::int`)
  return sql`coalesce(f.checked_at > now() - make_interval(days => case f.ages_as ${sql.join(cases, sql` `)} else 0 end), false)`
}
