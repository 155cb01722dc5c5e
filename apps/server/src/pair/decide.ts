import type { Decided } from '@upper-field/contract'
import type { SurvivorPart } from '@upper-field/core/pair'
import { desc, eq, type SQL, sql } from 'drizzle-orm'
import type { PoolClient } from 'pg'
import type { Db } from '../db/database'
import { joins, pairDecisions, valueChoices } from '../db/schema'
import { notFound, Problem } from '../http/problem'
import { countContacts } from '../projection/cube'
import { rowThatGives } from '../projection/loadPages'
import { joinAgain } from './joinAgain'
import { refreshWithSharers } from './refreshWithSharers'

/** A pair that waits for a person, as it is stored. */
interface Waiting extends Record<string, unknown> {
  readonly id: string
  readonly a_id: string
  readonly b_id: string
}

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
  const { rows } = await db.execute<{ list_id: string }>(sql`select list_id from pairs where id = ${pairId}`)
  if (!rows[0]) throw pairGone()
  return rows[0].list_id
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
  const { rows: asked } = await tx.execute<{ list_id: string; pattern: string; decision_id: string | null }>(
    sql`select list_id, pattern, decision_id from pairs where id = ${pairId}`,
  )
  const [pair] = asked
  if (!pair) throw pairGone()
  const which = alike
    ? sql`p.list_id = ${pair.list_id} and p.pattern = ${pair.pattern}`
    : decision === 'join'
      ? withOthers(pairId, also)
      : sql`p.id = ${pairId}`
  const { rows: waiting } = await tx.execute<Waiting>(
    sql`select p.id, p.a_id, p.b_id from pairs p where ${which} and p.decision_id is null order by p.score desc, p.id for update`,
  )
  if (waiting.length === 0)
    throw new Problem(409, 'decided-already', 'Somebody has decided this pair already. Nothing was changed.')
  const [made] = await tx
    .insert(pairDecisions)
    .values({ listId: pair.list_id, decision, pairs: waiting.length, who })
    .returning()
  if (!made) throw new Error('insert returned nothing')
  await tx.execute(
    sql`update pairs set decision_id = ${made.id} where id = any(${sql.param(waiting.map(({ id }) => Number(id)))}::bigint[])`,
  )
  if (decision === 'join') {
    if (!alike) await storeChoices(tx, made.id, waiting, chosen)
    await joinPairs(tx, client, pair.list_id, waiting, who)
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
  const among = new Set(waiting.flatMap(({ a_id, b_id }) => [Number(a_id), Number(b_id)]))
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
  for (const { id, a_id, b_id } of waiting) {
    const { rows } = await tx.execute<{ root: string }>(sql`
      select distinct coalesce(joined_into, id) as root from contacts where id in (${Number(a_id)}, ${Number(b_id)}) order by 1`)
    const [survivor, member] = rows.map(({ root }) => Number(root))
    if (survivor === undefined || member === undefined) continue
    const [join] = await tx
      .insert(joins)
      .values({ listId, survivorId: survivor, memberId: member, keyKind: 'person', key: who })
      .returning({ id: joins.id })
    await tx.execute(sql`update pairs set join_id = ${join?.id ?? null} where id = ${Number(id)}`)
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
  const { rows } = await tx.execute<{ survivor_id: string; member_id: string }>(sql`
    delete from joins where id in (select join_id from pairs where decision_id = ${decisionId}) and undone_at is null
    returning survivor_id, member_id`)
  await tx.delete(valueChoices).where(eq(valueChoices.decisionId, decisionId))
  await tx.execute(sql`update pairs set decision_id = null, join_id = null where decision_id = ${decisionId}`)
  const ids = rows.flatMap((row) => [Number(row.survivor_id), Number(row.member_id)])
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
