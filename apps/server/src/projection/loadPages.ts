import type { AddressFacts, RegisterFacts } from '@upper-field/core/check'
import { type HowToSurvive, partSources, type SurvivorPart, sourceOf, suppressibleKeysOf } from '@upper-field/core/pair'
import type { ProjectedContact } from '@upper-field/core/tidy'
import { inArray, sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { groupBy } from '../db/groupBy'
import { batches } from '../db/schema'
import { suppressionScopes } from '../suppression/matches'
import { factsOfAddresses, factsOfNumbers } from './facts'
import { type BatchSettings, projectStored, settingsOf } from './rowCells'
import { survivorshipOf } from './survivorship'
import { settledOf, type Tidying, tidyingOf } from './tidying'
import type { ContactSources, SourceRow } from './viewOf'

const PAGE = 1000

interface StoredContact {
  readonly id: number
  readonly listId: string
  readonly batchId: string
  readonly row: number
  readonly text: string
  readonly joinedInto: number | null
}

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
type KnownBatches = Map<string, BatchSettings>

/** Rows that were projected already, by the ids of their contacts. */
type KnownRows = ReadonlyMap<number, ProjectedContact>
const NONE: KnownRows = new Map()

async function loadPage(
  tx: Db,
  ids: readonly number[],
  known: KnownBatches,
  rows: KnownRows = NONE,
): Promise<LoadedPage> {
  const stored = await readStored(tx, ids)
  await learnBatches(tx, [...new Set(stored.map(({ batchId }) => batchId))], known)
  const settled = await settledOf(
    tx,
    stored.map(({ id }) => id),
  )
  const projected = new Map<number, SourceRow>()
  // Thousands of rows of one person are often one row, written again and again.
  const same = new Map<string, ProjectedContact>()
  for (const one of stored) {
    const how = known.get(one.batchId)
    if (!how) continue
    const own = settled.get(one.id)
    const text = `${one.batchId}\n${one.text}`
    const row = rows.get(one.id) ?? (own ? null : same.get(text)) ?? projectStored(one.text, how, own)
    if (!own) same.set(text, row)
    projected.set(one.id, { id: one.id, projected: row })
  }
  const members = groupBy(
    stored.filter((one) => one.joinedInto !== null),
    (one) => one.joinedInto ?? 0,
  )
  const howOf = await survivorshipOf(
    tx,
    [...new Set(stored.map(({ listId }) => listId))],
    stored.filter(({ id, joinedInto }) => joinedInto !== null || members.has(id)).map(({ id }) => id),
  )
  const fills = await readFills(tx, ids)
  const wanted = new Set(ids)
  const sources = stored.flatMap((key) => {
    const own = projected.get(key.id)
    if (!own || !wanted.has(key.id)) return []
    const mine = (members.get(key.id) ?? []).flatMap((member) => projected.get(member.id) ?? [])
    const how = howOf(
      key.listId,
      [own, ...mine].map(({ id }) => id),
    )
    return [{ key, own, members: mine, how, fills: fills.get(key.id) ?? [] }]
  })
  const contacts = [...projected.values()].map((one) => one.projected)
  const e164s = new Set(contacts.flatMap((one) => one.numbers.map(({ e164 }) => e164)))
  const found = [...fills.values()].flat()
  for (const value of found) if (!value.includes('@')) e164s.add(value)
  return {
    listIds: [...new Set(stored.map(({ listId }) => listId))],
    sources,
    e164s: [...e164s],
    facts: await factsOfNumbers(tx, [...e164s]),
    verified: await factsOfAddresses(tx, [
      ...new Set([
        ...contacts.flatMap(({ emails }) => emails.map(({ address }) => address)),
        ...found.filter((value) => value.includes('@')),
      ]),
    ]),
    scopesOf: await suppressionScopes(tx, () => [...e164s, ...found, ...contacts.flatMap(suppressibleKeysOf)]),
  }
}

/** Pages one after another; while one is worked on and written, the next is read. */
export async function* loadedPages(
  tx: Db,
  pages: readonly (readonly number[])[],
  rows?: KnownRows,
): AsyncGenerator<LoadedPage> {
  const known: KnownBatches = new Map()
  const load = (at: number): Promise<LoadedPage> | null => {
    const page = pages[at]
    const loading = page ? loadPage(tx, page, known, rows) : null
    // Where the work in between fails, nobody waits for what was read ahead.
    loading?.catch(() => {})
    return loading
  }
  let next = load(0)
  for (let at = 1; next; at++) {
    const loaded = await next
    next = load(at)
    yield loaded
  }
}

/** These contacts, each once, in pages. */
export function pagesOf(ids: readonly number[]): readonly (readonly number[])[] {
  const all = [...new Set(ids)]
  return Array.from({ length: Math.ceil(all.length / PAGE) }, (_, i) => all.slice(i * PAGE, (i + 1) * PAGE))
}

/** The row of a contact that gives a part of it, among those it is made of; null where there is no such contact. */
export async function rowThatGives(tx: Db, contactId: number, part: SurvivorPart): Promise<number | null> {
  const { sources } = await loadPage(tx, [contactId], new Map())
  const [found] = sources
  if (!found) return null
  const rows = partSources([found.own, ...found.members].map(({ id, projected }) => ({ id, ...projected })))
  return sourceOf(part, rows, found.how)?.id ?? null
}

/** The asked contacts and those joined to them, with the row each stands for. */
async function readStored(tx: Db, ids: readonly number[]): Promise<StoredContact[]> {
  const { rows } = await tx.execute<{
    id: string
    list_id: string
    batch_id: string
    row: number
    text: string
    joined_into: string | null
  }>(sql`
    select c.id, c.list_id, c.batch_id, c.row, r.text, c.joined_into
    from contacts c join rows r on r.batch_id = c.batch_id and r.row = c.row
    where c.id = any(${sql.param(ids)}::bigint[]) or c.joined_into = any(${sql.param(ids)}::bigint[])
    order by c.id`)
  return rows.map((row) => ({
    id: Number(row.id),
    listId: row.list_id,
    batchId: row.batch_id,
    row: row.row,
    text: row.text,
    joinedInto: row.joined_into === null ? null : Number(row.joined_into),
  }))
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

async function readFills(tx: Db, ids: readonly number[]): Promise<Map<number, string[]>> {
  const { rows } = await tx.execute<{ contact_id: string; found: string[] }>(sql`
    select contact_id, array_agg(coalesce(e164, address) order by made_at, id) as found from fills
    where contact_id = any(${sql.param(ids)}::bigint[]) and undone_at is null group by contact_id`)
  return new Map(rows.map((row) => [Number(row.contact_id), row.found]))
}
