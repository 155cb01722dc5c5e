import type { Audience, Delivery, ToldRefusal } from '@upper-field/contract'
import { type Destination, datedName, type Forecast, refusalOf } from '@upper-field/core/send'
import { and, desc, eq, inArray, type SQL, sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { groupBy } from '../db/groupBy'
import { num, readRows, text, when } from '../db/readRows'
import { audiences, deliveries, editions } from '../db/schema'
import { behindAmong } from './audienceCounts'
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
  const owed = await owedOf(db, ids)
  const behind = await behindAmong(db, ids)
  return Promise.all(
    rows.map(async (row) => {
      const destination = destinations.get(row.destination)
      const mine = sent.get(row.id) ?? []
      const lastEdition = mine.find(({ editionId, state }) => editionId !== null && state === 'done')
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
        people: row.people,
        matched: row.matched,
        toldAt: row.toldAt?.toISOString() ?? null,
        lapsesAt: row.lapsesAt?.toISOString() ?? null,
        lastEditionAt: lastEdition?.startedAt.toISOString() ?? null,
        dueAt: dueOf(row, lastEdition)?.toISOString() ?? null,
        cameSince: row.cameSince,
        leftSince: row.leftSince,
        owedRemovals: owed.get(row.id)?.people ?? 0,
        owedSince: owed.get(row.id)?.since ?? null,
        isBehind: behind.has(row.id),
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

interface Owed {
  readonly people: number
  readonly since: string
}

/** How many have to leave each of some audiences, and since when the first of them has. */
async function owedOf(db: Db, ids: readonly string[]): Promise<ReadonlyMap<string, Owed>> {
  const counted = await readRows(db, { id: text, people: num, since: when })`
    select audience_id as id, count(*) as people, min(owed_since) as since
    from audience_members where audience_id = any(${sql.param([...ids])}::uuid[]) and owed_since is not null group by audience_id`
  return new Map(counted.map(({ id, people, since }) => [id, { people, since: since.toISOString() }]))
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
