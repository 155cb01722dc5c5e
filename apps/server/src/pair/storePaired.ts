import type { Thresholds } from '@upper-field/contract'
import { sql } from 'drizzle-orm'
import type { PoolClient } from 'pg'
import { copyInto } from '../db/copy'
import type { Db } from '../db/database'
import { pairStates } from '../db/schema'
import type { OnShare } from '../jobs/share'
import type { FoundPairs, PairToDecide } from './findPairs'
import { refreshWithSharers } from './refreshWithSharers'
import { storeJoins } from './storeJoins'

/** Joins who was found to be one person. */
export async function storeGroups(
  tx: Db,
  client: PoolClient,
  { listId, joins }: FoundPairs,
  onShare?: OnShare,
): Promise<void> {
  await storeJoins(tx, client, listId, joins)
  await refreshWithSharers(
    tx,
    client,
    [...new Set(joins.flatMap(({ survivor, member }) => [survivor, member]))],
    onShare,
  )
}

const COLUMNS = ['list_id', 'a_id', 'b_id', 'score', 'key', 'evidence', 'against', 'pattern']

/** Writes down what a person has to decide, in place of what was left from the run before. */
export async function storePairs(tx: Db, client: PoolClient, { listId, toDecide }: FoundPairs): Promise<void> {
  await tx.execute(sql`delete from pairs where list_id = ${listId} and decision_id is null`)
  const lineOf = ({ a, b, score, key, evidence, against }: PairToDecide) => {
    const pattern = [key, ...evidence.map(({ field, level }) => `${field}:${level}`)].join(' ')
    return [listId, a, b, score, key, JSON.stringify(evidence), against, pattern]
  }
  await copyInto(client, 'pairs', COLUMNS, toDecide.map(lineOf))
}

export async function storeState(
  tx: Db,
  { listId, contacts, bins, groups }: FoundPairs,
  thresholds: Thresholds,
  ranAt: Date,
): Promise<void> {
  const state = { listId, contacts, thresholds, bins: [...bins], groups: [...groups], ranAt }
  await tx.insert(pairStates).values(state).onConflictDoUpdate({ target: pairStates.listId, set: state })
}
