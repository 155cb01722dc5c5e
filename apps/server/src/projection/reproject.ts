import type { ProjectedContact } from '@upper-field/core/tidy'
import type { PoolClient } from 'pg'
import type { Db } from '../db/database'
import { type ContactLines, linesOf } from './columns'
import { type LoadedPage, loadedPages, pagesOf } from './loadPages'
import { holdersOfLines, lineIn, sharedLines, sharedLinesOf } from './sharedIn'
import { viewOf } from './viewOf'
import { writeContacts, writeNumbers, writePlacements } from './writePages'

/**
 * Which contacts are projected anew, and why: it decides what of them is written, and who else is.
 * - `changed`: anything may be otherwise. Lines count as shared by who holds them afterwards.
 * - `joined`: others were just joined to them. Their numbers were in the list before, so who shares a line is known.
 * - `values`: their numbers and e-mails are what they were; `known` are those whose own rows were projected already.
 * - `place`: only where they belong may be otherwise, since a line is shared now or no longer, or somebody said no.
 */
export type Reprojection = { readonly contacts: readonly number[] } & (
  | { readonly because: 'changed' | 'joined' | 'place' }
  | { readonly because: 'values'; readonly known?: ReadonlyMap<number, ProjectedContact> }
)

export interface Reprojecting {
  /** True where the list was taken out of the index of the search in this transaction: there are no words to keep up. */
  readonly isOutOfIndex?: boolean
  /** So many pages are kept in memory until all numbers are written; longer runs are written page by page. */
  readonly kept?: number
}

const KEPT = 10

/**
 * Projects contacts anew from their rows, joins, fills and line facts, and writes what they have become. Contacts that
 * are joined to another are projected from their own row alone.
 */
export async function reproject(tx: Db, client: PoolClient, what: Reprojection, how: Reprojecting = {}): Promise<void> {
  const { contacts } = what
  switch (what.because) {
    case 'changed':
      return pagesOf(contacts).length > (how.kept ?? KEPT)
        ? changedMany(tx, client, contacts, how)
        : changedFew(tx, client, contacts, how)
    case 'joined':
      for await (const lines of placedPages(tx, contacts)) {
        await writeNumbers(client, lines)
        await writeContacts(client, lines, how)
      }
      return
    case 'values':
      for await (const lines of placedPages(tx, contacts, what.known)) await writeContacts(client, lines, how)
      return
    case 'place':
      for await (const lines of placedPages(tx, contacts)) await writePlacements(client, lines)
  }
}

/** All numbers are written before any lane is decided. */
async function changedFew(tx: Db, client: PoolClient, ids: readonly number[], how: Reprojecting): Promise<void> {
  const kept: LoadedPage[] = []
  for await (const loaded of loadedPages(tx, pagesOf(ids))) {
    kept.push(loaded)
    await writeNumbers(client, linesWith(loaded, new Set()))
  }
  const sharedIn = sharedLines(tx, ids.length)
  for (const one of kept) await writeContacts(client, linesWith(one, await sharedIn(one)), how)
}

/** Each page is read and written once; then those are placed anew whose lines are shared now, or no longer. */
async function changedMany(tx: Db, client: PoolClient, ids: readonly number[], how: Reprojecting): Promise<void> {
  const before = await sharedLinesOf(tx, ids)
  for await (const loaded of loadedPages(tx, pagesOf(ids))) {
    const lines = linesWith(loaded, before)
    await writeNumbers(client, lines)
    await writeContacts(client, lines, how)
  }
  const after = await sharedLinesOf(tx, ids)
  const changed = [...before, ...after].filter((line) => !(before.has(line) && after.has(line)))
  await reproject(tx, client, { contacts: await holdersOfLines(tx, ids, changed), because: 'place' })
}

/** Contacts projected anew page by page, their lanes decided by who holds their numbers now. */
async function* placedPages(
  tx: Db,
  ids: readonly number[],
  known?: ReadonlyMap<number, ProjectedContact>,
): AsyncGenerator<readonly ContactLines[]> {
  const sharedIn = sharedLines(tx, ids.length)
  for await (const loaded of loadedPages(tx, pagesOf(ids), known)) yield linesWith(loaded, await sharedIn(loaded))
}

function linesWith({ sources, facts, verified, scopesOf }: LoadedPage, shared: ReadonlySet<string>): ContactLines[] {
  const verifiedAs = (address: string) => verified.get(address)?.deliverability
  return sources.map(({ key, own, members, how, fills }) => {
    const factsOf = (e164: string) => facts.get(e164)
    return linesOf(
      key,
      viewOf({
        own,
        members,
        how,
        fills,
        factsOf,
        verifiedAs,
        isShared: (e164) => shared.has(lineIn(key.listId, e164)),
        scopesOf,
      }),
      members.length,
    )
  })
}
