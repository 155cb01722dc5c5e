import type { LaneRule, Use } from '@upper-field/core/split'
import { eq, type SQL, sql } from 'drizzle-orm'
import { chosenByFilter } from '../contacts/conditions'
import { REACHABLE } from '../contacts/facets'
import { readFilter } from '../contacts/readFilter'
import type { Db } from '../db/database'
import { laneRules } from '../db/schema'

/** Whether contacts can be reached in a way, as a condition on the table. */
const CAN: Readonly<Record<Use, string>> = {
  texts: 'can_text',
  calls: 'can_call',
  post: "(street <> '' and postal_code <> '' and city <> '')",
  ads: '(email is not null or can_call or can_text)',
}

const isOpen = (use: Use): SQL =>
  sql`(${sql.raw(CAN[use])} and not (string_to_array(suppressed_for, ' ') && array['all', ${use}]::text[]))`

export const rulesOf = async (tx: Db, listId: string): Promise<readonly LaneRule[]> =>
  (await tx.select().from(laneRules).where(eq(laneRules.listId, listId)).orderBy(laneRules.position)).map(
    ({ lane, name, use, filter }) => ({ lane, name, use, filter }),
  )

/** The usual lanes, where a person moves somebody by hand and the list has no rules of its own. */
const USE_OF_LANE: Readonly<Record<string, Use>> = { text: 'texts', call: 'calls', 'ads-only': 'ads' }

const usesIn = (rules: readonly LaneRule[]): ReadonlyMap<string, Use> =>
  new Map<string, Use>([...Object.entries(USE_OF_LANE), ...rules.map(({ lane, use }): [string, Use] => [lane, use])])

/** What those in each lane of a list are to be reached by. */
export const usesOfLanes = async (db: Db, listId: string): Promise<ReadonlyMap<string, Use>> =>
  usesIn(await rulesOf(db, listId))

/**
 * Decides the lanes of a list by its own rules and by hand, in one statement over the list: suppression beats the hand,
 * the hand beats the rules, and the first rule that takes a contact keeps it. Where there is neither, the lanes are those
 * that were decided contact by contact.
 * @param some which contacts of the list alone, as a condition on the table
 */
export async function decideLanes(tx: Db, listId: string, some: SQL = sql`true`): Promise<void> {
  const rules = await rulesOf(tx, listId)
  const { rows: byHand } = await tx.execute(
    sql`select 1 from contacts where list_id = ${listId} and lane_by_hand <> '' and ${some} limit 1`,
  )
  if (rules.length === 0 && byHand.length === 0) return
  const hands = usesIn(rules)
  const cases = [
    sql`when suppressed_for = 'all' then array['parked', 'suppressed']`,
    sql`when lane_by_hand = 'parked' then array['parked', 'by-hand']`,
    ...[...hands].map(
      ([lane, use]) => sql`when lane_by_hand = ${lane} and ${isOpen(use)} then array[${lane}::text, 'by-hand']`,
    ),
    ...rules.map(
      ({ lane, use, filter }) =>
        sql`when ${sql.raw(use === 'post' ? 'true' : REACHABLE)} and ${isOpen(use)} and ${chosenByFilter(readFilter(filter))} then array[${lane}::text, 'by-rule']`,
    ),
  ]
  const otherwise =
    rules.length === 0
      ? sql`array[lane, lane_reason]`
      : sql`array['parked', case when suppressed_for <> '' then 'suppressed' else 'no-rule' end]`
  await tx.execute(sql`
    update contacts set lane = decided.place[1], lane_reason = decided.place[2]
    from (select id, case ${sql.join(cases, sql` `)} else ${otherwise} end as place from contacts where list_id = ${listId} and ${some}) decided
    where contacts.id = decided.id and (contacts.lane, contacts.lane_reason) is distinct from (decided.place[1], decided.place[2])`)
}
