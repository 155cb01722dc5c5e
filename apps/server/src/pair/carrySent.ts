import { type SQL, sql } from 'drizzle-orm'
import { isShown } from '../contacts/shown'
import type { Db } from '../db/database'
import { inPages } from '../db/inPages'
import { bool, num, readRows } from '../db/readRows'
import { holdsId, inSpans, memberIs, SPAN, spanOf } from '../db/spans'
import { CUBE_DIMENSIONS } from '../projection/cubeDimensions'
import { withJoined } from './standsFor'

/** Statements carry so many contacts at a time. */
const PAGE = 5000

/**
 * Whoever was sent counts as sent under the contact that stands for it: nobody is sent the same again as another row of
 * theirs. Called where contacts were joined or taken apart, when they have been projected anew and before they are counted.
 */
export async function carrySent(tx: Db, contacts: readonly number[]): Promise<void> {
  const { rows: any } = await tx.execute(sql`select 1 from sent_contacts limit 1`)
  if (any.length === 0) return
  // In order, so that two who mark contacts of the same span wait for each other the same way round.
  const ids = [...new Set(contacts)].sort((a, b) => a - b)
  for (const page of inPages(ids, PAGE)) {
    const { sent, notSent } = await otherwise(tx, page)
    if (sent.length > 0) await mark(tx, sent, true)
    if (notSent.length > 0) await mark(tx, notSent, false)
  }
}

/** Contacts that count as sent or not, and should not: by the files and audiences that they and whoever is joined to them were in. */
async function otherwise(
  tx: Db,
  ids: readonly number[],
): Promise<{ readonly sent: readonly number[]; readonly notSent: readonly number[] }> {
  const marks = await readRows(tx, { id: num, should: bool })`
    with told as (
      select distinct w.root as id from ${withJoined(ids)} w join edition_members m on ${memberIs(sql`m`, sql`w.id`)}
      join editions e on e.id = m.edition_id and e.state = 'ready')
    select id, should from (
      select c.id, coalesce(${holdsId(sql`s.bits`, sql`c.id`)}, false) as counts, c.id in (select id from told) as should
      from contacts c left join sent_contacts s on s.span = ${spanOf(sql`c.id`)}
      where c.id = any(${sql.param([...ids])}::bigint[])) looked where counts <> should`
  const idsWhere = (are: boolean) => marks.flatMap(({ id, should }) => (should === are ? [id] : []))
  return { sent: idsWhere(true), notSent: idsWhere(false) }
}

/** They leave one group of the counts and come to another; no contact is written for it. */
async function mark(tx: Db, ids: readonly number[], isSent: boolean): Promise<void> {
  const these = sql`any(${sql.param([...ids])}::bigint[])`
  await tx.execute(sql`
    insert into contact_cube (list_id, ${CUBE_DIMENSIONS}, contacts)
    select list_id, ${CUBE_DIMENSIONS}, sum(n) from (
      select contacts.*, moved.is_sent, moved.n, joined_into is not null as is_joined, joined > 0 as has_joined
      from contacts cross join (values (${isSent}::boolean, 1), (${!isSent}::boolean, -1)) moved (is_sent, n)
      where contacts.id = ${these} and ${isShown()}) moved
    group by list_id, ${CUBE_DIMENSIONS}`)
  for (const [span, bits] of inSpans(ids)) await setBits(tx, span, sql`${bits}::bit(${sql.raw(String(SPAN))})`, isSent)
}

const setBits = (tx: Db, span: number, bits: SQL, isSent: boolean) =>
  isSent
    ? tx.execute(sql`
        insert into sent_contacts (span, bits) values (${span}, ${bits})
        on conflict (span) do update set bits = sent_contacts.bits | excluded.bits`)
    : tx.execute(sql`update sent_contacts set bits = bits & ~${bits} where span = ${span}`)
