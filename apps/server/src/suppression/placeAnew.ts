import { sql } from 'drizzle-orm'
import type { PoolClient } from 'pg'
import type { Db } from '../db/database'
import { readIds } from '../db/readRows'
import { tryListLock, versionsOfLists } from '../lists/listLock'
import { countContacts } from '../projection/cube'
import { reproject } from '../projection/reproject'
import { tellWebhooks } from '../webhooks/tell'
import { type EntryKey, holdersByList } from './entryHolders'
import { markLater } from './markLater'

/** What became of the contacts that hold the keys of some entries. */
export interface Placed {
  /** How many more are marked as suppressed than before; fewer where this is below zero. */
  readonly marked: number
  /** Contacts of lists that are being worked on, or that hold very many of them: a job marks them. */
  readonly waiting: number
}

/** Nobody is kept waiting for more contacts of a list than these: they take a second. */
const MOST_AT_ONCE = 2000

/**
 * Decides anew where contacts belong that hold one of these keys, in every list. No list is waited for: one that is
 * being worked on, or of which very many are concerned, gets a job, in the same transaction. Entries hold at every exit
 * from their commit on, marked or not.
 */
export async function placeAnew(tx: Db, client: PoolClient, keys: readonly EntryKey[]): Promise<Placed> {
  const before = await versionsOfLists(tx)
  const found = await holdersByList(tx, keys)
  const held: string[] = []
  for (const [listId, { length }] of [...found].sort(([a], [b]) => (a < b ? -1 : 1)))
    if (length <= MOST_AT_ONCE && (await tryListLock(tx, client, listId))) held.push(listId)
  // Until a list was held, its contacts may have changed: to hold it is one version more by itself.
  const after = held.length > 0 ? await versionsOfLists(tx) : before
  const isAsItWas = held.every((listId) => after.get(listId) === (before.get(listId) ?? 0) + 1)
  const current = isAsItWas ? found : await holdersByList(tx, keys)
  let newlyMarked = 0
  let waiting = 0
  for (const listId of found.keys()) {
    const ids = (held.includes(listId) ? current : found).get(listId) ?? []
    if (held.includes(listId)) newlyMarked += await placeContacts(tx, client, listId, ids)
    else {
      waiting += ids.length
      await markLater(tx, listId, ids)
    }
  }
  return { marked: newlyMarked, waiting }
}

/** Decides anew where contacts of a list belong that is held. @returns how many more are marked than before */
export async function placeContacts(
  tx: Db,
  client: PoolClient,
  listId: string,
  ids: readonly number[],
): Promise<number> {
  if (ids.length === 0) return 0
  const before = new Set(await marked(tx, ids))
  await reproject(tx, client, { contacts: ids, because: 'place' })
  await countContacts(tx, listId, { repairs: 'as-they-were' })
  const after = await marked(tx, ids)
  const fresh = after.filter((id) => !before.has(id))
  await tellWebhooks(
    tx,
    listId,
    'contact.suppressed',
    fresh.map((contactId) => ({ contactId })),
  )
  return after.length - before.size
}

async function marked(tx: Db, ids: readonly number[]): Promise<number[]> {
  return readIds(tx)`
    select id from contacts
    where suppressed_for <> '' and joined_into is null and id = any(${sql.param([...ids])}::bigint[])`
}
