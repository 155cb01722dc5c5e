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

/**
 * What each contact has, asked for in their order: both are read from front to back once.
 * @param of ids of the contacts of what was read, in order
 * @param read what stands at a place of it
 */
export function ofContacts<T>(of: readonly string[], read: (at: number) => T): (id: number) => readonly T[] {
  let at = 0
  const here = () => Number(of[at] ?? Number.POSITIVE_INFINITY)
  return (id) => {
    while (here() < id) at++
    const from = at
    while (here() === id) at++
    return from === at ? NONE : Array.from({ length: at - from }, (_, i) => read(from + i))
  }
}

const NONE: readonly never[] = []
