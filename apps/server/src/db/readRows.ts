import { sql } from 'drizzle-orm'
import type { z } from 'zod'
import type { Db } from './database'

/** Reads a value as the database sends it; throws where it is of another kind. */
export type Reads<T> = (value: unknown) => T

/** How each column of an answer is read, by its name in our letters: `listId` is read of `list_id`. */
type Shape = Readonly<Record<string, Reads<unknown>>>

export type RowOf<S extends Shape> = { readonly [K in keyof S]: ReturnType<S[K]> }

/** A query, written behind the function that reads its answer. */
type Asks<T> = (strings: TemplateStringsArray, ...values: unknown[]) => Promise<T>

/**
 * Asks a query whose columns Drizzle does not know: readRows(db, { id: num, listId: text })`select id, list_id from …`.
 * What its rows are is told by how they are read, and checked as they are.
 */
export const readRows =
  <S extends Shape>(db: Db, shape: S): Asks<RowOf<S>[]> =>
  async (strings, ...values) => {
    const { rows, fields } = await db.execute(sql(strings, ...values))
    const columns = Object.entries(shape).map(([name, read]) => ({ name, column: inSql(name), read }))
    refuseTwice(
      columns.map(({ column }) => column),
      fields.map(({ name }) => name),
    )
    return rows.map((row) => {
      const read: Record<string, unknown> = {}
      for (const one of columns) read[one.name] = one.read(row[one.column])
      return read as RowOf<S>
    })
  }

/** The first row of an answer, where there is any. */
export const readRow =
  <S extends Shape>(db: Db, shape: S): Asks<RowOf<S> | undefined> =>
  async (strings, ...values) =>
    (await readRows(db, shape)(strings, ...values))[0]

/** Ids that a query tells as `id`. */
export const readIds =
  (db: Db): Asks<number[]> =>
  async (strings, ...values) =>
    (await readRows(db, { id: num })(strings, ...values)).map(({ id }) => id)

/** A number that a query tells as `n`; 0 where it tells no row. */
export const readCount =
  (db: Db): Asks<number> =>
  async (strings, ...values) =>
    (await readRow(db, { n: num })(strings, ...values))?.n ?? 0

/** Of two columns with one name the driver keeps the last, whichever was meant. */
function refuseTwice(asked: readonly string[], answered: readonly string[]): void {
  const twice = asked.find((name) => answered.indexOf(name) !== answered.lastIndexOf(name))
  if (twice !== undefined) throw new Error(`the query tells two columns as ${twice}`)
}

const inSql = (name: string): string => name.replace(/[A-Z]/g, (letter) => `_${letter.toLowerCase()}`)

/** Numbers of any width: what may be larger than an integer comes as text. */
export function num(value: unknown): number {
  const read = typeof value === 'string' && value !== '' ? Number(value) : value
  return typeof read === 'number' && Number.isFinite(read) ? read : refuse('a number', value)
}

export const text = (value: unknown): string => (typeof value === 'string' ? value : refuse('a text', value))

export const bool = (value: unknown): boolean => (typeof value === 'boolean' ? value : refuse('true or false', value))

/** A moment: it comes as text where Drizzle asks. */
export function when(value: unknown): Date {
  const read = value instanceof Date ? value : new Date(text(value))
  return Number.isNaN(read.getTime()) ? refuse('a moment', value) : read
}

export const orNull =
  <T>(read: Reads<T>): Reads<T | null> =>
  (value) =>
    value === null ? null : read(value)

/** A sum of nothing is null. */
export const orZero = (value: unknown): number => (value === null ? 0 : num(value))

export const listOf =
  <T>(read: Reads<T>): Reads<T[]> =>
  (value) =>
    Array.isArray(value) ? value.map(read) : refuse('a list', value)

/** A word that we alone write: not held against any list, since what was once stored may be known no longer. */
export const word = <T extends string>(value: unknown): T => text(value) as T

/** One of our own words, and no other. */
export const oneOf =
  <const T extends string>(words: readonly T[]): Reads<T> =>
  (value) =>
    words.find((word) => word === value) ?? refuse(`one of ${words.join(', ')}`, value)

/** JSON that we alone write, as it was made. */
export const kept = <T>(value: unknown): T => value as T

/** What a schema of ours describes, as JSON holds it. */
export const as =
  <T>(schema: z.ZodType<T>): Reads<T> =>
  (value) =>
    schema.parse(value)

/** No value is told: it may be somebody's. */
function refuse(wanted: string, value: unknown): never {
  throw new Error(`the database sent ${value === null ? 'null' : typeof value} in place of ${wanted}`)
}
