import { type SQL, sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { bool, listOf, num, orNull, readRow, readRows, text } from '../db/readRows'
import type { audiences } from '../db/schema'

export type AudienceRow = typeof audiences.$inferSelect

/** Whoever has been there for longer than this is sent again where membership lapses, in days. */
const RENEWED_AFTER_DAYS = 1

/** Members that lapse by and by, and are told anew that they stay. */
export const isRenewed = ({ keepsDays }: Pick<AudienceRow, 'keepsDays'>, at: Date): SQL =>
  keepsDays === null
    ? sql`false`
    : sql`m.since <= ${new Date(at.getTime() - RENEWED_AFTER_DAYS * 86_400_000).toISOString()}::timestamptz`

export interface Counted {
  readonly comes: number
  readonly leaves: number
  readonly leavesSuppressed: number
  /** Contacts with a line that leaves and one that comes: they stay, with other values. */
  readonly changed: number
  readonly stays: number
  readonly renewed: number
}

/** Holds the lines of an edition against those that are in the audience by our books. */
export async function countDifference(
  db: Db,
  audience: Pick<AudienceRow, 'id' | 'keepsDays'>,
  editionId: string,
  at: Date,
): Promise<Counted> {
  const counted = await readRow(db, COUNTED)`
    with both_sides as (select l.key as line, m.key as held, m.owed_since, m.since, l.contact_id as comes_of, m.contact_id as leaves_of
      from (select * from edition_lines where edition_id = ${editionId}) l
      full join (select * from audience_members where audience_id = ${audience.id}) m on m.key = l.key)
    select count(*) filter (where held is null) as comes,
      count(*) filter (where line is null) as leaves,
      count(*) filter (where line is null and owed_since is not null) as leaves_suppressed,
      count(*) filter (where line is not null and held is not null) as stays,
      count(*) filter (where line is not null and held is not null and ${isRenewed(audience, at)}) as renewed,
      (select count(*) from (
        select comes_of from both_sides where held is null and comes_of is not null
        intersect select leaves_of from both_sides where line is null) other_values) as changed
    from both_sides m`
  return counted ?? { comes: 0, leaves: 0, leavesSuppressed: 0, changed: 0, stays: 0, renewed: 0 }
}

const COUNTED = { comes: num, leaves: num, leavesSuppressed: num, changed: num, stays: num, renewed: num }

/** A line on its way. */
export interface LineOut {
  /** In hexadecimal digits. */
  readonly key: string
  readonly contactId: number | null
  readonly cells: readonly string[]
  readonly isRenewed: boolean
}

export interface PartAsked {
  readonly audience: Pick<AudienceRow, 'id' | 'keepsDays'>
  /** Null for a delivery that only takes out whoever has to leave. */
  readonly editionId: string | null
  readonly startedAt: Date
  readonly after: string
  /** The key of the last line, where it is known which lines these are; else null. */
  readonly until: string | null
  readonly most: number
}

type Round = 'add' | 'remove' | 'whole'

/**
 * The next lines of a round, in the order of their keys: the same ones whoever asks again, since what was taken before
 * has smaller keys.
 */
export async function nextLines(db: Db, round: Round, asked: PartAsked): Promise<readonly LineOut[]> {
  const { audience, editionId, startedAt, after, until, most } = asked
  const between = (key: SQL): SQL =>
    sql`${key} > ${decode(after)} ${until === null ? sql`` : sql`and ${key} <= ${decode(until)}`}`
  const members = sql`audience_members m where m.audience_id = ${audience.id} and ${between(sql`m.key`)}`
  const lines = sql`edition_lines l where l.edition_id = ${editionId} and ${between(sql`l.key`)}`
  const held = sql`select 1 from audience_members m where m.audience_id = ${audience.id} and m.key = l.key`
  const kept = sql`select 1 from edition_lines l where l.edition_id = ${editionId} and l.key = m.key`
  const queries: Readonly<Record<Round, SQL>> = {
    remove:
      editionId === null
        ? sql`select m.key, m.contact_id, m.cells, false as renewed from ${members} and m.owed_since is not null`
        : sql`select m.key, m.contact_id, m.cells, false as renewed from ${members} and not exists (${kept})`,
    add: sql`select l.key, l.contact_id, l.cells, exists (${held}) as renewed from ${lines}
      and not exists (${held} and not ${isRenewed(audience, startedAt)})`,
    whole:
      editionId === null
        ? sql`select m.key, m.contact_id, m.cells, false as renewed from ${members} and m.owed_since is null`
        : sql`select l.key, l.contact_id, l.cells, false as renewed from ${lines}`,
  }
  return readRows(db, { key: text, contactId: orNull(num), cells: listOf(text), isRenewed: bool })`
    select encode(key, 'hex') as key, contact_id, cells, renewed as is_renewed from (${queries[round]}) q order by q.key limit ${most}`
}

const decode = (key: string): SQL => sql`decode(${key}, 'hex')`
