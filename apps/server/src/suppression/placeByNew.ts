import type { PoolClient } from 'pg'
import { wasShown } from '../contacts/shown'
import type { Db } from '../db/database'
import { readCount } from '../db/readRows'
import { batches } from '../db/schema'
import type { EntryKey } from './entryHolders'
import { markLater } from './markLater'
import { type Placed, placeAnew } from './placeAnew'

/** What became of the contacts that hold the keys of new entries. */
export interface PlacedByNew extends Placed {
  /** Of some entries only the hash is known, and there are very many contacts: jobs look for whom they mean. */
  readonly areLookedFor: boolean
}

/**
 * Decides anew where contacts belong that hold the keys of entries which were added in this transaction. To find who is meant
 * by a hash, all keys of all contacts are hashed: among very many that is left to a job for each list, however many hashes
 * come meanwhile.
 * @param among so many contacts hashes are looked for at once
 */
export async function placeByNew(
  tx: Db,
  client: PoolClient,
  keys: readonly EntryKey[],
  among: number,
): Promise<PlacedByNew> {
  const known = keys.filter(({ key }) => key !== null)
  const areLookedFor = known.length < keys.length && (await areMoreThan(tx, among))
  const placed = await placeAnew(tx, client, areLookedFor ? known : keys)
  if (areLookedFor) for (const listId of await listsWithContacts(tx)) await markLater(tx, listId, [])
  return { ...placed, areLookedFor }
}

async function areMoreThan(tx: Db, most: number): Promise<boolean> {
  const contacts = await readCount(tx)`select count(*) as n from (select 1 from contacts limit ${most + 1}) counted`
  return contacts > most
}

/** Those too of which all batches were taken back: whoever comes back with them is marked by then. */
async function listsWithContacts(tx: Db): Promise<readonly string[]> {
  const found = await tx
    .selectDistinct({ listId: batches.listId })
    .from(batches)
    .where(wasShown())
    .orderBy(batches.listId)
  return found.map(({ listId }) => listId)
}
