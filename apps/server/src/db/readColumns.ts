import { type SQL, sql } from 'drizzle-orm'
import type { Db } from './database'
import { num, text } from './readRows'

/** Stands between values; no text of a list holds it, or nearly none: see `readColumns`. */
const SEPARATOR = '\u001e'

/**
 * Reads many lines of few columns, a list of texts for each column: line by line it takes several times as long.
 * What is null is an empty text.
 * @param columns expressions of ours by which `from` is read
 * @param from everything behind `select`, with its order
 */
export async function readColumns(
  db: Db,
  columns: readonly string[],
  from: SQL,
): Promise<readonly (readonly string[])[]> {
  const named = columns.map((column, at) => `coalesce((${column})::text, '') as c${at}`)
  const lines = sql`(select ${sql.raw(named.join(', '))} ${from}) lines`
  const together = columns.map((_, at) => `string_agg(c${at}, chr(30)) as c${at}`)
  const { rows } = await db.execute(sql`select count(*) as n, ${sql.raw(together.join(', '))} from ${lines}`)
  const [row] = rows
  const n = num(row?.n ?? 0)
  if (n === 0) return columns.map(() => [])
  const read = columns.map((_, at) => text(row?.[`c${at}`] ?? '').split(SEPARATOR))
  return read.every((values) => values.length === n) ? read : readOneByOne(db, columns, lines)
}

/** A value holds the separator itself. */
async function readOneByOne(db: Db, columns: readonly string[], lines: SQL): Promise<readonly (readonly string[])[]> {
  const { rows } = await db.execute(sql`select * from ${lines}`)
  return columns.map((_, at) => rows.map((row) => text(row[`c${at}`])))
}
