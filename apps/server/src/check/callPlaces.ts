import type { CheckSettings } from '@upper-field/contract'
import { type CallState, DEFAULT_CALL_HOURS, mayBeCalled } from '@upper-field/core/check'
import { sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { readRows, text } from '../db/readRows'
import { isPublicHoliday } from './holidays'
import { readCheckSettings } from './settings'

/** Country and time zones of a line to call, as contacts hold them: `US America/Chicago|America/Denver`. */
export function callStateOf(callFrom: string, { callHours }: CheckSettings, at: number): CallState {
  const [country = '', zones = ''] = callFrom.split(' ')
  return mayBeCalled(
    {
      zones: zones.split('|').filter(Boolean),
      hours: callHours[country] ?? callHours['*'] ?? DEFAULT_CALL_HOURS,
      isHoliday: (date) => isPublicHoliday(country, date),
    },
    at,
  )
}

/**
 * Looks anew where people may be called now, before a filter asks for it: filters are answered by the database, which
 * knows no holidays.
 */
export async function freshenCallPlaces(db: Db, now: number): Promise<void> {
  const settings = await readCheckSettings(db)
  const found = await readRows(db, { callFrom: text })`
    select call_from from contact_cube where call_from <> '' group by 1 having sum(contacts) > 0 order by 1`
  const places = found.map(({ callFrom }) => callFrom)
  const states = places.map((place) => callStateOf(place, settings, now))
  await db.execute(sql`
    insert into call_places (call_from, state)
    select * from unnest(${sql.param(places)}::text[], ${sql.param(states)}::text[]) order by 1
    on conflict (call_from) do update set state = excluded.state where call_places.state <> excluded.state`)
}
