import type { CallItem, CallSheet } from '@upper-field/contract'
import { type CallHours, DEFAULT_CALL_HOURS, localTime } from '@upper-field/core/check'
import { type Callable, callAgainAt, compareCallable, OUTCOMES, type Outcome } from '@upper-field/core/split'
import { type SQL, sql } from 'drizzle-orm'
import { callStateOf } from '../check/callPlaces'
import { readCheckSettings } from '../check/settings'
import { IS_CALLED_NOW } from '../contacts/facets'
import { chosenContacts } from '../contacts/page'
import { readFilter } from '../contacts/readFilter'
import type { Db } from '../db/database'
import { bool, num, orNull, type RowOf, readRow, readRows, text, when, word } from '../db/readRows'
import type { Services } from '../services'
import { usesOfLanes } from './decideLanes'

/** So many are shown at once, and so many are put in order: whoever works a sheet comes no further before it is read anew. */
const SHOWN = 12
const ORDERED = 2000

/** The contacts of a list's lanes for calls, in the order in which they are worked. */
export async function readCallSheet(
  { db, now }: Services,
  { listId, filter, who }: { readonly listId: string; readonly filter: string; readonly who: string },
): Promise<CallSheet> {
  const at = now()
  const { callHours } = await readCheckSettings(db)
  const lanes = await lanesForCalls(db, listId)
  const toCall = callables(listId, filter, lanes)
  // Each in the order of the rows, so that nobody behind those that are shown is looked at; and nobody at all where the
  // counts of the list know of none.
  const read = async (when: SQL, most: number) =>
    (await isAnybody(db, listId, lanes, when)) ? toBeCalled(db, listId, sql`${toCall} and ${when}`, most) : []
  const callableNow = await read(IS_CALLED_NOW, ORDERED)
  const others = await read(sql`not ${IS_CALLED_NOW}`, ORDERED - callableNow.length)
  const rows = [...callableNow, ...others]
  const settings = { callHours } as Parameters<typeof callStateOf>[1]
  const resting = rows.filter((row) => (restsUntil(row) ?? 0) > at)
  const ready = rows
    .filter((row) => (restsUntil(row) ?? 0) <= at)
    .map((row) => {
      const call = callStateOf(row.callFrom, settings, at)
      const clock = clockOf(row.callFrom, callHours, at)
      return { row, call, clock, order: orderOf(row, call === 'now', clock?.minutesLeft ?? null) }
    })
    .sort((a, b) => compareCallable(a.order, b.order))
  const nowCount = ready.filter(({ call }) => call === 'now').length
  return {
    next: ready.slice(0, SHOWN).map(({ row, call, clock }) => itemOf(row, call, clock)),
    now: nowCount,
    later: ready.length - nowCount,
    resting: resting.length,
    isCapped: rows.length >= ORDERED,
    today: await outcomesOfDay(db, listId),
    lastCall: await lastCallBy(db, listId, who),
  }
}

const ROW = {
  contactId: num,
  fullName: text,
  title: text,
  company: text,
  city: text,
  country: text,
  e164: orNull(text),
  lineType: word<CallItem['lineType']>,
  lineStatus: word<CallItem['lineStatus']>,
  isShared: bool,
  callFrom: text,
  outcome: orNull(word<Outcome>),
  madeAt: orNull(when),
  againAt: orNull(when),
}
type Row = RowOf<typeof ROW>

async function toBeCalled(db: Db, listId: string, condition: SQL, most: number): Promise<readonly Row[]> {
  if (most <= 0) return []
  return readRows(db, ROW)`
    with last as (
      select * from ${lastCalls(sql`k.list_id = ${listId}`)} latest)
    select contacts.id as contact_id, full_name, title, company, city, country, number as e164, line_type, line_status, is_shared,
      call_from, last.outcome, last.made_at, last.again_at
    from contacts left join last on last.contact_id = contacts.id
    -- Said so, the planner does not take those that are left for few, and stops at the last that is wanted.
    where ${condition} and contacts.id not in (
      select l.contact_id from last l where l.outcome in ('reached', 'wrong-number', 'asked-not-to'))
    order by contacts.id limit ${most}`
}

/**
 * The last call of each contact that stands for itself, of it or of whoever is joined to it, as a table.
 * @param condition on the calls `k`
 */
export const lastCalls = (condition: SQL): SQL => sql`(
  select distinct on (coalesce(c.joined_into, c.id)) coalesce(c.joined_into, c.id) as contact_id, k.outcome, k.made_at, k.again_at
  from calls k join contacts c on c.id = k.contact_id
  where ${condition} and k.undone_at is null order by coalesce(c.joined_into, c.id), k.made_at desc)`

/** True where the counts of a list know of somebody in these lanes whose line may be called then. */
async function isAnybody(db: Db, listId: string, lanes: readonly string[], when: SQL): Promise<boolean> {
  const { rows } = await db.execute(sql`
    select 1 from contact_cube where list_id = ${listId} and not is_joined and call_from <> ''
      and lane = any(${sql.param([...lanes])}::text[]) and ${when}
    group by list_id having sum(contacts) > 0`)
  return rows.length > 0
}

const lanesForCalls = async (db: Db, listId: string): Promise<readonly string[]> =>
  [...(await usesOfLanes(db, listId))].flatMap(([lane, use]) => (use === 'calls' ? lane : []))

const callables = (listId: string, filter: string, lanes: readonly string[]): SQL =>
  sql`${chosenContacts(listId, readFilter(filter))} and lane = any(${sql.param([...lanes])}::text[])
    and call_from <> '' and number is not null`

const restsUntil = ({ outcome, madeAt, againAt }: Row): number | null =>
  callAgainAt(outcome && madeAt ? { outcome, at: madeAt.getTime(), againAt: againAt?.getTime() ?? null } : undefined)

const orderOf = (row: Row, isNow: boolean, minutesLeft: number | null): Callable => {
  const rings = row.lineStatus === 'in-service'
  return {
    id: row.contactId,
    isNow,
    sureness: rings && !row.isShared ? 0 : rings || !row.isShared ? 1 : 2,
    minutesLeft: isNow ? minutesLeft : null,
  }
}

interface Clock {
  readonly clock: string
  readonly until: string
  readonly minutesLeft: number
}

function clockOf(callFrom: string, callHours: Readonly<Record<string, CallHours>>, at: number): Clock | null {
  const [country = '', zones = ''] = callFrom.split(' ')
  const [zone] = zones.split('|').filter(Boolean)
  if (!zone) return null
  const { to } = callHours[country] ?? callHours['*'] ?? DEFAULT_CALL_HOURS
  const { minutes } = localTime(zone, at)
  return { clock: clockText(minutes), until: clockText(to), minutesLeft: to - minutes }
}

const clockText = (minutes: number): string =>
  `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`

function itemOf(row: Row, call: CallItem['call'], clock: Clock | null): CallItem {
  const { callFrom: _, outcome, madeAt, againAt: __, e164, ...who } = row
  return {
    ...who,
    e164: e164 ?? '',
    call,
    clock: clock?.clock ?? null,
    until: clock?.until ?? null,
    last: outcome && madeAt ? { outcome, at: madeAt.toISOString() } : null,
  }
}

async function outcomesOfDay(db: Db, listId: string): Promise<CallSheet['today']> {
  const counts = await readRows(db, { outcome: word<Outcome>, n: num })`
    select outcome, count(*) as n from calls
    where list_id = ${listId} and undone_at is null and made_at >= date_trunc('day', now() at time zone 'utc') at time zone 'utc'
    group by outcome`
  const none = Object.fromEntries(OUTCOMES.map((outcome) => [outcome, 0]))
  return { ...none, ...Object.fromEntries(counts.map(({ outcome, n }) => [outcome, n])) } as CallSheet['today']
}

async function lastCallBy(db: Db, listId: string, who: string): Promise<CallSheet['lastCall']> {
  const call = await readRow(db, { id: text, fullName: text, outcome: word<Outcome> })`
    select k.id, c.full_name, k.outcome from calls k join contacts c on c.id = k.contact_id
    where k.list_id = ${listId} and k.made_by = ${who} and k.undone_at is null
      and k.made_at > now() - interval '12 hours'
    order by k.made_at desc limit 1`
  return call ?? null
}
