import { columnKey } from '@upper-field/core/table'
import { ADDED_BY } from '@upper-field/core/tidy'
import { eq } from 'drizzle-orm'
import type { Db } from '../db/database'
import { readRows, text } from '../db/readRows'
import { batches } from '../db/schema'
import { type BatchSettings, settingsOf } from '../projection/rowCells'
import { tidyingOf } from '../projection/tidying'

/** A column that became no field, as it is filtered by. */
export interface OwnColumn {
  readonly key: string
  readonly heading: string
}

/** The columns of a list that became no field: of its files, and those that its routine has made for somebody. */
export async function columnsOf(db: Db, listId: string): Promise<readonly OwnColumn[]> {
  const found = new Map<string, OwnColumn>()
  for (const heading of await extraHeadings(db, listId, await readySettings(db, listId))) {
    const key = columnKey(heading)
    if (key !== '' && !found.has(key)) found.set(key, { key, heading })
  }
  return [...found.values()]
}

/** How the rows of each batch of a list that was brought in become contacts, the first batch first. */
export async function readySettings(db: Db, listId: string): Promise<ReadonlyMap<string, BatchSettings>> {
  const all = await db.select().from(batches).where(eq(batches.listId, listId)).orderBy(batches.createdAt)
  const tidying = await tidyingOf(db, listId)
  return new Map(all.filter(({ state }) => state === 'ready').map((batch) => [batch.id, settingsOf(batch, tidying)]))
}

/** Headings of the columns that became no field, each once. */
export async function extraHeadings(
  db: Db,
  listId: string,
  settings: ReadonlyMap<string, BatchSettings>,
): Promise<readonly string[]> {
  const made = await codesOf(db, listId)
  return [...new Set([...settings.values()].flatMap(({ tidier }) => tidier.extraNames))].filter(
    (name) => ADDED_BY[name] === undefined || made.has(ADDED_BY[name]),
  )
}

/** Repairs that were made anywhere in the list. */
async function codesOf(db: Db, listId: string): Promise<ReadonlySet<string>> {
  const found = await readRows(db, { code: text })`
    select code from tidy_counts where list_id = ${listId} group by code having sum(contacts) > 0`
  return new Set(found.map(({ code }) => code))
}
