import { AS_THEY_COME, DEFAULT_SURVIVORSHIP, type HowToSurvive, type SurvivorPart } from '@upper-field/core/pair'
import type { Db } from '../db/database'
import { isOneOf } from '../db/isOneOf'
import { lists, valueChoices } from '../db/schema'

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
  const found = await tx
    .select({ id: lists.id, survivorship: lists.survivorship })
    .from(lists)
    .where(isOneOf(lists.id, listIds))
  const rules = new Map(found.map(({ id, survivorship }) => [id, survivorship ?? DEFAULT_SURVIVORSHIP]))
  // The last choice counts: it comes last, and stays in the map.
  const choices = await tx
    .select({ contactId: valueChoices.contactId, part: valueChoices.part })
    .from(valueChoices)
    .where(isOneOf(valueChoices.contactId, ids))
    .orderBy(valueChoices.madeAt, valueChoices.id)
  return (listId, of) => {
    if (of.length < 2) return AS_THEY_COME
    const mine = new Set(of)
    const chosen = new Map<SurvivorPart, number>()
    for (const { contactId, part } of choices) if (mine.has(contactId)) chosen.set(part, contactId)
    return { rules: rules.get(listId) ?? DEFAULT_SURVIVORSHIP, chosen }
  }
}
