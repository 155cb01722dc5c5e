import type { AudienceDetail, Difference, Trial } from '@upper-field/contract'
import { wayOf } from '@upper-field/core/send'
import { and, desc, eq, inArray } from 'drizzle-orm'
import { describeConnections } from '../connections/describe'
import type { Db } from '../db/database'
import { num, orNull, readRows, text } from '../db/readRows'
import { audiences, deliveries, editions, trials } from '../db/schema'
import { notFound } from '../http/problem'
import type { KeptAnswers } from '../lists/keptAnswers'
import { findOpenList } from '../lists/routes'
import { asDelivery, describeAudiences } from './describeAudiences'
import { keptDestinations } from './destinations'
import { type AudienceRow, countDifference } from './difference'
import { forecastOf, historyOf, worthOf } from './history'
import { suppressedSince } from './suppressedSince'

/** Deliveries of one audience that are shown. */
const SHOWN = 30

/** An audience that was not taken away. Throws a problem where there is none. */
export async function findAudience(db: Db, audienceId: string): Promise<AudienceRow> {
  const [row] = await db.select().from(audiences).where(eq(audiences.id, audienceId))
  if (!row || row.removedAt) throw notFound('audience')
  return row
}

/** The same, of a list that may be changed. */
export async function findOpenAudience(db: Db, audienceId: string): Promise<AudienceRow> {
  const found = await findAudience(db, audienceId)
  await findOpenList(db, found.listId)
  return found
}

interface Looking {
  readonly now: Date
  /** To hold an edition of a million lines against as many takes seconds. */
  readonly kept: KeptAnswers
}

/** Everything about one audience: what its next edition would change, what was sent, and what came of it. */
export async function describeAudience(db: Db, audienceId: string, looking: Looking): Promise<AudienceDetail> {
  const row = await findAudience(db, audienceId)
  const [described] = await describeAudiences(db, eq(audiences.id, audienceId))
  if (!described) throw notFound('audience')
  const destination = (await keptDestinations(db)).find(({ id }) => id === row.destination)
  const sent = await db
    .select()
    .from(deliveries)
    .where(eq(deliveries.audienceId, audienceId))
    .orderBy(desc(deliveries.startedAt))
    .limit(SHOWN)
  const next = await nextEdition(
    db,
    audienceId,
    sent.filter(({ state }) => state === 'done').map(({ editionId }) => editionId),
  )
  return {
    ...described,
    difference: next?.state === 'ready' ? await differenceOf(db, row, next, looking) : null,
    preparing: next?.state === 'preparing' ? next.jobId : null,
    deliveries: sent.map((one) => asDelivery(one, destination)),
    trials: await trialsOf(db, row, described.people),
    sources: await sourcesOf(db, row),
  }
}

type EditionRow = typeof editions.$inferSelect

/** The latest edition, where it is not delivered yet. */
async function nextEdition(
  db: Db,
  audienceId: string,
  delivered: readonly (string | null)[],
): Promise<EditionRow | null> {
  const [latest] = await db
    .select()
    .from(editions)
    .where(and(eq(editions.audienceId, audienceId), inArray(editions.state, ['preparing', 'ready'])))
    .orderBy(desc(editions.createdAt))
    .limit(1)
  return latest && !delivered.includes(latest.id) ? latest : null
}

async function differenceOf(
  db: Db,
  audience: AudienceRow,
  edition: EditionRow,
  { now, kept }: Looking,
): Promise<Difference | null> {
  const destination = (await keptDestinations(db)).find(({ id }) => id === audience.destination)
  if (!destination) return null
  const { id, listId, people, seenVersion } = audience
  const counted = await kept.of(listId, ['difference', id, edition.id, people, seenVersion], () =>
    countDifference(db, audience, edition.id, now),
  )
  const forecast = await forecastOf(db, destination, audience, edition)
  return {
    editionId: edition.id,
    fileName: edition.fileName,
    way: wayOf(destination, people > 0),
    people: edition.people,
    leftOut: edition.leftOut,
    ...counted,
    forecast,
    suppressedSince: (await suppressedSince(db, edition)).length,
    madeAt: edition.createdAt.toISOString(),
  }
}

/** A campaign reaches nearly all whom it may show itself to within its days, and never more than are matched. */
const REACH_OF_MATCHED = { least: 0.8, most: 0.97 }

async function trialsOf(db: Db, { id }: AudienceRow, people: number): Promise<Trial[]> {
  const rows = await db.select().from(trials).where(eq(trials.audienceId, id)).orderBy(desc(trials.startedAt))
  return rows.map((row) => ({
    id: row.id,
    state: row.state,
    exclude: row.exclude,
    daily: row.daily,
    days: row.days,
    reach: row.reach,
    spent: row.spent,
    inferred:
      row.state === 'over' && row.reach !== null && row.exclude.length === 0
        ? {
            low: Math.min(people, Math.round(row.reach / REACH_OF_MATCHED.most)),
            high: Math.min(people, Math.round(row.reach / REACH_OF_MATCHED.least)),
          }
        : null,
    startedAt: row.startedAt.toISOString(),
  }))
}

/** What each batch and provider brought to the last edition that was delivered whole. */
async function sourcesOf(db: Db, audience: AudienceRow): Promise<AudienceDetail['sources']> {
  const [latest] = await db
    .select({ mixBySource: editions.mixBySource })
    .from(deliveries)
    .innerJoin(editions, eq(editions.id, deliveries.editionId))
    .where(and(eq(deliveries.audienceId, audience.id), eq(deliveries.state, 'done')))
    .orderBy(desc(deliveries.startedAt))
    .limit(1)
  if (!latest) return []
  const worth = worthOf(latest, await historyOf(db, audience.destination, audience.takes))
  const names = await namesOf(db, audience.listId)
  return worth
    .filter(({ kind, matched }) => kind === 'batch' || matched > 0)
    .map(({ kind, id, people, matched }) => ({
      kind,
      name: names.get(`${kind} ${id}`)?.name ?? id,
      people,
      matched,
      cost: names.get(`${kind} ${id}`)?.cost ?? null,
    }))
    .sort((a, b) => b.matched - a.matched)
}

/** Names and costs of batches and providers of a list: what a file cost, and what was charged for it. */
async function namesOf(db: Db, listId: string): Promise<Map<string, { name: string; cost: number | null }>> {
  const sources = await readRows(db, { source: text, name: text, cost: orNull(num) })`
    select 'batch ' || id as source, name, price as cost from batches where list_id = ${listId}
    union all
    select 'provider ' || provider, provider, sum(amount) from charges where list_id = ${listId} group by provider`
  const connectors = new Map<string, string>(
    (await describeConnections(db, true)).map((one) => [`provider ${one.provider}`, one.name] as const),
  )
  return new Map(sources.map(({ source, name, cost }) => [source, { name: connectors.get(source) ?? name, cost }]))
}
