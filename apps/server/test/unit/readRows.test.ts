import { describe, expect, it } from '@jest/globals'
import { z } from 'zod'
import type { Db } from '../../src/db/database'
import {
  as,
  bool,
  listOf,
  num,
  oneOf,
  orNull,
  orZero,
  readCount,
  readIds,
  readRow,
  readRows,
  text,
  when,
} from '../../src/db/readRows'

/** A database that answers all with the same rows. */
const answering = (...rows: readonly Record<string, unknown>[]): Db => withColumns(Object.keys(rows[0] ?? {}), rows)

const withColumns = (names: readonly string[], rows: readonly Record<string, unknown>[]): Db =>
  ({ execute: async () => ({ rows, fields: names.map((name) => ({ name })) }) }) as never

describe('rows of a query', () => {
  it('are told by the names of their columns in our letters, and nothing else of them', async () => {
    const db = answering({ id: '9007199254740991', list_id: 'a', joined_into: null, more: 'x' })
    const [row] = await readRows(db, { id: num, listId: text, joinedInto: orNull(num) })`select …`
    expect(row).toEqual({ id: 9007199254740991, listId: 'a', joinedInto: null })
  })

  it('are one, ids, or a number', async () => {
    expect(await readRow(answering({ n: 1 }, { n: 2 }), { n: num })`select …`).toEqual({ n: 1 })
    expect(await readRow(answering(), { n: num })`select …`).toBeUndefined()
    expect(await readIds(answering({ id: '3' }, { id: 4 }))`select …`).toEqual([3, 4])
    expect([await readCount(answering({ n: '12' }))`select …`, await readCount(answering())`select …`]).toEqual([12, 0])
  })

  it('of another kind than was expected are refused, and no value is told', async () => {
    const reading = readRows(answering({ mail: 'maren@causeway.example' }), { mail: num })`select …`
    await expect(reading).rejects.toThrow(/^the database sent string in place of a number$/)
    await expect(readRows(answering({}), { name: text })`select …`).rejects.toThrow(/undefined in place of a text/)
  })
})

it('does not guess which of two columns with one name is meant', async () => {
  const db = withColumns(['id', 'id', 'row', 'row'], [{ id: 1, row: 2 }])
  await expect(readRows(db, { id: num })`select …`).rejects.toThrow('the query tells two columns as id')
  const other = withColumns(['id', 'row', 'row'], [{ id: 1, row: 2 }])
  expect(await readRows(other, { id: num })`select …`).toEqual([{ id: 1 }])
})

describe('a value', () => {
  it.each([
    ['a number that comes as text', num, '12.5', 12.5],
    ['a sum of nothing', orZero, null, 0],
    ['a truth', bool, false, false],
    ['a list', listOf(num), ['1', 2], [1, 2]],
    ['nothing', orNull(text), null, null],
    ['a word of ours', oneOf(['text', 'call']), 'call', 'call'],
    ['a moment', when, '2026-11-30 06:07:28+00', new Date('2026-11-30T06:07:28Z')],
    ['what a schema describes', as(z.array(z.object({ a: z.number() }))), [{ a: 1 }], [{ a: 1 }]],
  ] as const)('is %s', (_, read, sent, is) => expect(read(sent)).toEqual(is))

  it.each([
    ['no number', num, 'x'],
    ['an empty number', num, ''],
    ['nothing where a text is', text, null],
    ['a text where a truth is', bool, 'true'],
    ['no list', listOf(text), 'a'],
    ['no word of ours', oneOf(['text', 'call']), 'post'],
    ['no moment', when, 'soon'],
    ['another thing than its schema', as(z.number()), '1'],
  ] as const)('that is %s is refused', (_, read, sent) => expect(() => read(sent)).toThrow())
})
