import { type SQL, sql } from 'drizzle-orm'

/** Where so few ids lie between those that are wanted, all of them are read: one after the other is many times as quick. */
const FEW_BETWEEN = 3

/** That `contact_id` is one of these. @param ids in their order */
export function isOfContacts(ids: readonly number[]): SQL {
  const [first, last] = [ids[0] ?? 0, ids.at(-1) ?? 0]
  return last - first < FEW_BETWEEN * ids.length
    ? sql`contact_id between ${first} and ${last}`
    : sql`contact_id = any(${sql.param([...ids])}::bigint[])`
}

/** Where what was read of each contact stands, by the place of the contact: from there, up to there. */
export interface Stretches {
  readonly from: Int32Array
  readonly to: Int32Array
}

/**
 * Finds what each contact has, in one go through both.
 * @param ids of the contacts, in their order
 * @param of ids of the contacts of what was read, in the same order, as texts
 */
export function stretchesOf(ids: readonly number[], of: readonly string[]): Stretches {
  const [from, to] = [new Int32Array(ids.length), new Int32Array(ids.length)]
  let at = 0
  for (let i = 0; i < ids.length; i++) {
    const id = ids[i] as number
    const text = String(id)
    while (at < of.length && of[at] !== text && Number(of[at]) < id) at++
    from[i] = at
    while (at < of.length && of[at] === text) at++
    to[i] = at
  }
  return { from, to }
}
