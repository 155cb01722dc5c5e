import type { Paired } from '@upper-field/core/pair'
import { eq, sql } from 'drizzle-orm'
import type { PoolClient } from 'pg'
import { copyInto } from '../db/copy'
import type { Db } from '../db/database'
import { pairs } from '../db/schema'
import { pairOf } from './keptApart'
import { refreshWithSharers } from './refreshWithSharers'
import { storeJoins } from './storeJoins'

/** The likeliest pairs are kept for a person; nobody decides more. */
const MOST_PAIRS = 20_000

/** What was found, and the ids of the contacts by their positions in it. */
export interface Found {
  readonly listId: string
  readonly paired: Paired
  readonly ids: readonly number[]
}

/** Joins the members of each group to the first of them. @returns how many contacts were joined to another */
export async function storeGroups(tx: Db, client: PoolClient, { listId, paired, ids }: Found): Promise<number> {
  const idAt = (at: number): number => ids[at] ?? 0
  const joins = paired.groups.flatMap(({ members, score }) => {
    const [survivor = 0, ...others] = members.map(idAt)
    return others.map((member) => ({ survivor, member, kind: 'likeness', key: score.toFixed(1) }))
  })
  await storeJoins(tx, client, listId, joins)
  await refreshWithSharers(
    tx,
    client,
    paired.groups.flatMap(({ members }) => members.map(idAt)),
  )
  return joins.length
}

/** Writes down what a person has to decide, in place of what was left from the run before. @returns how many pairs */
export async function storePairs(tx: Db, client: PoolClient, { listId, paired, ids }: Found): Promise<number> {
  const idAt = (at: number): number => ids[at] ?? 0
  await tx.execute(sql`delete from pairs where list_id = ${listId} and decision_id is null`)
  const known = await tx.select({ a: pairs.aId, b: pairs.bId }).from(pairs).where(eq(pairs.listId, listId))
  // Decided pairs stay decided, and no pair is asked about twice.
  const asked = new Set(known.map(({ a, b }) => pairOf(a, b)))
  const survivors = new Map(
    paired.groups.flatMap(({ members }) => members.map((member) => [member, members[0] ?? member])),
  )
  const lines: (readonly (string | number)[])[] = []
  for (const { a, b, score, key } of paired.toDecide) {
    if (lines.length === MOST_PAIRS) break
    // A contact that was joined is decided about through the one it was joined to.
    const [one, other] = [idAt(survivors.get(a) ?? a), idAt(survivors.get(b) ?? b)].sort((x, y) => x - y) as [
      number,
      number,
    ]
    const pair = pairOf(one, other)
    if (one === other || asked.has(pair)) continue
    asked.add(pair)
    const evidence = paired.explain(a, b).map(({ field, level, bits }) => ({ field, level, bits: round(bits) }))
    const pattern = [key, ...evidence.map(({ field, level }) => `${field}:${level}`)].join(' ')
    lines.push([
      listId,
      one,
      other,
      round(score),
      key,
      JSON.stringify(evidence),
      round(paired.weights.against),
      pattern,
    ])
  }
  await copyInto(client, 'pairs', ['list_id', 'a_id', 'b_id', 'score', 'key', 'evidence', 'against', 'pattern'], lines)
  return lines.length
}

const round = (bits: number): number => Math.round(bits * 100) / 100
