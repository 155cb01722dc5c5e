import type { AddressFacts, RegisterFacts } from '@upper-field/core/check'
import { suppressibleKeysOf } from '@upper-field/core/pair'
import type { Db } from '../db/database'
import { inPages } from '../db/inPages'
import { listOf, num, readRows, text } from '../db/readRows'
import type { Turn } from '../db/takingTurns'
import { withJoined } from '../pair/standsFor'
import { suppressionScopes } from '../suppression/matches'
import { factsOfAddresses, factsOfNumbers } from './facts'
import { type KnownBatches, type MadeOfRows, tidiedRows } from './tidiedRows'
import type { ContactSources } from './viewOf'

const PAGE = 1000

/** Everything that some contacts are made from. */
export interface LoadedPage {
  readonly listIds: readonly string[]
  readonly sources: readonly (MadeOfRows & { readonly fills: readonly string[] })[]
  readonly e164s: readonly string[]
  readonly facts: ReadonlyMap<string, RegisterFacts>
  readonly verified: ReadonlyMap<string, AddressFacts>
  readonly scopesOf: ContactSources['scopesOf']
}

/** A page of contacts: reads the rows they are made of, where those are not known. */
export type PageOfRows = () => Promise<readonly MadeOfRows[]>

/**
 * These contacts in pages, each once; what they are made of is read and tidied when its page is.
 * @param turn taken for what is asked of the database: the rows are tidied while others have it
 */
export function storedPages(tx: Db, turn: Turn, ids: readonly number[]): readonly PageOfRows[] {
  const known: KnownBatches = new Map()
  return pagesOf(ids).map((page) => () => tidiedRows(tx, turn, page, known))
}

/** Contacts in pages of which it is known what they are made of. */
export const knownPages = (made: readonly MadeOfRows[]): readonly PageOfRows[] =>
  inPages(made, PAGE).map((page) => async () => page)

/** Reads what is known of the numbers and addresses of a page of contacts, and what was found for them. */
export async function loadPage(tx: Db, turn: Turn, made: readonly MadeOfRows[]): Promise<LoadedPage> {
  const contacts = made.flatMap(({ own, members }) => [own, ...members.rows]).map(({ projected }) => projected)
  return turn(async () => {
    const fills = await readFills(
      tx,
      made.map(({ key }) => key.id),
    )
    const found = [...fills.values()].flat()
    const e164s = [
      ...new Set([
        ...contacts.flatMap((one) => one.numbers.map(({ e164 }) => e164)),
        ...found.filter((value) => !value.includes('@')),
      ]),
    ]
    const addresses = [
      ...new Set([
        ...contacts.flatMap(({ emails }) => emails.map(({ address }) => address)),
        ...found.filter((value) => value.includes('@')),
      ]),
    ]
    return {
      listIds: [...new Set(made.map(({ key }) => key.listId))],
      sources: made.map((one) => ({ ...one, fills: fills.get(one.key.id) ?? [] })),
      e164s,
      facts: await factsOfNumbers(tx, e164s),
      verified: await factsOfAddresses(tx, addresses),
      scopesOf: await suppressionScopes(tx, () => [...e164s, ...found, ...contacts.flatMap(suppressibleKeysOf)]),
    }
  })
}

/** These contacts, each once, in pages. */
export const pagesOf = (ids: readonly number[]): readonly (readonly number[])[] => inPages([...new Set(ids)], PAGE)

/** What providers found for these contacts, or for whoever is joined to them, each once. */
async function readFills(tx: Db, ids: readonly number[]): Promise<Map<number, string[]>> {
  const rows = await readRows(tx, { id: num, found: listOf(text) })`
    select w.root as id, array_agg(coalesce(e164, address) order by made_at, f.id) as found
    from fills f join ${withJoined(ids)} w on w.id = f.contact_id where undone_at is null group by w.root`
  return new Map(rows.map(({ id, found }) => [id, [...new Set(found)]]))
}
