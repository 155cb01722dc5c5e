import { type Filter, type FilterNode, parseFilter } from '@upper-field/core/split'
import type { Db } from '../db/database'
import { Problem } from '../http/problem'
import { searchTerms } from '../projection/searchText'
import { columnsOf } from './columnsOf'
import { FELL, IS } from './facets'

/** More words than this nobody types; each one costs a look through the whole list. */
const MOST_WORDS = 12
/** Values of one field; a list has no more countries, batches or lanes that somebody would choose one by one. */
const MOST_VALUES = 200
/** More conditions nobody can follow. */
const MOST_CONDITIONS = 40

/** A typed filter. Throws a problem where it asks for what does not exist, or for more than is answered. */
export function readFilter(text: string): Filter {
  const { filter } = parseFilter(text, 'any')
  if (sizeOf(filter.rest) > MOST_CONDITIONS)
    throw new Problem(422, 'too-many-conditions', `At most ${MOST_CONDITIONS} conditions can be put together.`)
  if (searchTerms(filter.words).length > MOST_WORDS)
    throw new Problem(422, 'too-many-words', `At most ${MOST_WORDS} words are searched for at once.`)
  for (const [field, values] of Object.entries(filter.piles))
    if (values.length > MOST_VALUES)
      throw new Problem(422, 'too-many-values', `At most ${MOST_VALUES} values of “${field}” can be chosen at once.`)
  const terms = [...Object.entries(filter.piles).map(([field, values]) => ({ field, values })), ...termsOf(filter.rest)]
  for (const { field, values } of terms) mustBeKnown(field, values)
  return filter
}

/** A filter that decides who is sent or kept: one that cannot be read throughout would choose others than was meant. */
export async function readWholeFilter(db: Db, listId: string, text: string): Promise<Filter> {
  const keys = text === '' ? [] : (await columnsOf(db, listId)).map(({ key }) => key)
  const [issue] = parseFilter(text, new Set(keys)).issues
  if (issue)
    throw new Problem(
      422,
      'filter-unread',
      `The filter cannot be read at “${issue.word.slice(0, 60)}”${issue.nearest ? `; did you mean “${issue.nearest}”?` : '.'} Nothing was done.`,
    )
  return readFilter(text)
}

/** Every comparison of the parts beyond facets. */
const termsOf = (nodes: readonly FilterNode[]): readonly { field: string; values: readonly string[] }[] =>
  nodes.flatMap((node) => {
    if (node.kind === 'and' || node.kind === 'or') return termsOf(node.of)
    if (node.kind === 'not') return termsOf([node.of])
    return node.kind === 'term' ? [node] : []
  })

/** How many conditions and words stand in the parts beyond facets. */
const sizeOf = (nodes: readonly FilterNode[]): number =>
  nodes.reduce((sum, node) => {
    if (node.kind === 'and' || node.kind === 'or') return sum + sizeOf(node.of)
    if (node.kind === 'not') return sum + sizeOf([node.of])
    return sum + (node.kind === 'words' ? searchTerms(node.text).length : 1)
  }, 0)

const KNOWN: Readonly<Record<string, ReadonlyMap<string, string>>> = { fell: FELL, is: IS }

function mustBeKnown(field: string, values: readonly string[]): void {
  const known = KNOWN[field]
  const unknown = known && values.find((value) => !known.has(value))
  if (known && unknown !== undefined)
    throw new Problem(
      422,
      'unknown-value',
      `There is no “${field}:${unknown.slice(0, 60)}”. It can be ${[...known.keys()].join(', ')}.`,
    )
}
