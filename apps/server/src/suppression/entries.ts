import type { SuppressionAdded } from '@upper-field/contract'
import { type SuppressionKey, suppressionKey } from '@upper-field/core/pair'
import { sql } from 'drizzle-orm'
import type { PoolClient } from 'pg'
import type { Db } from '../db/database'
import { readRows, text } from '../db/readRows'
import { sha256Hex } from '../sha256'
import { placeByNew } from './placeByNew'

/** Of a line that could not be read so many characters are told. */
const LONGEST_TOLD = 80

/** What is told of every entry beside its key. */
export interface EntryFacts {
  readonly suppressionListId: string
  readonly reason: string
  readonly asHashes: boolean
  readonly expiresAt: string | null
  readonly who: string
  /** The file they come with; null for those added in another way. */
  readonly batchId?: string | null
  /** Hashes among the keys are looked for at once among so many contacts; among more, and where it is not told, later. */
  readonly hashesAmong?: number
}

export interface NewEntries extends EntryFacts {
  readonly text: string
  readonly country: string | null
}

/** Adds the keys of a text, a line each, and marks whoever they are in every list. Lines that hold no key are told. */
export async function addEntries(tx: Db, client: PoolClient, entries: NewEntries): Promise<SuppressionAdded> {
  const lines = entries.text.split(/\r\n|\r|\n/).map((text, i) => ({ line: i + 1, text: text.trim() }))
  const filled = lines.filter(({ text }) => text !== '')
  const read = filled.map((line) => ({ ...line, key: suppressionKey(line.text, entries.country) }))
  const unread = read.filter(({ key }) => key === null)
  const keys = read.flatMap(({ key }) => key ?? [])
  const { added, ...placed } = await addKeys(tx, client, entries, keys)
  return {
    ...placed,
    added,
    known: keys.length - added,
    // Each of them, however many: whoever sent them has nothing else to mend them by.
    unread: unread.map(({ line, text }) => ({ line, text: text.slice(0, LONGEST_TOLD) })),
    unreadTotal: unread.length,
  }
}

/**
 * Adds keys to a list. What a file holds, and what was added by hand, is written down although the list knows it from
 * elsewhere: a file can be taken back, and what a person has said stays. One that has expired is set anew, and one that
 * would expire sooner holds as long as was said last.
 * @returns how many keys were new to the list, and what became of those who hold them
 */
export async function addKeys(
  tx: Db,
  client: PoolClient,
  { suppressionListId, reason, asHashes, expiresAt, who, batchId = null, hashesAmong = 0 }: EntryFacts,
  keys: readonly SuppressionKey[],
): Promise<Pick<SuppressionAdded, 'added' | 'marked' | 'waiting' | 'areLookedFor'>> {
  const byHash = new Map(
    keys.map(({ kind, key }) => {
      const hash = kind === 'hash' ? key : sha256Hex(key)
      return [hash, { kind, hash, key: kind === 'hash' ? null : key }]
    }),
  )
  const known = await readRows(tx, { hash: text })`
    select distinct hash from suppression_entries
    where suppression_list_id = ${suppressionListId} and hash = any(${sql.param([...byHash.keys()])}::text[])
      and (expires_at is null or expires_at > now())`
  const isKnown = new Set(known.map(({ hash }) => hash))
  const rows = [...byHash.values()]
  const stored = await readRows(tx, { hash: text })`
    insert into suppression_entries (suppression_list_id, batch_id, kind, hash, key, reason, added_by, expires_at)
    select ${suppressionListId}::uuid, ${batchId}::uuid, e.kind, e.hash, e.key, ${reason}, ${who}, ${expiresAt}::timestamptz
    from unnest(${sql.param(rows.map(({ kind }) => kind))}::text[], ${sql.param(rows.map(({ hash }) => hash))}::text[],
      ${sql.param(rows.map(({ key }) => (asHashes ? null : key)))}::text[]) as e (kind, hash, key)
    on conflict (suppression_list_id, hash, batch_id) do update
      set key = excluded.key, reason = excluded.reason, added_by = excluded.added_by, added_at = now(),
        expires_at = excluded.expires_at, is_let_go = false
      where suppression_entries.expires_at <= now()
        or suppression_entries.expires_at < coalesce(excluded.expires_at, 'infinity'::timestamptz)
    returning hash`
  const fresh = stored.flatMap(({ hash }) => byHash.get(hash) ?? [])
  const { marked, waiting, areLookedFor } = await placeByNew(tx, client, fresh, hashesAmong)
  const added = stored.filter(({ hash }) => !isKnown.has(hash)).length
  return { added, marked, waiting, ...(areLookedFor ? { areLookedFor } : {}) }
}
