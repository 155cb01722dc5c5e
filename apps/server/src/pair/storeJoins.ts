import type { PoolClient } from 'pg'
import { copyInto } from '../db/copy'
import type { Db } from '../db/database'
import { inPages } from '../db/inPages'
import { pointToSurvivors } from './pointToSurvivors'

/** Why somebody is joined to somebody else. */
export interface NewJoin {
  readonly survivor: number
  readonly member: number
  /** What the two have in common: a kind of key, or `likeness`. */
  readonly kind: string
  /** That key; of those joined by likeness, how alike they are. */
  readonly key: string
}

/** Statements carry so many at a time: a list can hold hundreds of thousands of joins. */
const PAGE = 10_000
/** So many joins make the statistics of before useless: the planner would look through all of them for each. */
const MANY = 500

/** Writes joins of a list down, and points those who are joined at whom they are joined to. */
export async function storeJoins(tx: Db, client: PoolClient, listId: string, joins: readonly NewJoin[]): Promise<void> {
  for (const page of inPages(joins, PAGE)) {
    const lines = page.map(({ survivor, member, kind, key }) => [listId, survivor, member, kind, key])
    await copyInto(client, 'joins', ['list_id', 'survivor_id', 'member_id', 'key_kind', 'key'], lines)
  }
  if (joins.length > MANY) await client.query('analyze joins')
  const survivors = [...new Set(joins.map(({ survivor }) => survivor))]
  for (const page of inPages(survivors, PAGE)) await pointToSurvivors(tx, page)
}
