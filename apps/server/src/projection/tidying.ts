import { type ChangeCode, proposeRoutine, type Routine, type Settled } from '@upper-field/core/tidy'
import { and, eq, isNull } from 'drizzle-orm'
import type { Db } from '../db/database'
import { isOneOf } from '../db/isOneOf'
import { edits, leftOut, lists } from '../db/schema'
import { sha256Hex } from '../sha256'

/** How a list is tidied: its routine, and the repairs left out for all of it or for one batch. */
export interface Tidying {
  readonly routine: Routine
  readonly leftOut: readonly ChangeCode[]
  readonly leftOutOf: ReadonlyMap<string, readonly ChangeCode[]>
}

export async function tidyingOf(db: Db, listId: string): Promise<Tidying> {
  const [list] = await db.select({ routine: lists.routine }).from(lists).where(eq(lists.id, listId))
  const found = await db
    .select()
    .from(leftOut)
    .where(and(eq(leftOut.listId, listId), isNull(leftOut.undoneAt), isNull(leftOut.contactId)))
  const leftOutOf = new Map<string, ChangeCode[]>()
  for (const { batchId, code } of found) {
    if (batchId !== null) leftOutOf.set(batchId, [...(leftOutOf.get(batchId) ?? []), code as ChangeCode])
  }
  const everywhere = found.filter(({ batchId }) => batchId === null).map(({ code }) => code as ChangeCode)
  return { routine: list?.routine ?? proposeRoutine(), leftOut: everywhere, leftOutOf }
}

/** The same for the same way of tidying a batch: by it is known whether rows read earlier were tidied as they are now. */
export const tidyingKey = ({ routine, leftOut, leftOutOf }: Tidying, batchId: string): string =>
  sha256Hex(JSON.stringify([routine, [...leftOut].sort(), [...(leftOutOf.get(batchId) ?? [])].sort()]))

/** What people have settled for single contacts; those without anything are not told of. */
export async function settledOf(db: Db, ids: readonly number[]): Promise<Map<number, Settled>> {
  const found = new Map<number, { edits: Record<string, string>; leftOut: Set<ChangeCode> }>()
  const of = (id: number) => {
    const known = found.get(id) ?? { edits: {}, leftOut: new Set<ChangeCode>() }
    found.set(id, known)
    return known
  }
  if (ids.length === 0) return found
  const given = await db
    .select()
    .from(edits)
    .where(and(isOneOf(edits.contactId, ids), isNull(edits.undoneAt)))
    .orderBy(edits.id)
  for (const { contactId, column, value } of given) of(contactId).edits[column] = value
  const skipped = await db
    .select()
    .from(leftOut)
    .where(and(isOneOf(leftOut.contactId, ids), isNull(leftOut.undoneAt)))
  for (const { contactId, code } of skipped) if (contactId !== null) of(contactId).leftOut.add(code as ChangeCode)
  return found
}
