import { sql } from 'drizzle-orm'
import { isShown } from '../contacts/shown'
import type { Db } from '../db/database'
import { bitsOf, firstOf, holdsId, inSpans, lastOf, SPAN, spanOf, without } from '../db/spans'
import { endOfChanges } from '../projection/countedChanges'
import { COUNTED_BY, CUBE_DIMENSIONS, DIMENSIONS } from '../projection/cubeDimensions'
import { decideLanes, rulesOf } from '../split/decideLanes'

/** Contacts that are in an edition from here on. */
export async function noteMembers(tx: Db, editionId: string, contactIds: readonly number[]): Promise<void> {
  const spans = [...inSpans(contactIds)]
  if (spans.length === 0) return
  const lines = spans.map(
    ([span, bits]) => sql`(${editionId}::uuid, ${span}::int, ${bits}::bit(${sql.raw(String(SPAN))}))`,
  )
  await tx.execute(sql`
    insert into edition_members (edition_id, span, bits) values ${sql.join(lines, sql`, `)}
    on conflict (edition_id, span) do update set bits = edition_members.bits | excluded.bits`)
}

/** Whoever is in an audience now is in the edition that was delivered. */
export async function noteAudience(tx: Db, editionId: string, audienceId: string): Promise<void> {
  const contact = sql`contact_id`
  await tx.execute(sql`
    insert into edition_members (edition_id, span, bits)
    select ${editionId}::uuid, ${spanOf(contact)}, ${bitsOf(contact)} from audience_members
    where audience_id = ${audienceId} and contact_id is not null group by 2
    on conflict (edition_id, span) do update set bits = edition_members.bits | excluded.bits`)
}

/** The group of those who were not sent, said of a group of those who were. */
const NOT_SENT = sql.raw(DIMENSIONS.replace('is_sent', 'not is_sent'))

/**
 * Whoever is in an edition counts as sent from here on; in the transaction that holds the list. Only those are looked at
 * who were not sent before, and no contact is written for it: they leave one group of the counts and come to another.
 */
export async function noteSent(tx: Db, listId: string, editionId: string): Promise<void> {
  const { rowCount } = await tx.execute(sql`
    with fresh as materialized (
      select m.span, ${without(sql`m.bits`, sql`s.bits`)} as bits
      from edition_members m left join sent_contacts s on s.span = m.span where m.edition_id = ${editionId}
    ), groups as (
      select ${CUBE_DIMENSIONS}, sum(n) as n from fresh sent cross join lateral (
        -- Span by span: the groups of a span fit into memory whatever the planner takes them for.
        select ${COUNTED_BY}, count(*) as n from contacts
        where id between ${firstOf(sql`sent.span`)} and ${lastOf(sql`sent.span`)} and list_id = ${listId}
          and ${holdsId(sql`sent.bits`, sql`id`)} and ${isShown()}
        group by ${CUBE_DIMENSIONS}) counted
      group by ${CUBE_DIMENSIONS}
    )
    insert into contact_cube (list_id, ${CUBE_DIMENSIONS}, contacts)
    select ${listId}::uuid, ${CUBE_DIMENSIONS}, n from groups union all select ${listId}, ${NOT_SENT}, -n from groups`)
  await tx.execute(sql`
    insert into sent_contacts (span, bits) select span, bits from edition_members where edition_id = ${editionId} order by span
    on conflict (span) do update set bits = sent_contacts.bits | excluded.bits`)
  await tx.execute(
    sql`update lists set changed_at = now(), unsummed = unsummed + ${rowCount ?? 0} where id = ${listId}`,
  )
  await decideLanesAgain(tx, listId)
}

/** Words in a rule that may ask who was sent, or who is in an audience. */
const ASKS_WHO_WAS_SENT = /\b(?:sent|audience)\b/i

/** Rules can ask who was sent: only then anybody's lane may be another. */
async function decideLanesAgain(tx: Db, listId: string): Promise<void> {
  const rules = await rulesOf(tx, listId)
  if (!rules.some(({ filter }) => ASKS_WHO_WAS_SENT.test(filter))) return
  await decideLanes(tx, listId)
  await endOfChanges(tx, listId)
}
