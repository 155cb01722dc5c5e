import type { PairExample, PairState } from '@upper-field/contract'
import { DEFAULT_SURVIVORSHIP, DEFAULT_THRESHOLDS } from '@upper-field/core/pair'
import { eq } from 'drizzle-orm'
import type { Db } from '../db/database'
import { isOneOf } from '../db/isOneOf'
import { num, readRow } from '../db/readRows'
import { contacts, lists, pairStates } from '../db/schema'
import type { StoredBin } from '../db/schema/pair'

/** How a list is paired: the last look for likeness, and what is joined, left to a person and kept apart by now. */
export async function pairState(db: Db, listId: string): Promise<PairState> {
  const [state] = await db.select().from(pairStates).where(eq(pairStates.listId, listId))
  const [list] = await db.select({ survivorship: lists.survivorship }).from(lists).where(eq(lists.id, listId))
  const counts = await readRow(db, { joined: num, waiting: num, apart: num })`select
    (select count(*) from joins where list_id = ${listId} and key_kind in ('likeness', 'person')
      and undone_at is null and suspended_by is null) as joined,
    (select count(*) from pairs where list_id = ${listId} and decision_id is null) as waiting,
    (select count(*) from pairs p join pair_decisions d on d.id = p.decision_id
      where p.list_id = ${listId} and d.decision = 'apart') as apart`
  return {
    ranAt: state?.ranAt.toISOString() ?? null,
    contacts: state?.contacts ?? 0,
    thresholds: state?.thresholds ?? DEFAULT_THRESHOLDS,
    bins: await withNames(db, state?.bins ?? []),
    groups: state?.groups ?? [],
    joined: counts?.joined ?? 0,
    toDecide: counts?.waiting ?? 0,
    keptApart: counts?.apart ?? 0,
    survivorship: list?.survivorship ?? DEFAULT_SURVIVORSHIP,
  }
}

/** The examples by who they are today: what is stored names nobody, so that nobody has to be erased from it. */
async function withNames(db: Db, bins: readonly StoredBin[]): Promise<PairState['bins']> {
  const ids = bins.flatMap(({ examples }) => examples.flatMap(({ a, b }) => [a, b]))
  const named = await db
    .select({ contactId: contacts.id, fullName: contacts.fullName, company: contacts.company, city: contacts.city })
    .from(contacts)
    .where(isOneOf(contacts.id, ids))
  const sides = new Map(named.map((side) => [side.contactId, side]))
  return bins.map(({ from, pairs, examples }) => ({
    from,
    pairs,
    examples: examples.map(
      ({ a, b, score }): PairExample => ({ score, sides: [a, b].flatMap((id) => sides.get(id) ?? []) }),
    ),
  }))
}
