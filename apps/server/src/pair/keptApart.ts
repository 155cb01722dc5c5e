import type { KeptApart } from '@upper-field/core/pair'
import type { Db } from '../db/database'
import { num, readRows } from '../db/readRows'

/** Two contacts, whichever comes first. */
export const pairOf = (a: number, b: number): string => (a < b ? `${a}/${b}` : `${b}/${a}`)

/** Pairs of a list that a person has taken or kept apart: they stay apart. */
export async function keptApart(tx: Db, listId: string): Promise<KeptApart> {
  const apart = await readRows(tx, { a: num, b: num })`
    select survivor_id as a, member_id as b from joins where list_id = ${listId} and undone_at is not null
    union
    select p.a_id, p.b_id from pairs p join pair_decisions d on d.id = p.decision_id
    where p.list_id = ${listId} and d.decision = 'apart' and d.undone_at is null`
  const pairs = new Set(apart.map(({ a, b }) => pairOf(a, b)))
  const all = new Set(apart.flatMap(({ a, b }) => [a, b]))
  return { isPair: (a, b) => pairs.has(pairOf(a, b)), isInAny: (id) => all.has(id) }
}
