import type { ProjectedContact } from '@upper-field/core/tidy'
import type { PoolClient } from 'pg'
import type { Db } from '../db/database'
import { type ContactLines, linesOf } from './columns'
import { type LoadedPage, loadedPages, pagesOf } from './loadPages'
import { holdersOfLines, lineIn, sharedLines, sharedLinesOf } from './sharedIn'
import { viewOf } from './viewOf'
import { writeContacts, writeNumbers, writePlacements } from './writePages'

const KEPT = 10

export interface Refreshing {
  /** True where the list was taken out of the index of the search in this transaction: there are no words to keep up. */
  readonly isOutOfIndex?: boolean
  /** Contacts whose own rows were projected already. */
  readonly known?: ReadonlyMap<number, ProjectedContact>
  /** So many pages are kept in memory until all numbers are written; longer runs are written page by page. */
  readonly kept?: number
}

/**
 * Projects contacts anew from their rows, joins, fills and line facts, and writes what they have become.
 * Contacts that are joined to another are projected from their own row alone. A line counts as shared by who holds it
 * afterwards: all numbers are written before any lane is decided, or those are decided again for whom that changes.
 */
export async function refreshContacts(
  tx: Db,
  client: PoolClient,
  ids: readonly number[],
  how: Refreshing = {},
): Promise<void> {
  const pages = pagesOf(ids)
  if (pages.length > (how.kept ?? KEPT)) return refreshMany(tx, client, pages, how)
  const kept: LoadedPage[] = []
  for await (const loaded of loadedPages(tx, pages)) {
    kept.push(loaded)
    await writeNumbers(client, linesWith(loaded, new Set()))
  }
  const sharedIn = sharedLines(tx, ids.length)
  for (const one of kept) await writeContacts(client, linesWith(one, await sharedIn(one)), how)
}

/** Each page is read and written once; then those are placed anew whose lines are shared now, or no longer. */
async function refreshMany(
  tx: Db,
  client: PoolClient,
  pages: readonly (readonly number[])[],
  how: Refreshing,
): Promise<void> {
  const ids = pages.flat()
  const before = await sharedLinesOf(tx, ids)
  for await (const loaded of loadedPages(tx, pages)) {
    const lines = linesWith(loaded, before)
    await writeNumbers(client, lines)
    await writeContacts(client, lines, how)
  }
  const after = await sharedLinesOf(tx, ids)
  const changed = [...before, ...after].filter((line) => !(before.has(line) && after.has(line)))
  await replaceContacts(tx, client, await holdersOfLines(tx, ids, changed))
}

/**
 * Projects contacts anew to which others were just joined. Their numbers were in the list before, so who shares a
 * line is known from the joins alone, and each page is read and written once.
 */
export async function refreshSurvivors(
  tx: Db,
  client: PoolClient,
  ids: readonly number[],
  how: Refreshing = {},
): Promise<void> {
  for await (const lines of placedPages(tx, ids)) {
    await writeNumbers(client, lines)
    await writeContacts(client, lines, how)
  }
}

/** Projects contacts anew whose numbers and e-mails are what they were. */
export async function refreshValues(
  tx: Db,
  client: PoolClient,
  ids: readonly number[],
  how: Refreshing = {},
): Promise<void> {
  for await (const lines of placedPages(tx, ids, how.known)) await writeContacts(client, lines, how)
}

/** Decides anew where contacts belong whose own numbers are what they were, but are shared now, or no longer. */
export async function replaceContacts(tx: Db, client: PoolClient, ids: readonly number[]): Promise<void> {
  for await (const lines of placedPages(tx, ids)) await writePlacements(client, lines)
}

/** Contacts projected anew page by page, their lanes decided by who holds their numbers now. */
async function* placedPages(
  tx: Db,
  ids: readonly number[],
  known?: Refreshing['known'],
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
