import type { Filter, FilterField } from '@upper-field/core/split'
import { type SQL, sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { readIds } from '../db/readRows'
import { searchTerms } from '../projection/searchText'
import { BEYOND_CUBE, type Place, pileCondition, rawIn } from './facets'
import { isCounted, nodeCondition } from './nodeConditions'
import { holdsTyped } from './wordPatterns'
import { wordsOf } from './words'

/**
 * What of a filter is in the counts of a list, as SQL conditions: its piles, and trees of them. All values are
 * parameters; a pile that does not exist matches nothing.
 * Contacts that were joined to another are left out unless they are asked for.
 */
export function pileConditions({ piles, rest }: Filter, place: Place): SQL[] {
  const conditions: SQL[] = []
  if (!piles.fell?.some((riser) => riser === 'joined' || riser === 'nothing-readable'))
    conditions.push(rawIn(place, 'not is_joined'))
  for (const [field, values] of Object.entries(piles) as [FilterField, readonly string[]][])
    if (values.length > 0 && !BEYOND_CUBE.has(field)) conditions.push(pileCondition(field, values, place))
  return [...conditions, ...rest.filter(isCounted).map((node) => nodeCondition(node, place))]
}

/** What the counts of the cube cannot tell: who is in other lists too, what titles, texts and columns say. */
export const elsewhereConditions = ({ piles, rest }: Filter): SQL[] => [
  ...(Object.entries(piles) as [FilterField, readonly string[]][]).flatMap(([field, values]) =>
    values.length > 0 && BEYOND_CUBE.has(field) ? [pileCondition(field, values, 'table')] : [],
  ),
  ...rest.filter((node) => !isCounted(node)).map((node) => nodeCondition(node)),
]

/** True where a filter can be counted from the cube alone. */
export const isInCube = (filter: Filter): boolean =>
  filter.words.trim() === '' && elsewhereConditions(filter).length === 0

/**
 * How contacts are found that hold a word: rare ones by the index, common ones by looking at one after the other; or they
 * were found already, and these are their ids.
 */
export type WordsFound = 'by-index' | 'one-by-one' | readonly number[]

/**
 * Free words: each must stand somewhere in name, company, number, e-mail or extra cells. Batches that are not in the
 * index yet are looked through one by one.
 */
export function wordConditions(listId: string, { words }: Filter, how: WordsFound = 'by-index'): SQL[] {
  const terms = searchTerms(words)
  if (terms.length === 0) return []
  if (how === 'one-by-one') return terms.map((term) => holdsTyped('search', term))
  if (how !== 'by-index') return [sql`id = any(${sql.param([...how])}::bigint[])`]
  return [sql`id in (${holdersOfWords(listId, terms)})`]
}

/** So many holders of a word are kept at hand; of more, the database finds those that are wanted anew each time. */
const MOST_AT_HAND = 20_000

/** Contacts that hold the words of a filter, found once for everything that is asked about them; or how else they are found. */
export async function findByWords(db: Db, listId: string, { words }: Filter): Promise<WordsFound> {
  const terms = searchTerms(words)
  if (terms.length === 0) return 'by-index'
  const found = await readIds(db)`
    select contact_id as id from (${holdersOfWords(listId, terms)}) found limit ${MOST_AT_HAND + 1}`
  return found.length > MOST_AT_HAND ? 'by-index' : found
}

function holdersOfWords(listId: string, terms: readonly string[]): SQL {
  const all = (column: 'words' | 'search') =>
    sql.join(
      terms.map((term) => holdsTyped(column, term)),
      sql` and `,
    )
  return sql`
    select contact_id from ${wordsOf(listId)} where ${all('words')}
    union all
    select id from contacts where batch_id in (select id from batches where list_id = ${listId} and not is_indexed) and ${all('search')}`
}

/** Whom a filter means among the contacts of whatever list, words looked for one by one. */
export function chosenByFilter(filter: Filter): SQL {
  const words = searchTerms(filter.words).map((term) => holdsTyped('search', term))
  const piles = Object.entries(filter.piles).map(([field, values]) =>
    pileCondition(field as FilterField, values, 'table'),
  )
  return sql.join([sql`true`, ...piles, ...filter.rest.map((node) => nodeCondition(node)), ...words], sql` and `)
}
