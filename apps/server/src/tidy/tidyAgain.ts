import { cellsOfRow } from '@upper-field/core/table'
import { type Compared, compareTidiers, type ProjectedContact, type Settled } from '@upper-field/core/tidy'
import { eq, inArray, sql } from 'drizzle-orm'
import type { PoolClient } from 'pg'
import { indexAnew } from '../contacts/indexAnew'
import type { Db } from '../db/database'
import { batches } from '../db/schema'
import { joinAgain } from '../pair/joinAgain'
import { countContacts } from '../projection/cube'
import { reproject } from '../projection/reproject'
import { type BatchRow, type BatchSettings, settingsOf } from '../projection/rowCells'
import { settledOf, type Tidying, tidyingOf } from '../projection/tidying'
import { writeWords } from '../projection/writePages'
import { storeChange, type TidyChange } from './acts'

const PAGE = 2000
/** From so many contacts on it is quicker to index the whole list anew. */
const MANY = 5000

export interface TidyProgress {
  /** Told after each page; throws to give the whole change up. */
  readonly onPage?: (done: number) => Promise<void>
}

/**
 * Makes a change and projects what it touches, in one transaction that has the list for itself: a list shows the old state or the new one, never
 * a mixture, whatever happens on the way.
 * @returns the act, and how many contacts came out otherwise
 */
export async function makeChange(
  tx: Db,
  client: PoolClient,
  listId: string,
  change: TidyChange,
  madeBy: string,
  { onPage = async () => {} }: TidyProgress = {},
): Promise<{ readonly actId: string; readonly contacts: number }> {
  const before = await tidyingOf(tx, listId)
  // Edits name their contacts: how the batches were read is not asked for then.
  const isOfSome = change.kind === 'edit' || change.kind === 'bulk-edit' || change.kind === 'mend-alike'
  const readBefore = isOfSome ? [] : await tx.select().from(batches).where(eq(batches.listId, listId))
  const { actId, touched } = await storeChange(tx, listId, change, madeBy)
  const keys: number[] = []
  const values: number[] = []
  let contacts = 0
  if (touched === 'whatever-differs') {
    const how = { before, readBefore, after: await tidyingOf(tx, listId) }
    for await (const page of differing(tx, listId, how)) {
      keys.push(...page.keys)
      contacts += page.keys.length + page.values.size
      const ids = await withSurvivors(tx, [...page.values.keys()])
      values.push(...ids)
      await reproject(tx, client, { contacts: ids, because: 'values', known: page.values }, { isOutOfIndex: true })
      await onPage(page.done)
    }
  } else {
    keys.push(...touched)
    contacts = touched.length
  }
  const isOutOfIndex = contacts > MANY
  if (isOutOfIndex) await indexAnew(tx, listId)
  else await writeWords(client, values)
  if (keys.length > 0) await joinAgain(tx, client, listId, keys, { isOutOfIndex })
  if (contacts > 0) await countContacts(tx, listId)
  return { actId, contacts }
}

/** Contacts of a page that come out otherwise. */
interface Differing {
  /** In what tells who they are. */
  readonly keys: readonly number[]
  /** In other values only, as they are now. */
  readonly values: ReadonlyMap<number, ProjectedContact>
  /** How many were looked at so far. */
  readonly done: number
}

/** How a list was tidied and its batches were read, and how it is tidied now. */
interface Change {
  readonly before: Tidying
  readonly readBefore: readonly BatchRow[]
  readonly after: Tidying
}

/** Contacts that come out otherwise than before, batches that were taken back included; page by page. */
async function* differing(tx: Db, listId: string, change: Change): AsyncGenerator<Differing> {
  const comparers = new Map<string, Compare>()
  for (let last = 0, done = 0; ; ) {
    const rows = await pageOf(tx, listId, last)
    if (rows.length === 0) return
    await learn(tx, rows, comparers, change)
    const settled = await settledOf(
      tx,
      rows.map(({ id }) => id),
    )
    const keys: number[] = []
    const values = new Map<number, ProjectedContact>()
    for (const { id, batchId, text } of rows) {
      const compared = comparers.get(batchId)?.(text, settled.get(id))
      if (compared?.difference === 'keys') keys.push(id)
      else if (compared?.difference === 'values') values.set(id, compared.now)
    }
    done += rows.length
    last = rows.at(-1)?.id ?? last
    yield { keys, values, done }
  }
}

interface StoredText {
  readonly id: number
  readonly batchId: string
  readonly text: string
}

async function pageOf(tx: Db, listId: string, after: number): Promise<readonly StoredText[]> {
  const { rows } = await tx.execute<{ id: string; batch_id: string; text: string }>(sql`
    select c.id, c.batch_id, r.text from contacts c join rows r on r.batch_id = c.batch_id and r.row = c.row
    where c.list_id = ${listId} and c.id > ${after} order by c.id limit ${PAGE}`)
  return rows.map((row) => ({ id: Number(row.id), batchId: row.batch_id, text: row.text }))
}

type Compare = (text: string, settled: Settled | undefined) => Compared

/** Makes the comparisons of batches that are met for the first time. */
async function learn(
  tx: Db,
  rows: readonly StoredText[],
  comparers: Map<string, Compare>,
  { before, readBefore, after }: Change,
): Promise<void> {
  const unknown = [...new Set(rows.map(({ batchId }) => batchId))].filter((id) => !comparers.has(id))
  if (unknown.length === 0) return
  const found: BatchRow[] = await tx.select().from(batches).where(inArray(batches.id, unknown))
  for (const batch of found) {
    const was = readBefore.find(({ id }) => id === batch.id)
    if (was) comparers.set(batch.id, comparerOf(settingsOf(was, before), settingsOf(batch, after)))
  }
}

function comparerOf(was: BatchSettings, is: BatchSettings): Compare {
  const compare = compareTidiers(was.tidier, is.tidier)
  return (text, settled) => compare(cellsOfRow(text, is.layout).cells, settled)
}

/** These contacts and those they are joined to, whose values come from them too. */
async function withSurvivors(tx: Db, ids: readonly number[]): Promise<number[]> {
  const { rows } = await tx.execute<{ id: string }>(sql`
    select distinct joined_into as id from contacts where id = any(${sql.param(ids)}::bigint[]) and joined_into is not null`)
  return [...new Set([...ids, ...rows.map(({ id }) => Number(id))])]
}
