import { AS_THEY_COME, DEFAULT_SURVIVORSHIP, type HowToSurvive, type SurvivorPart } from '@upper-field/core/pair'
import { sql } from 'drizzle-orm'
import type { Db } from '../db/database'

/** Tells how the rows of a contact become one, by the list and the ids of all its rows. */
export type SurvivorshipOf = (listId: string, ids: readonly number[]) => HowToSurvive

/**
 * The rules of these lists, and what people chose for contacts that are made of several rows.
 * @param ids of all rows that stand with others
 */
export async function survivorshipOf(
  tx: Db,
  listIds: readonly string[],
  ids: readonly number[],
): Promise<SurvivorshipOf> {
  if (ids.length === 0) return () => AS_THEY_COME
  const { rows: lists } = await tx.execute<{ id: string; survivorship: HowToSurvive['rules'] | null }>(
    sql`select id, survivorship from lists where id = any(${sql.param(listIds)}::uuid[])`,
  )
  const rules = new Map(lists.map(({ id, survivorship }) => [id, survivorship ?? DEFAULT_SURVIVORSHIP]))
  // The last choice counts: it comes last, and stays in the map.
  const { rows: choices } = await tx.execute<{ contact_id: string; part: SurvivorPart }>(sql`
    select contact_id, part from value_choices where contact_id = any(${sql.param(ids)}::bigint[]) order by made_at, id`)
  return (listId, of) => {
    if (of.length < 2) return AS_THEY_COME
    const mine = new Set(of)
    const chosen = new Map<SurvivorPart, number>()
    for (const { contact_id, part } of choices) if (mine.has(Number(contact_id))) chosen.set(part, Number(contact_id))
    return { rules: rules.get(listId) ?? DEFAULT_SURVIVORSHIP, chosen }
  }
}
