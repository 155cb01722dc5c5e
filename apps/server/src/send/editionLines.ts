import { type AudienceShape, headingsOf } from '@upper-field/core/send'
import { csvLine } from '@upper-field/core/table'
import { sql } from 'drizzle-orm'
import type { PoolClient } from 'pg'
import { copyInto } from '../db/copy'
import type { Db } from '../db/database'
import { readColumns } from '../db/readColumns'
import { listOf, readRow, readRows, text } from '../db/readRows'

/** A line of an edition of an audience. */
export interface EditionLine {
  /** SHA-256 of its cells, as lower-case hex: whoever has the same line is in the audience once. */
  readonly key: string
  readonly contactId: number | null
  readonly cells: readonly string[]
}

/** Stores lines, none of them twice. @returns those that the edition had not yet */
export async function storeLines<T extends EditionLine>(
  tx: Db,
  client: PoolClient,
  editionId: string,
  lines: readonly T[],
): Promise<readonly T[]> {
  await tx.execute(
    sql`create temp table if not exists new_lines (key bytea, contact_id bigint, cells text[]) on commit delete rows`,
  )
  await tx.execute(sql`truncate new_lines`)
  await copyInto(
    client,
    'new_lines',
    ['key', 'contact_id', 'cells'],
    lines.map(({ key, contactId, cells }) => [`\\x${key}`, contactId, cells]),
  )
  const stored = await readRow(tx, { keys: text })`
    with made as (
      insert into edition_lines (edition_id, key, contact_id, cells)
      select ${editionId}, key, contact_id, cells from new_lines order by key
      on conflict do nothing returning key)
    select coalesce(string_agg(encode(key, 'hex'), ' '), '') as keys from made`
  const made = new Set(stored?.keys.split(' '))
  return lines.filter(({ key }) => made.has(key))
}

const PAGE = 5000

/** Stands between the cells of a line; no cell holds it, or nearly none. */
const BETWEEN = '\u001f'

/** An edition as a file, a page of lines at a time, in the order of their keys. */
export async function* linesOf(
  db: Db,
  editionId: string,
  shape: Pick<AudienceShape, 'columns'>,
): AsyncGenerator<string> {
  const headings = headingsOf(shape)
  yield csvLine(headings)
  for (let after = ''; ; ) {
    const from = sql`from edition_lines where edition_id = ${editionId} and key > decode(${after}, 'hex') order by key limit ${PAGE}`
    const [keys = [], texts = []] = await readColumns(
      db,
      ["encode(key, 'hex')", `array_to_string(cells, '${BETWEEN}')`],
      from,
    )
    if (keys.length === 0) return
    const lines = texts.map((text) => text.split(BETWEEN))
    const isWhole = lines.every((cells) => cells.length === headings.length)
    yield (isWhole ? lines : await readCells(db, from)).map((cells) => csvLine(cells)).join('')
    after = keys.at(-1) ?? ''
  }
}

/** A cell holds the character that stands between cells. */
async function readCells(db: Db, from: ReturnType<typeof sql>): Promise<readonly (readonly string[])[]> {
  const lines = await readRows(db, { cells: listOf(text) })`select cells ${from}`
  return lines.map(({ cells }) => cells)
}
