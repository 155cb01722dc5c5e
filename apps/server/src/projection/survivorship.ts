import { AS_THEY_COME, DEFAULT_SURVIVORSHIP, type HowToSurvive, type SurvivorPart } from '@upper-field/core/pair'
import { eq } from 'drizzle-orm'
import type { Db } from '../db/database'
import { isOneOf } from '../db/isOneOf'
import { num, readRows, word } from '../db/readRows'
import { contacts as all, lists } from '../db/schema'
import { withJoined } from '../pair/standsFor'

/** How the rows of some contacts become one each. */
export interface SurvivorshipOf {
  /** @param ids of all rows of a contact */
  of(listId: string, ids: readonly number[]): HowToSurvive
  /** True for rows that a person chose for a part of one. */
  isChosen(id: number): boolean
}

const ALL_ALONE: SurvivorshipOf = { of: () => AS_THEY_COME, isChosen: () => false }

/**
 * The rules of their lists, and what people chose for contacts that are made of several rows.
 * @param contacts those that others are joined to
 */
export async function survivorshipOf(tx: Db, contacts: readonly number[]): Promise<SurvivorshipOf> {
  if (contacts.length === 0) return ALL_ALONE
  const found = await tx
    .selectDistinct({ id: lists.id, survivorship: lists.survivorship })
    .from(lists)
    .innerJoin(all, eq(all.listId, lists.id))
    .where(isOneOf(all.id, contacts))
  const rules = new Map(found.map(({ id, survivorship }) => [id, survivorship ?? DEFAULT_SURVIVORSHIP]))
  // The last choice counts: it comes last, and stays in the map.
  const choices = await readRows(tx, { id: num, part: word<SurvivorPart> })`
    select v.contact_id as id, v.part from value_choices v join ${withJoined(contacts)} w on w.id = v.contact_id
    order by v.made_at, v.id`
  const chosen = new Set(choices.map(({ id }) => id))
  return {
    of: (listId, ids) => {
      if (ids.length < 2) return AS_THEY_COME
      const mine = new Set(ids)
      const parts = choices.flatMap(({ id, part }): [SurvivorPart, number][] => (mine.has(id) ? [[part, id]] : []))
      return { rules: rules.get(listId) ?? DEFAULT_SURVIVORSHIP, chosen: new Map(parts) }
    },
    isChosen: (id) => chosen.has(id),
  }
}
