import type { Db } from './database'
import { bool, readRow } from './readRows'

/** Advisory locks of PostgreSQL, by what they guard: the second half of the key, beside the id of the thing. */
export const LOCKS = {
  /** One process migrates at a time. A key of its own, without an id. */
  migration: 7411,
  /** Who works on a job holds it, so that a job nobody holds is known to be cut off. */
  job: 7412,
  /** Who changes the contacts of a list. */
  list: 7416,
  /** Two checks must not buy the same answer. A key of its own, without an id. */
  checks: 7417,
  /** Two fills of one list must not begin at once. */
  fills: 7418,
  /** The first owner is made once. A key of its own, without an id. */
  firstOwner: 7419,
  /** The index of the search of a list is built once at a time. */
  words: 7422,
  /** Two may not both take what is left of a month. A key of its own, without an id. */
  spend: 7420,
  /** One process takes a run of an automation on. */
  automations: 7421,
  /** An audience is held against its list once at a time. */
  audience: 7423,
} as const

/** Takes a lock until the end of the transaction, if nobody has it. @param id of the thing it guards */
export async function tryLock(tx: Db, lock: keyof typeof LOCKS, id: string): Promise<boolean> {
  const told = await readRow(tx, { isTaken: bool })`
    select pg_try_advisory_xact_lock(hashtextextended(${id}::text, ${LOCKS[lock]})) as is_taken`
  return told?.isTaken === true
}
