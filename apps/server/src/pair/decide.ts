import type { Decided } from '@upper-field/contract'
import type { SurvivorPart } from '@upper-field/core/pair'
import { desc, eq, type SQL, sql } from 'drizzle-orm'
import type { PoolClient } from 'pg'
import type { Db } from '../db/database'
import { isOneOf } from '../db/isOneOf'
import { num, type RowOf, readIds, readRows } from '../db/readRows'
import { joins, pairDecisions, pairs, valueChoices } from '../db/schema'
import { notFound, Problem } from '../http/problem'
import { countContacts } from '../projection/cube'
import { rowThatGives } from '../projection/rowThatGives'
import { joinAgain } from './joinAgain'
import { refreshWithSharers } from './refreshWithSharers'

/** A pair that waits for a person, as it is stored. */
const WAITING = { id: num, aId: num, bId: num }
type Waiting = RowOf<typeof WAITING>

export interface Decision {
  readonly pairId: number
  readonly decision: 'join' | 'apart'
  readonly alike: boolean
  readonly who: string
  /** Contacts that are joined with the pair, of those that wait to be decided with one of it. */
  readonly also?: readonly number[]
  /** The contact whose value comes first, for the parts where a person chose. */
  readonly chosen?: Partial<Record<SurvivorPart, number>>
}

const pairGone = (): Problem =>
  new Problem(409, 'pair-gone', 'This pair was looked for anew, or is one person by now. Nothing was changed.')

/** The list of a pair. Throws a problem where there is no such pair any more. */
export async function listOfPair(db: Db, pairId: number): Promise<string> {
  const [pair] = await db.select({ listId: pairs.listId }).from(pairs).where(eq(pairs.id, pairId))
  if (!pair) throw pairGone()
  return pair.listId
}

/** The list of a decision. */
export async function listOfDecision(db: Db, decisionId: number): Promise<string> {
  const [known] = await db
    .select({ listId: pairDecisions.listId })
    .from(pairDecisions)
    .where(eq(pairDecisions.id, decisionId))
  if (!known) throw notFound('decision')
  return known.listId
}

/** Decides a pair, or all that look like it, as one decision that can be taken back whole. Its list is held. */
export async function decide(
  tx: Db,
  client: PoolClient,
  { pairId, decision, alike, who, also = [], chosen = {} }: Decision,
): Promise<Decided> {
  const [pair] = await tx.select().from(pairs).where(eq(pairs.id, pairId))
  if (!pair) throw pairGone()
  const which = alike
    ? sql`p.list_id = ${pair.listId} and p.pattern = ${pair.pattern}`
    : decision === 'join'
      ? withOthers(pairId, also)
      : sql`p.id = ${pairId}`
  const waiting = await readRows(tx, WAITING)`
    select p.id, p.a_id, p.b_id from pairs p where ${which} and p.decision_id is null order by p.score desc, p.id for update`
  if (waiting.length === 0)
    throw new Problem(409, 'decided-already', 'Somebody has decided this pair already. Nothing was changed.')
  const [made] = await tx
    .insert(pairDecisions)
    .values({ listId: pair.listId, decision, pairs: waiting.length, who })
    .returning()
  if (!made) throw new Error('insert returned nothing')
  const ids = waiting.map(({ id }) => id)
  await tx.update(pairs).set({ decisionId: made.id }).where(isOneOf(pairs.id, ids))
  if (decision === 'join') {
    if (!alike) await storeChoices(tx, made.id, waiting, chosen)
    await joinPairs(tx, client, pair.listId, waiting, who)
  }
  return asDecided(made)
}

/** A pair, and every pair between its two and the others that are joined with them. */
function withOthers(pairId: number, also: readonly number[]): SQL {
  const them = sql`(select unnest(${sql.param(also)}::bigint[]) union select a_id from pairs where id = ${pairId}
    union select b_id from pairs where id = ${pairId})`
  return sql`(p.id = ${pairId} or (p.list_id = (select list_id from pairs where id = ${pairId}) and p.a_id in ${them} and p.b_id in ${them}))`
}

/** Writes down which row gives each chosen part: the contact of the pair may be made of several already. */
async function storeChoices(
  tx: Db,
  decisionId: number,
  waiting: readonly Waiting[],
  chosen: Partial<Record<SurvivorPart, number>>,
): Promise<void> {
  const among = new Set(waiting.flatMap(({ aId, bId }) => [aId, bId]))
  for (const [part, contactId] of Object.entries(chosen) as [SurvivorPart, number][]) {
    if (!among.has(contactId)) throw notFound('contact in this pair')
    const row = await rowThatGives(tx, contactId, part)
    if (row !== null) await tx.insert(valueChoices).values({ contactId: row, part, decisionId })
  }
}

/** Joins pairs, the surest first, each to whom its contacts stand for by then; the earlier row survives. */
async function joinPairs(
  tx: Db,
  client: PoolClient,
  listId: string,
  waiting: readonly Waiting[],
  who: string,
): Promise<void> {
  const touched = new Set<number>()
  for (const { id, aId, bId } of waiting) {
    const [survivor, member] = await readIds(tx)`
      select distinct coalesce(joined_into, id) as id from contacts where id in (${aId}, ${bId}) order by 1`
    if (survivor === undefined || member === undefined) continue
    const [join] = await tx
      .insert(joins)
      .values({ listId, survivorId: survivor, memberId: member, keyKind: 'person', key: who })
      .returning({ id: joins.id })
    await tx
      .update(pairs)
      .set({ joinId: join?.id ?? null })
      .where(eq(pairs.id, id))
    await tx.execute(sql`update contacts set joined_into = ${survivor} where id = ${member} or joined_into = ${member}`)
    for (const one of [survivor, member]) touched.add(one)
  }
  await refreshWithSharers(tx, client, [...touched])
  await countContacts(tx, listId)
}

/** Takes a decision back, while its list is held: its pairs wait again, its joins are as if they had never been made. */
export async function takeDecisionBack(tx: Db, client: PoolClient, decisionId: number): Promise<Decided> {
  const [decision] = await tx.select().from(pairDecisions).where(eq(pairDecisions.id, decisionId)).for('update')
  if (!decision || decision.undoneAt)
    throw new Problem(409, 'taken-back-already', 'This decision was taken back already.')
  const apart = await readRows(tx, { survivorId: num, memberId: num })`
    delete from joins where id in (select join_id from pairs where decision_id = ${decisionId}) and undone_at is null
    returning survivor_id, member_id`
  await tx.delete(valueChoices).where(eq(valueChoices.decisionId, decisionId))
  await tx.update(pairs).set({ decisionId: null, joinId: null }).where(eq(pairs.decisionId, decisionId))
  const ids = apart.flatMap(({ survivorId, memberId }) => [survivorId, memberId])
  await tx.update(pairDecisions).set({ undoneAt: new Date() }).where(eq(pairDecisions.id, decisionId))
  if (ids.length > 0) {
    // Whoever was joined to them by a key of one of them goes with that one.
    await joinAgain(tx, client, decision.listId, ids)
    await countContacts(tx, decision.listId)
  }
  return asDecided(decision)
}

/** What people decided last and has not been taken back. */
export async function latestDecisions(db: Db, listId: string, limit: number): Promise<Decided[]> {
  const rows = await db
    .select()
    .from(pairDecisions)
    .where(sql`${pairDecisions.listId} = ${listId} and ${pairDecisions.undoneAt} is null`)
    .orderBy(desc(pairDecisions.madeAt))
    .limit(limit)
  return rows.map(asDecided)
}

const asDecided = (row: typeof pairDecisions.$inferSelect): Decided => ({
  id: row.id,
  decision: row.decision as Decided['decision'],
  pairs: row.pairs,
  who: row.who,
  at: row.madeAt.toISOString(),
})
