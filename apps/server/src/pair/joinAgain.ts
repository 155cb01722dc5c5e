import { sql } from 'drizzle-orm'
import type { PoolClient } from 'pg'
import type { Db } from '../db/database'
import { num, readIds, readRows, text } from '../db/readRows'
import { partOf } from '../jobs/share'
import { type Reprojecting, reproject } from '../projection/reproject'
import { sharersAmong } from '../projection/sharedIn'
import { renewStatistics } from '../projection/statistics'
import { carrySent } from './carrySent'
import { joinExactDuplicates } from './joinExactDuplicates'
import { pointToSurvivors } from './pointToSurvivors'
import { sharersOf } from './sharers'

/** So many contacts make the statistics of before useless. */
const MANY = 500

export interface JoiningAgain extends Reprojecting {
  /** Contacts that were projected anew already: each stood for itself, and nobody was joined to it. */
  readonly written?: {
    readonly ids: readonly number[]
    /** Who held a number with them before. */
    readonly sharers: readonly number[]
  }
}

/**
 * Projects contacts whose numbers, e-mails or names may have changed, and decides their groups anew: joins that have
 * lost their ground are gone, those that still hold keep the time at which they were made.
 * @returns these contacts and everybody they were one person with: all of them are projected
 */
export async function joinAgain(
  tx: Db,
  client: PoolClient,
  listId: string,
  ids: readonly number[],
  { written = { ids: [], sharers: [] }, onShare, ...how }: JoiningAgain = {},
): Promise<ReadonlySet<number>> {
  if (ids.length === 0) return new Set()
  const group = await groupsOf(tx, ids)
  const sharedBefore = [...written.sharers, ...(await sharersOf(tx, group))]
  const before = await readRows(tx, { survivorId: num, memberId: num, madeAt: text })`
    delete from joins where undone_at is null and suspended_by is null and key_kind in ('number', 'email')
      and (survivor_id = any(${sql.param(group)}::bigint[]) or member_id = any(${sql.param(group)}::bigint[]))
    returning survivor_id, member_id, made_at::text`
  await tx.execute(
    sql`update contacts set joined_into = null where id = any(${sql.param(group)}::bigint[]) and joined_into is not null`,
  )
  // What was joined by likeness or by a person's word does not hang on a key.
  await pointToSurvivors(tx, group)
  const isWritten = new Set(written.ids)
  const anew = { contacts: group.filter((id) => !isWritten.has(id)), because: 'keys' } as const
  await reproject(tx, client, anew, { ...how, onShare: partOf(onShare, 0, 2) })
  if (group.length > MANY) await renewStatistics(client)
  await joinExactDuplicates(tx, client, { listId, added: { ids: group } }, { ...how, onShare: partOf(onShare, 1, 2) })
  await tx.execute(sql`
    update joins j set made_at = o.made_at
    from unnest(${sql.param(before.map((row) => row.survivorId))}::bigint[], ${sql.param(before.map((row) => row.memberId))}::bigint[],
      ${sql.param(before.map((row) => row.madeAt))}::timestamptz[]) as o (survivor_id, member_id, made_at)
    where j.survivor_id = o.survivor_id and j.member_id = o.member_id and j.undone_at is null`)
  await carrySent(tx, group)
  // Who held a number with them before, or holds one now, may be on a shared line no more, or from now on.
  const mine = new Set(group)
  const others = [...sharedBefore, ...(await sharersOf(tx, group))].filter((id) => !mine.has(id))
  await reproject(tx, client, { contacts: [...others, ...(await sharersAmong(tx, group))], because: 'place' })
  return mine
}

/** These contacts and everybody they are one person with. */
async function groupsOf(tx: Db, ids: readonly number[]): Promise<number[]> {
  return readIds(tx)`
    with roots as (select distinct coalesce(joined_into, id) as id from contacts where id = any(${sql.param(ids)}::bigint[]))
    select id from roots union select c.id from contacts c join roots r on c.joined_into = r.id`
}
