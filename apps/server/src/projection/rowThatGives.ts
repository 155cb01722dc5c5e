import { partSources, type SurvivorPart, sourceOf } from '@upper-field/core/pair'
import type { Db } from '../db/database'
import { takingTurns } from '../db/takingTurns'
import { tidiedRows } from './tidiedRows'

/** The row of a contact that gives a part of it, among those it is made of; null where there is no such contact. */
export async function rowThatGives(tx: Db, contactId: number, part: SurvivorPart): Promise<number | null> {
  const [found] = await tidiedRows(tx, takingTurns(), [contactId], new Map())
  if (!found) return null
  const rows = [found.own, ...found.members.rows].map(({ projected, ...row }) => ({ ...row, ...projected }))
  return sourceOf(part, partSources(rows), found.how)?.id ?? null
}
