import type { Audience, Delivery, ToldRefusal } from '@upper-field/contract'
import { type Destination, datedName, type Forecast, refusalOf } from '@upper-field/core/send'
import { and, desc, eq, inArray, type SQL, sql } from 'drizzle-orm'
import { chosenContacts } from '../contacts/page'
import { readFilter } from '../contacts/readFilter'
import type { Db } from '../db/database'
import { groupBy } from '../db/groupBy'
import { num, orNull, readRow, readRows, text, when } from '../db/readRows'
import { audiences, deliveries, editions } from '../db/schema'
import { keptDestinations } from './destinations'
import type { AudienceRow } from './difference'
import { forecastOf } from './history'

type DeliveryRow = typeof deliveries.$inferSelect

const DAY = 86_400_000

/** Audiences as the board shows them, the latest first. */
export async function describeAudiences(db: Db, which: SQL): Promise<Audience[]> {
  const rows = await db.select().from(audiences).where(which).orderBy(desc(audiences.createdAt), audiences.id)
  if (rows.length === 0) return []
  const ids = rows.map(({ id }) => id)
  const destinations = new Map((await keptDestinations(db)).map((one) => [one.id, one]))
  const sent = groupBy(
    await db.select().from(deliveries).where(inArray(deliveries.audienceId, ids)).orderBy(desc(deliveries.startedAt)),
    ({ audienceId }) => audienceId,
  )
  const members = await membersOf(db, ids)
  return Promise.all(
    rows.map(async (row) => {
      const destination = destinations.get(row.destination)
      const mine = sent.get(row.id) ?? []
      const lastEdition = mine.find(({ editionId, state }) => editionId !== null && state === 'done')
      const since = await changedSince(db, row, lastEdition?.editionId ?? null)
      const held = members.get(row.id)
      return {
        id: row.id,
        listId: row.listId,
        name: row.name,
        title: datedName(row.name, lastEdition?.startedAt ?? row.createdAt),
        destination: row.destination,
        takes: row.takes,
        form: row.form,
        filter: row.filter,
        suppressionListId: row.suppressionListId,
        purpose: row.purpose,
        account: { id: row.accountId, name: row.accountName },
        within: row.within,
        keepsDays: row.keepsDays,
        refreshDays: row.refreshDays,
        removesByItself: row.removesByItself,
        state: row.state,
        refusal: row.reason === null ? null : toldRefusal(destination, row.reason),
        people: held?.people ?? 0,
        matched: row.matched,
        toldAt: row.toldAt?.toISOString() ?? null,
        lapsesAt: row.lapsesAt?.toISOString() ?? null,
        lastEditionAt: lastEdition?.startedAt.toISOString() ?? null,
        dueAt: dueOf(row, lastEdition)?.toISOString() ?? null,
        ...since,
        owedRemovals: held?.owed ?? 0,
        owedSince: held?.owedSince ?? null,
        forecast: lastEdition ? lastEdition.forecast : await forecastOfNext(db, row, destination),
        latest: mine[0] ? asDelivery(mine[0], destination) : null,
        similarTo: row.similarTo,
        createdAt: row.createdAt.toISOString(),
      } satisfies Audience
    }),
  )
}

/** What is expected of an audience that was prepared and not sent yet; null where nothing was prepared. */
async function forecastOfNext(
  db: Db,
  row: AudienceRow,
  destination: Destination | undefined,
): Promise<Forecast | null> {
  if (!destination || row.state !== 'not-sent') return null
  const [next] = await db
    .select()
    .from(editions)
    .where(and(eq(editions.audienceId, row.id), eq(editions.state, 'ready')))
    .orderBy(desc(editions.createdAt))
    .limit(1)
  return next ? forecastOf(db, destination, row, next) : null
}

/** When an audience wants refreshing: so many days after its last edition, and before anybody lapses. */
function dueOf({ refreshDays, lapsesAt, similarTo }: AudienceRow, last: DeliveryRow | undefined): Date | null {
  if (!last || similarTo) return null
  const byPlan = last.startedAt.getTime() + refreshDays * DAY
  return new Date(lapsesAt ? Math.min(byPlan, lapsesAt.getTime() - DAY) : byPlan)
}

interface Held {
  readonly people: number
  readonly owed: number
  readonly owedSince: string | null
}

async function membersOf(db: Db, ids: readonly string[]): Promise<Map<string, Held>> {
  const counted = await readRows(db, { id: text, people: num, owed: num, owedSince: orNull(when) })`
    select audience_id as id, count(*) as people, count(owed_since) as owed, min(owed_since) as owed_since
    from audience_members where audience_id = any(${sql.param([...ids])}::uuid[]) group by audience_id`
  return new Map(
    counted.map(({ id, people, owed, owedSince }) => [
      id,
      { people, owed, owedSince: owedSince?.toISOString() ?? null },
    ]),
  )
}

/** Who came into what an audience is made of since its last edition, and who left it. */
async function changedSince(
  db: Db,
  { id, listId, filter, suppressionListId, similarTo }: AudienceRow,
  editionId: string | null,
): Promise<{ cameSince: number; leftSince: number }> {
  if (similarTo || suppressionListId !== null) return { cameSince: 0, leftSince: 0 }
  const changed = await readRow(db, { cameSince: num, leftSince: num })`
    with chosen as (select contacts.id from contacts where ${chosenContacts(listId, readFilter(filter))} and lane <> 'parked'),
      looked as (select contact_id from edition_lines where edition_id = ${editionId}
        union all select contact_id from edition_left_out where edition_id = ${editionId}),
      held as (select distinct contact_id from audience_members where audience_id = ${id} and contact_id is not null)
    select (select count(*) from chosen where not exists (select 1 from looked where contact_id = chosen.id)) as came_since,
      (select count(*) from held where not exists (select 1 from chosen where chosen.id = contact_id)) as left_since`
  return changed ?? { cameSince: 0, leftSince: 0 }
}

/** What a network's code means, in the words of its declaration. */
export function toldRefusal(destination: Destination | undefined, code: string): ToldRefusal {
  const own = OWN_REFUSALS[code]
  const { says, remedy, takes } = own ?? refusalOf(destination?.network?.refusals ?? { code: '', words: {} }, code)
  return { code, says, remedy, takes }
}

/** What stops a delivery here, before the network is asked. */
const OWN_REFUSALS: Readonly<Record<string, Omit<ToldRefusal, 'code'>>> = {
  'outer-audience-not-sent': {
    says: 'The audience it is kept inside was not sent yet.',
    remedy: 'Send that one first.',
    takes: 'one delivery',
  },
}

export const asDelivery = (row: DeliveryRow, destination: Destination | undefined): Delivery => ({
  id: row.id,
  jobId: row.jobId,
  editionId: row.editionId,
  way: row.way,
  state: row.state as Delivery['state'],
  added: row.added,
  removed: row.removed,
  renewed: row.renewed,
  refusedLines: row.refusedLines,
  refusedParts: row.refusedParts,
  refusal: row.refusal === null ? null : toldRefusal(destination, row.refusal),
  forecast: row.forecast,
  matched: row.matched,
  startedBy: row.startedBy,
  startedAt: row.startedAt.toISOString(),
  endedAt: row.endedAt?.toISOString() ?? null,
})
