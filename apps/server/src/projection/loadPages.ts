import type { AddressFacts, RegisterFacts } from '@upper-field/core/check'
import { type HowToSurvive, partSources, type SurvivorPart, sourceOf, suppressibleKeysOf } from '@upper-field/core/pair'
import type { ProjectedContact, Settled } from '@upper-field/core/tidy'
import { inArray, sql } from 'drizzle-orm'
import { BREATH, breathe } from '../breathe'
import type { Db } from '../db/database'
import { groupBy } from '../db/groupBy'
import { inPages } from '../db/inPages'
import { listOf, num, orNull, type RowOf, readRows, text } from '../db/readRows'
import { batches } from '../db/schema'
import { type Turn, takingTurns } from '../db/takingTurns'
import { withJoined } from '../pair/standsFor'
import { suppressionScopes } from '../suppression/matches'
import { factsOfAddresses, factsOfNumbers } from './facts'
import { type BatchSettings, projectStored, settingsOf } from './rowCells'
import { type SurvivorshipOf, survivorshipOf } from './survivorship'
import { settledOf, type Tidying, tidyingOf } from './tidying'
import type { ContactSources, SourceRow } from './viewOf'

const PAGE = 1000

const STORED = { id: num, listId: text, batchId: text, row: num, text, joinedInto: orNull(num) }
type StoredContact = RowOf<typeof STORED>

/** Everything that some contacts are made from. */
export interface LoadedPage {
  readonly listIds: readonly string[]
  readonly sources: readonly {
    readonly key: StoredContact
    readonly own: SourceRow
    readonly members: readonly SourceRow[]
    readonly how: HowToSurvive
    readonly fills: readonly string[]
  }[]
  readonly e164s: readonly string[]
  readonly facts: ReadonlyMap<string, RegisterFacts>
  readonly verified: ReadonlyMap<string, AddressFacts>
  readonly scopesOf: ContactSources['scopesOf']
}

/** How the rows of each batch become contacts. */
export type KnownBatches = Map<string, BatchSettings>

/** Rows that were projected already, by the ids of their contacts. */
export type KnownRows = ReadonlyMap<number, ProjectedContact>
const NONE: KnownRows = new Map()

/**
 * Reads a page of contacts and tidies their rows.
 * @param turn taken for what is asked of the database: the rows are tidied while others have it
 * @param known learnt of batches so far, and kept up here
 */
export async function loadPage(
  tx: Db,
  turn: Turn,
  ids: readonly number[],
  known: KnownBatches,
  rows: KnownRows = NONE,
): Promise<LoadedPage> {
  const page = await turn(() => readPage(tx, ids, known))
  const projected = await projectPage(page, known, rows)
  const contacts = [...projected.values()].map((one) => one.projected)
  const found = [...page.fills.values()].flat()
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
  return turn(async () => ({
    listIds: page.listIds,
    sources: sourcesOf(ids, page, projected),
    e164s,
    facts: await factsOfNumbers(tx, e164s),
    verified: await factsOfAddresses(tx, addresses),
    scopesOf: await suppressionScopes(tx, () => [...e164s, ...found, ...contacts.flatMap(suppressibleKeysOf)]),
  }))
}

/** What is stored of some contacts. */
interface ReadPage {
  readonly listIds: readonly string[]
  readonly stored: readonly StoredContact[]
  readonly settled: ReadonlyMap<number, Settled>
  readonly members: ReadonlyMap<number, readonly StoredContact[]>
  readonly howOf: SurvivorshipOf
  readonly fills: ReadonlyMap<number, readonly string[]>
}

async function readPage(tx: Db, ids: readonly number[], known: KnownBatches): Promise<ReadPage> {
  const stored = await readStored(tx, ids)
  await learnBatches(tx, [...new Set(stored.map(({ batchId }) => batchId))], known)
  const listIds = [...new Set(stored.map(({ listId }) => listId))]
  const members = groupBy(
    stored.filter((one) => one.joinedInto !== null),
    (one) => one.joinedInto ?? 0,
  )
  const inGroups = stored.filter(({ id, joinedInto }) => joinedInto !== null || members.has(id)).map(({ id }) => id)
  return {
    listIds,
    stored,
    settled: await settledOf(
      tx,
      stored.map(({ id }) => id),
    ),
    members,
    howOf: await survivorshipOf(tx, listIds, inGroups),
    fills: await readFills(tx, ids),
  }
}

/** The rows of a page and of all who are joined to it, tidied, by the ids of their contacts. */
async function projectPage(
  { stored, settled }: ReadPage,
  known: KnownBatches,
  rows: KnownRows,
): Promise<ReadonlyMap<number, SourceRow>> {
  const projected = new Map<number, SourceRow>()
  // Thousands of rows of one person are often one row, written again and again.
  const same = new Map<string, ProjectedContact>()
  for (const [i, one] of stored.entries()) {
    if (i % BREATH === 0) await breathe()
    const how = known.get(one.batchId)
    if (!how) continue
    const own = settled.get(one.id)
    const text = `${one.batchId}\n${one.text}`
    const row = rows.get(one.id) ?? (own ? null : same.get(text)) ?? projectStored(one.text, how, own)
    if (!own) same.set(text, row)
    projected.set(one.id, { id: one.id, projected: row })
  }
  return projected
}

function sourcesOf(
  ids: readonly number[],
  { stored, members, howOf, fills }: ReadPage,
  projected: ReadonlyMap<number, SourceRow>,
): LoadedPage['sources'] {
  const wanted = new Set(ids)
  return stored.flatMap((key) => {
    const own = projected.get(key.id)
    if (!own || !wanted.has(key.id)) return []
    const mine = (members.get(key.id) ?? []).flatMap((member) => projected.get(member.id) ?? [])
    const how = howOf(
      key.listId,
      [own, ...mine].map(({ id }) => id),
    )
    return [{ key, own, members: mine, how, fills: fills.get(key.id) ?? [] }]
  })
}

/** These contacts, each once, in pages. */
export const pagesOf = (ids: readonly number[]): readonly (readonly number[])[] => inPages([...new Set(ids)], PAGE)

/** The row of a contact that gives a part of it, among those it is made of; null where there is no such contact. */
export async function rowThatGives(tx: Db, contactId: number, part: SurvivorPart): Promise<number | null> {
  const { sources } = await loadPage(tx, takingTurns(), [contactId], new Map())
  const [found] = sources
  if (!found) return null
  const rows = partSources([found.own, ...found.members].map(({ id, projected }) => ({ id, ...projected })))
  return sourceOf(part, rows, found.how)?.id ?? null
}

/** The asked contacts and those joined to them, with the row each stands for. */
async function readStored(tx: Db, ids: readonly number[]): Promise<readonly StoredContact[]> {
  return readRows(tx, STORED)`
    select c.id, c.list_id, c.batch_id, c.row, r.text, c.joined_into
    from contacts c join rows r on r.batch_id = c.batch_id and r.row = c.row
    where c.id = any(${sql.param(ids)}::bigint[]) or c.joined_into = any(${sql.param(ids)}::bigint[])
    order by c.id`
}

/** Reads what is not known of these batches yet: nothing of it changes while contacts are projected. */
async function learnBatches(tx: Db, batchIds: readonly string[], known: KnownBatches): Promise<void> {
  const unknown = batchIds.filter((id) => !known.has(id))
  if (unknown.length === 0) return
  const found = await tx.select().from(batches).where(inArray(batches.id, unknown))
  // What is learnt of a number touches every list that holds it, and each has a routine of its own.
  const tidyings = new Map<string, Tidying>()
  for (const { listId } of found) if (!tidyings.has(listId)) tidyings.set(listId, await tidyingOf(tx, listId))
  for (const batch of found) {
    const tidying = tidyings.get(batch.listId)
    if (tidying) known.set(batch.id, settingsOf(batch, tidying))
  }
}

/** What providers found for these contacts, or for whoever is joined to them, each once. */
async function readFills(tx: Db, ids: readonly number[]): Promise<Map<number, string[]>> {
  const rows = await readRows(tx, { id: num, found: listOf(text) })`
    select w.root as id, array_agg(coalesce(e164, address) order by made_at, f.id) as found
    from fills f join ${withJoined(ids)} w on w.id = f.contact_id where undone_at is null group by w.root`
  return new Map(rows.map(({ id, found }) => [id, [...new Set(found)]]))
}
