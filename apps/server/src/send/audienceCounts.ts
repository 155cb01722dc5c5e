import { setTimeout } from 'node:timers/promises'
import { and, eq, type SQL, sql } from 'drizzle-orm'
import type { Pool } from 'pg'
import { chosenContacts } from '../contacts/page'
import { readFilter } from '../contacts/readFilter'
import { isShown } from '../contacts/shown'
import { type Db, transaction } from '../db/database'
import { tryLock } from '../db/locks'
import { num, orNull, type RowOf, readRow, readRows, text, when } from '../db/readRows'
import { audiences } from '../db/schema'
import { sharingTurns } from '../db/takingTurns'
import { byItself } from '../jobs/byItself'
import { throwFirst } from '../jobs/settled'
import type { Services } from '../services'
import type { AudienceRow } from './difference'
import { lastDelivered } from './lastDelivered'

/**
 * What an audience's seen version is from here on: something else than its list has changed that it is counted by. Another
 * one each time, so that whoever is counting just now does not take the old counts for the new ones.
 */
export const UNSEEN = sql<number>`least(${audiences.seenVersion}, 0) - 1`

/** Whether an audience was not held against its list since something has changed; of audiences `a` and lists `l`. */
const IS_BEHIND = sql`a.seen_version <> l.version`

/** Filters ask about other lists and about days too: a view does not trust counts that are older, in minutes. */
const TRUSTED_FOR = 10
const IS_OLD = sql`(a.seen_at is null or a.seen_at < now() - make_interval(mins => ${TRUSTED_FOR}))`

/** Audiences made of contacts of their list, which come and go. */
const IS_OF_LIST = sql`a.removed_at is null and a.suppression_list_id is null and a.similar_to is null`

/** Which of some audiences are being counted anew: what is told of them is older than what has changed last. */
export async function behindAmong(db: Db, ids: readonly string[]): Promise<ReadonlySet<string>> {
  const behind = await readRows(db, { id: text })`
    select a.id from audiences a join lists l on l.id = a.list_id
    where ${IS_OF_LIST} and ${IS_BEHIND} and a.id = any(${sql.param([...ids])}::uuid[])`
  return new Set(behind.map(({ id }) => id))
}

const areOf = (listId: string): SQL => sql`a.list_id = ${listId}`

/**
 * Holds audiences against their lists where these have changed: who has to leave, who came since the last edition, who left.
 * @param listId of one list; without it, of all
 */
export const countBehind = (services: Services, listId?: string): Promise<void> =>
  countThose(services, listId === undefined ? IS_BEHIND : sql`${areOf(listId)} and ${IS_BEHIND}`)

/** An audience as it was when it was seen to be behind, and the version of its list. */
const SEEN = { id: text, version: num, seenAt: orNull(when) }
type SeenAudience = RowOf<typeof SEEN>

/** How soon is looked again for one that somebody else is counting, in milliseconds. */
const AGAIN = 100

/** One that cannot be counted keeps no other from it: what it failed by is thrown when all were tried. */
async function countThose({ db, pool }: Services, which: SQL): Promise<void> {
  const those = await readRows(db, SEEN)`
    select a.id, l.version, a.seen_at from audiences a join lists l on l.id = a.list_id
    where ${IS_OF_LIST} and ${which} order by a.created_at`
  const counted: PromiseSettledResult<void>[] = []
  for (const one of those) counted.push(...(await Promise.allSettled([untilCounted(pool, one)])))
  throwFirst(counted)
}

async function untilCounted(pool: Pool, audience: SeenAudience): Promise<void> {
  while (!(await transaction(pool, (tx) => countOne(tx, audience)))) await setTimeout(AGAIN)
}

/** @returns false while somebody else is counting it, which they do for all */
async function countOne(tx: Db, { id, version, seenAt }: SeenAudience): Promise<boolean> {
  if (!(await tryLock(tx, 'audience', id))) return false
  const [audience] = await tx.select().from(audiences).where(eq(audiences.id, id))
  const isCounted = audience?.seenVersion === version && audience.seenAt?.getTime() !== seenAt?.getTime()
  if (!audience || isCounted) return true
  await markOwed(tx, audience)
  const changed = await changedSince(tx, audience)
  await tx
    .update(audiences)
    .set({ ...changed, seenVersion: version, seenAt: sql`now()` })
    .where(and(eq(audiences.id, id), eq(audiences.seenVersion, audience.seenVersion)))
  return true
}

/**
 * Marks who in an audience has to leave: their contact is suppressed for ads, or is no longer there since its rows were
 * put back. Who may stay again is no longer marked. Audiences that exclude keep customers: they are there for that.
 */
async function markOwed(tx: Db, { id, listId }: AudienceRow): Promise<void> {
  const isOwed = sql`m.contact_id is not null and not exists (
    select 1 from contacts c
    where c.id = m.contact_id and c.list_id = ${listId} and ${isShown('c')} and not (string_to_array(c.suppressed_for, ' ') && array['all', 'ads']::text[]))`
  await tx.execute(sql`
    update audience_members m set owed_since = case when m.owed_since is null then now() end
    where m.audience_id = ${id} and m.contact_id is not null and (m.owed_since is not null) is distinct from (${isOwed})`)
}

/** Who came into what an audience is made of since its last edition, and who left it. */
async function changedSince(tx: Db, audience: AudienceRow): Promise<{ cameSince: number; leftSince: number }> {
  const { id, listId, filter } = audience
  const last = await lastDelivered(tx, id)
  if (!last) return { cameSince: 0, leftSince: 0 }
  const isChosen = sql`${chosenContacts(listId, readFilter(filter))} and lane <> 'parked'`
  const isIn = (table: SQL) =>
    sql`select 1 from ${table} looked where looked.edition_id = ${last.editionId} and looked.contact_id = contacts.id`
  // Twice over the contacts: what is chosen kept in between would be looked through by one process alone.
  const changed = await readRow(tx, { cameSince: num, leftSince: num })`
    select (select count(*) from contacts where ${isChosen}
        and not exists (${isIn(sql`edition_lines`)}) and not exists (${isIn(sql`edition_left_out`)})) as came_since,
      (select count(distinct m.contact_id) from audience_members m where m.audience_id = ${id} and m.contact_id is not null
        and not exists (select 1 from contacts where contacts.id = m.contact_id and ${isChosen})) as left_since`
  return changed ?? { cameSince: 0, leftSince: 0 }
}

/**
 * How audiences are held against their lists for somebody who looks at them. One of a million takes a few seconds: what
 * takes longer than a page waits goes on behind it, and is told as it was counted last.
 * @returns counts the audiences of a list; without one those of all lists, whose counts may be older then
 */
export function countsSoon(services: Services): (listId?: string) => Promise<void> {
  const counts = new Map<string, () => Promise<unknown>>()
  const patience = services.config.limits.countSeconds * 1000
  const countsOf = (listId: string | undefined) => {
    const which = listId === undefined ? IS_BEHIND : sql`${areOf(listId)} and (${IS_BEHIND} or ${IS_OLD})`
    return sharingTurns(() => byItself(services, () => countThose(services, which)))
  }
  return async (listId) => {
    const count = counts.get(listId ?? '') ?? countsOf(listId)
    counts.set(listId ?? '', count)
    await Promise.race([count(), setTimeout(patience, undefined, { ref: false })])
  }
}
