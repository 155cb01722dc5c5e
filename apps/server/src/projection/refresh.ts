import type { RegisterFacts } from '@upper-field/core/check'
import { type HowToSurvive, partSources, type SurvivorPart, sourceOf, suppressibleKeysOf } from '@upper-field/core/pair'
import { inArray, sql } from 'drizzle-orm'
import type { PoolClient } from 'pg'
import { copyInto } from '../db/copy'
import type { Db } from '../db/database'
import { groupBy } from '../db/groupBy'
import { batches } from '../db/schema'
import { suppressionTest } from '../suppression/matches'
import { CONTACT_COLUMNS, type ContactLines, linesOf } from './columns'
import { copyContacts, copyNumbersAndEmails } from './copyLines'
import { factsOfNumbers } from './facts'
import { type BatchSettings, projectStored, settingsOf } from './rowCells'
import { survivorshipOf } from './survivorship'
import { settledOf, type Tidying, tidyingOf } from './tidying'
import { type ContactSources, type SourceRow, viewOf } from './viewOf'

const PAGE = 1000
/** Pages kept between the two passes; those of a longer run are projected twice, so that memory stays bounded. */
const KEPT = 10

interface StoredContact {
  readonly id: number
  readonly listId: string
  readonly batchId: string
  readonly row: number
  readonly text: string
  readonly joinedInto: number | null
}

/**
 * Projects contacts anew from their rows, joins, fills and line facts, and writes what they have become.
 * Contacts that are joined to another are projected from their own row alone. All numbers are written before any
 * lane is decided, since a line counts as shared by who holds it afterwards.
 */
export async function refreshContacts(tx: Db, client: PoolClient, ids: readonly number[]): Promise<void> {
  const pages = pagesOf(ids)
  const kept: LoadedPage[] = []
  for await (const loaded of loadedPages(tx, pages)) {
    if (kept.length < KEPT) kept.push(loaded)
    await writeNumbers(client, linesWith(loaded, new Set()))
  }
  const place = async (one: LoadedPage) => writeContacts(client, linesWith(one, await sharedNumbers(tx, one)))
  for (const one of kept) await place(one)
  for await (const one of loadedPages(tx, pages.slice(kept.length))) await place(one)
}

/** Pages one after another; while one is worked on and written, the next is read. */
async function* loadedPages(tx: Db, pages: readonly (readonly number[])[]): AsyncGenerator<LoadedPage> {
  const load = (at: number): Promise<LoadedPage> | null => {
    const page = pages[at]
    const loading = page ? loadPage(tx, page) : null
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

/**
 * Projects contacts anew to which others were just joined. Their numbers were in the list before, so who shares a
 * line is known from the joins alone, and each page is read and written once.
 */
export async function refreshSurvivors(tx: Db, client: PoolClient, ids: readonly number[]): Promise<void> {
  for await (const lines of placedPages(tx, ids)) {
    await writeNumbers(client, lines)
    await writeContacts(client, lines)
  }
}

/** Projects contacts anew whose numbers and e-mails are what they were. */
export async function refreshValues(tx: Db, client: PoolClient, ids: readonly number[]): Promise<void> {
  for await (const lines of placedPages(tx, ids)) await writeContacts(client, lines)
}

/** Decides anew where contacts belong whose own numbers are what they were, but are shared now, or no longer. */
export async function replaceContacts(tx: Db, client: PoolClient, ids: readonly number[]): Promise<void> {
  for await (const lines of placedPages(tx, ids)) await writePlacements(client, lines)
}

/** Contacts projected anew page by page, their lanes decided by who holds their numbers now. */
async function* placedPages(tx: Db, ids: readonly number[]): AsyncGenerator<readonly ContactLines[]> {
  for await (const loaded of loadedPages(tx, pagesOf(ids))) yield linesWith(loaded, await sharedNumbers(tx, loaded))
}

function pagesOf(ids: readonly number[]): readonly (readonly number[])[] {
  const all = [...new Set(ids)]
  return Array.from({ length: Math.ceil(all.length / PAGE) }, (_, i) => all.slice(i * PAGE, (i + 1) * PAGE))
}

interface LoadedPage {
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
  readonly isSuppressed: ContactSources['isSuppressed']
}

async function loadPage(tx: Db, ids: readonly number[]): Promise<LoadedPage> {
  const stored = await readStored(tx, ids)
  const settings = await readSettings(tx, [...new Set(stored.map(({ batchId }) => batchId))])
  const settled = await settledOf(
    tx,
    stored.map(({ id }) => id),
  )
  const projected = new Map<number, SourceRow>()
  for (const one of stored) {
    const how = settings.get(one.batchId)
    if (how) projected.set(one.id, { id: one.id, projected: projectStored(one.text, how, settled.get(one.id)) })
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
  for (const found of fills.values()) for (const e164 of found) e164s.add(e164)
  return {
    listIds: [...new Set(stored.map(({ listId }) => listId))],
    sources,
    e164s: [...e164s],
    facts: await factsOfNumbers(tx, [...e164s]),
    isSuppressed: await suppressionTest(tx, () => [...e164s, ...contacts.flatMap(suppressibleKeysOf)]),
  }
}

function linesWith({ sources, facts, isSuppressed }: LoadedPage, shared: ReadonlySet<string>): ContactLines[] {
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
        isShared: (e164) => shared.has(lineIn(key.listId, e164)),
        isSuppressed,
      }),
      members.length,
    )
  })
}

/** The row of a contact that gives a part of it, among those it is made of; null where there is no such contact. */
export async function rowThatGives(tx: Db, contactId: number, part: SurvivorPart): Promise<number | null> {
  const { sources } = await loadPage(tx, [contactId])
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

async function readSettings(tx: Db, batchIds: readonly string[]): Promise<Map<string, BatchSettings>> {
  if (batchIds.length === 0) return new Map()
  const found = await tx
    .select()
    .from(batches)
    .where(inArray(batches.id, [...batchIds]))
  // What is learnt of a number touches every list that holds it, and each has a routine of its own.
  const tidyings = new Map<string, Tidying>()
  for (const { listId } of found) if (!tidyings.has(listId)) tidyings.set(listId, await tidyingOf(tx, listId))
  return new Map(
    found.flatMap((batch) => {
      const tidying = tidyings.get(batch.listId)
      return tidying ? [[batch.id, settingsOf(batch, tidying)] as const] : []
    }),
  )
}

async function readFills(tx: Db, ids: readonly number[]): Promise<Map<number, string[]>> {
  const { rows } = await tx.execute<{ contact_id: string; e164s: string[] }>(sql`
    select contact_id, array_agg(e164 order by made_at, id) as e164s from fills
    where contact_id = any(${sql.param(ids)}::bigint[]) and undone_at is null group by contact_id`)
  return new Map(rows.map((row) => [Number(row.contact_id), row.e164s]))
}

/** A number as one list knows it. */
const lineIn = (listId: string, e164: string): string => `${listId} ${e164}`

/** Numbers that more than one contact of a list holds, joined ones counted as the one they are joined to. */
async function sharedNumbers(tx: Db, { listIds, e164s }: LoadedPage): Promise<Set<string>> {
  if (e164s.length === 0) return new Set()
  const { rows } = await tx.execute<{ list_id: string; e164: string }>(sql`
    select n.list_id, n.e164 from contact_numbers n join contacts c on c.id = n.contact_id
    where n.list_id = any(${sql.param(listIds)}::uuid[]) and n.e164 = any(${sql.param(e164s)}::text[])
      and exists (select 1 from batches b where b.id = c.batch_id and b.state <> 'taken-back')
    group by n.list_id, n.e164 having count(distinct coalesce(c.joined_into, c.id)) > 1`)
  return new Set(rows.map((row) => lineIn(row.list_id, row.e164)))
}

async function writeNumbers(client: PoolClient, lines: readonly ContactLines[]): Promise<void> {
  const ids = lines.map(({ contact }) => contact[0])
  await client.query('delete from contact_numbers where contact_id = any($1::bigint[])', [ids])
  await client.query('delete from contact_emails where contact_id = any($1::bigint[])', [ids])
  await copyNumbersAndEmails(client, lines)
}

async function writeContacts(client: PoolClient, lines: readonly ContactLines[]): Promise<void> {
  await client.query(
    'create temp table if not exists refreshed (like contacts including defaults) on commit delete rows',
  )
  await client.query('delete from refreshed')
  await copyContacts(client, 'refreshed', lines)
  const sets = CONTACT_COLUMNS.filter((column) => column !== 'id').map((column) => `${column} = r.${column}`)
  // The planner knows nothing of a table just filled: told the ids, it does not read the large one whole.
  const ids = lines.map(({ contact }) => contact[0])
  await client.query(
    `update contacts c set ${sets.join(', ')} from refreshed r where c.id = r.id and c.id = any($1::bigint[])`,
    [ids],
  )
  await client.query(
    `update contact_words w set words = r.search from refreshed r
     where w.contact_id = r.id and w.words <> r.search and w.contact_id = any($1::bigint[])`,
    [ids],
  )
}

/** What depends on who else holds a number. */
const PLACEMENT = ['id', 'is_shared', 'lane', 'lane_reason'] as const

async function writePlacements(client: PoolClient, lines: readonly ContactLines[]): Promise<void> {
  await client.query(
    'create temp table if not exists replaced (id bigint, is_shared boolean, lane text, lane_reason text) on commit delete rows',
  )
  await client.query('delete from replaced')
  const places = PLACEMENT.map((column) => CONTACT_COLUMNS.indexOf(column))
  await copyInto(
    client,
    'replaced',
    PLACEMENT,
    lines.map(({ contact }) => places.map((at) => contact[at] ?? null)),
  )
  await client.query(
    `update contacts c set is_shared = r.is_shared, lane = r.lane, lane_reason = r.lane_reason from replaced r
    where c.id = r.id and c.id = any($1::bigint[]) and (c.is_shared, c.lane, c.lane_reason) is distinct from (r.is_shared, r.lane, r.lane_reason)`,
    [lines.map(({ contact }) => contact[0])],
  )
}
