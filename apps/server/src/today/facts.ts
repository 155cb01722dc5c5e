import type { AudienceFacts, ListFacts, MonthFacts } from '@upper-field/core/today'
import { and, inArray, isNull, sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { groupBy } from '../db/groupBy'
import { num, readRows, text, when } from '../db/readRows'
import { audiences, lists } from '../db/schema'
import { readTerraces } from '../projection/cube'
import { describeAudiences } from '../send/describeAudiences'
import { keptDestinations } from '../send/destinations'
import { readMonth } from '../spend/limit'
import { lastCalls } from '../split/callSheet'

export interface Facts {
  readonly audiences: readonly AudienceFacts[]
  readonly lists: readonly ListFacts[]
  readonly month: MonthFacts
}

/** Everything that may want doing in lists that are open. */
export async function factsOf(db: Db): Promise<Facts> {
  const open = await db.select({ id: lists.id, name: lists.name }).from(lists).where(isNull(lists.archivedAt))
  const names = new Map(open.map(({ id, name }) => [id, name]))
  const { spent, limit } = await readMonth(db)
  return {
    audiences: await audienceFacts(db, names),
    lists: await listFacts(db, names),
    month: { spent, limit },
  }
}

async function audienceFacts(db: Db, names: ReadonlyMap<string, string>): Promise<readonly AudienceFacts[]> {
  if (names.size === 0) return []
  const which = and(inArray(audiences.listId, [...names.keys()]), isNull(audiences.removedAt)) ?? sql`false`
  const networks = new Map((await keptDestinations(db)).map(({ id, name }) => [id, name]))
  return (await describeAudiences(db, which)).map((one) => ({
    id: one.id,
    listId: one.listId,
    listName: names.get(one.listId) ?? '',
    name: one.title,
    destination: networks.get(one.destination) ?? one.destination,
    people: one.people,
    owed: one.owedRemovals,
    owedSince: one.owedSince,
    state: one.state,
    says: one.refusal?.says ?? '',
    dueAt: one.dueAt,
    lapsesAt: one.lapsesAt,
    cameSince: one.cameSince,
    leftSince: one.leftSince,
  }))
}

async function listFacts(db: Db, names: ReadonlyMap<string, string>): Promise<readonly ListFacts[]> {
  const ids = [...names.keys()]
  if (ids.length === 0) return []
  const these = sql`any(${sql.param(ids)}::uuid[])`
  const counted = await readRows(db, { id: text, toReview: num, toDecide: num, callsPromised: num })`
    select l.id,
      (select coalesce(sum(contacts), 0) from tidy_counts t where t.list_id = l.id and t.code = 'hand') as to_review,
      (select count(*) from pairs p where p.list_id = l.id and p.decision_id is null) as to_decide,
      (select count(*) from ${lastCalls(sql`k.list_id = l.id`)} latest
        where outcome = 'later' and again_at <= now()) as calls_promised
    from lists l where l.id = ${these}`
  const waiting = await readRows(db, { listId: text, name: text, rows: num })`
    select b.list_id, b.name, b.rows from batches b left join jobs j on j.id = b.job_id
    where b.list_id = ${these} and b.state in ('uploading', 'queued', 'failed') and (j.id is null or j.state = 'paused')
      and (b.upload_lease_until is null or b.upload_lease_until < now())
    order by b.created_at`
  const stopped = await readRows(db, { listId: text, kind: text, at: when })`
    select list_id, kind, finished_at as at from (
      select distinct on (list_id, kind) list_id, kind, state, finished_at from jobs
      where list_id = ${these} order by list_id, kind, created_at desc) latest
    where state = 'failed' and finished_at is not null`
  const waits = groupBy(waiting, ({ listId }) => listId)
  const ended = groupBy(stopped, ({ listId }) => listId)
  const terraces = await readTerraces(db, ids)
  return counted.map(({ id, ...counts }) => ({
    id,
    name: names.get(id) ?? '',
    ...counts,
    notSent: notSentOf(terraces.get(id)?.terrace ?? []),
    waiting: (waits.get(id) ?? []).map(({ name, rows }) => ({ name, rows })),
    stopped: (ended.get(id) ?? []).map(({ kind, at }) => ({ kind, at: at.toISOString() })),
  }))
}

const notSentOf = (
  terrace: readonly { readonly changes: readonly { readonly riser: string; readonly by: number }[] }[],
): number => Math.abs(terrace.flatMap(({ changes }) => changes).find(({ riser }) => riser === 'not-sent')?.by ?? 0)
