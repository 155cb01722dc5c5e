import type { PoolClient } from 'pg'
import { BREATH, breathe } from '../breathe'
import type { Db } from '../db/database'
import { severalAtOnce, type Turn, takingTurns } from '../db/takingTurns'
import type { OnShare } from '../jobs/share'
import { type ContactLines, linesOf } from './columns'
import { knownPages, type LoadedPage, loadPage, type PageOfRows, pagesOf, storedPages } from './loadPages'
import { lineIn, type SharedIn, sharedLines, sharersAmong } from './sharedIn'
import { learnAgain, placeAgain } from './standAgain'
import type { MadeOfRows } from './tidiedRows'
import { viewOf } from './viewOf'
import { contactsPage, numbersPage, writeContacts, writeNumbers, writeStanding } from './writePages'

/**
 * Which contacts are projected anew, and why: it decides what of them is written, and who else is.
 * - `changed`: anything may be otherwise. Lines count as shared by who holds them afterwards.
 * - `keys`: anything may be otherwise, and who is joined to whom is decided next. No line counts as shared: whoever decides
 *   places them once it is.
 * - `joined`: others were just joined to them. Their numbers were in the list before, so who shares a line is known.
 * - `values`: their numbers and e-mails are what they were.
 * - `learnt`: something was told of their numbers or addresses, which are what they were.
 * - `place`: only where they belong may be otherwise, since a line is shared now or no longer, or somebody said no.
 * Of those that are `made` it is known what they are made of.
 */
export type Reprojection =
  | { readonly contacts: readonly number[]; readonly because: 'changed' | 'joined' | 'learnt' | 'place' | Anew }
  | { readonly made: readonly MadeOfRows[]; readonly because: Anew }
type Anew = 'keys' | 'values'

export interface Reprojecting {
  /** True where the index of the search is built anew after this transaction: there are no words to keep up. */
  readonly isOutOfIndex?: boolean
  /** Taken for what is asked of the database, where others work on the same connection meanwhile. */
  readonly turn?: Turn
  /** Which lines are shared, where whoever asks knows that already; only for `values`. */
  readonly sharedIn?: SharedIn
  /** Told after each page of rows: not where stored lines alone are looked at. */
  readonly onShare?: OnShare
}

/**
 * Projects contacts anew from their rows, joins, fills and line facts, and writes what they have become. Contacts that
 * are joined to another are projected from their own row alone.
 */
export async function reproject(tx: Db, client: PoolClient, what: Reprojection, how: Reprojecting = {}): Promise<void> {
  const turn = how.turn ?? takingTurns()
  const writing: Writing = { tx, client, turn, how }
  if ('made' in what) return anew(writing, what.because, what.made.length, knownPages(what.made))
  const { contacts, because } = what
  switch (because) {
    case 'changed':
      await anew(writing, 'keys', contacts.length, storedPages(tx, turn, contacts))
      return placeMany(writing, await sharersAmong(tx, contacts))
    case 'joined':
      return eachPage(writing, storedPages(tx, turn, contacts), sharedLines(tx, contacts.length), wholePage)
    case 'keys':
    case 'values':
      return anew(writing, because, contacts.length, storedPages(tx, turn, contacts))
    case 'learnt':
      return learnMany(writing, contacts)
    case 'place':
      return placeMany(writing, contacts)
  }
}

const anew = (writing: Writing, because: Anew, contacts: number, pages: readonly PageOfRows[]): Promise<void> =>
  because === 'keys'
    ? eachPage(writing, pages, async () => NO_LINES, wholePage)
    : eachPage(writing, pages, writing.how.sharedIn ?? sharedLines(writing.tx, contacts), valuesPage)

const NO_LINES: ReadonlySet<string> = new Set()

/** How and over which connection contacts are read and written. */
interface Writing {
  readonly tx: Db
  readonly client: PoolClient
  readonly turn: Turn
  readonly how: Reprojecting
}

/** Writes a page out as it is to be stored, and tells how to store it. */
type PageWriter = (lines: readonly ContactLines[]) => (writing: Writing) => Promise<void>

const wholePage: PageWriter = (lines) => {
  const [numbers, contacts] = [numbersPage(lines), contactsPage(lines)]
  return async (writing) => {
    await writeNumbers(writing.client, numbers)
    await writeContacts(writing, contacts, writing.how)
  }
}

const valuesPage: PageWriter = (lines) => {
  const contacts = contactsPage(lines)
  return (writing) => writeContacts(writing, contacts, writing.how)
}

async function placeMany({ tx, client, turn }: Writing, ids: readonly number[]): Promise<void> {
  const sharedIn = sharedLines(tx, ids.length)
  for (const page of pagesOf(ids))
    await turn(async () => writeStanding(client, page, await placeAgain(tx, page, sharedIn)))
}

async function learnMany({ tx, client, turn, how }: Writing, ids: readonly number[]): Promise<void> {
  const sharedIn = sharedLines(tx, ids.length)
  const toRead: number[] = []
  for (const page of pagesOf(ids))
    await turn(async () => {
      const learnt = await learnAgain(tx, page, sharedIn)
      toRead.push(...learnt.toRead)
      await writeStanding(client, page, learnt)
    })
  await reproject(tx, client, { contacts: toRead, because: 'changed' }, how)
}

/** Contacts projected anew page by page, their lanes decided by who holds their numbers. */
async function eachPage(
  writing: Writing,
  pages: readonly PageOfRows[],
  sharedIn: SharedIn,
  writer: PageWriter,
): Promise<void> {
  const { tx, turn, how } = writing
  let done = 0
  await severalAtOnce(pages, async (rowsOf) => {
    const loaded = await loadPage(tx, turn, await rowsOf())
    const shared = await turn(() => sharedIn(loaded))
    const store = writer(await linesWith(loaded, shared))
    await turn(() => store(writing))
    await how.onShare?.(++done / pages.length)
  })
}

async function linesWith(
  { sources, facts, verified, scopesOf }: LoadedPage,
  shared: ReadonlySet<string>,
): Promise<ContactLines[]> {
  const factsOf = (e164: string) => facts.get(e164)
  const verifiedAs = (address: string) => verified.get(address)?.deliverability
  const lines: ContactLines[] = []
  for (const [i, { key, own, members, how, fills }] of sources.entries()) {
    if (i % BREATH === 0) await breathe()
    const isShared = (e164: string) => shared.has(lineIn(key.listId, e164))
    const view = viewOf({ own, members: members.rows, how, fills, factsOf, verifiedAs, isShared, scopesOf })
    lines.push(linesOf(key, view, members.count))
  }
  return lines
}
