import type { ContactLine, ContactPage, ContactSort } from '@upper-field/contract'
import { type Filter, SCOPES, type Scope } from '@upper-field/core/split'
import { type SQL, sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { bool, listOf, num, orNull, type RowOf, readCount, readIds, readRows, text, word } from '../db/readRows'
import { CURSOR, readCursor } from '../http/cursor'
import {
  elsewhereConditions,
  findByWords,
  isInCube,
  pileConditions,
  type WordsFound,
  wordConditions,
} from './conditions'
import { IS_CALLED_NOW } from './facets'
import { readFilter } from './readFilter'
import { isShown } from './shown'

/** Counting of a free search stops here; more are told as `1,000+`. */
const CAP = 1000

/** Everything a filter chooses in a list, as one condition on the table. */
export function chosenContacts(listId: string, filter: Filter, how?: WordsFound): SQL {
  return sql.join(
    [
      sql`list_id = ${listId}`,
      isShown(),
      ...pileConditions(filter, 'table'),
      ...elsewhereConditions(filter),
      ...wordConditions(listId, filter, how),
    ],
    sql` and `,
  )
}

/** So many contacts are looked at one after the other before a word is looked up in the index: a common word is found by then. */
const LOOKED_AT = 30_000

export interface PageInput {
  readonly listId: string
  readonly filter: string
  readonly cursor: string | undefined
  readonly limit: number
  readonly sort?: ContactSort
}

/** Who may be called now, who later, and who not at all: the less, the sooner. */
const CALL_RANK = sql`case when call_from = '' then 2 when ${IS_CALLED_NOW} then 0 else 1 end`

/** One page of contacts by key: as quick at the end of a list as at its start. */
export async function pageOfContacts(
  db: Db,
  { listId, filter: typed, cursor, limit, sort = 'row' }: PageInput,
): Promise<ContactPage> {
  const filter = readFilter(typed)
  const [rank, after] = readCursor(cursor, [CURSOR.number, CURSOR.id]) ?? [0, 0]
  const order = sort === 'call' ? CALL_RANK : sql`0`
  const read = async (from: SQL, how: WordsFound): Promise<readonly RankedLine[]> =>
    readRows(db, { ...LINE, rank: num })`
      select *, ${order} as rank from ${from}
      where ${chosenContacts(listId, filter, how)} and ${onlyIn(batches)} and ${sort === 'call' ? sql`(${order}, id) > (${rank}, ${after})` : sql`id > ${after}`}
      order by ${sort === 'call' ? sql`${order}, id` : sql`id`} limit ${limit + 1}`
  let found: Promise<WordsFound> | null = null
  const byIndex = () => {
    found ??= findByWords(db, listId, filter)
    return found
  }
  const first = filter.words.trim() === '' ? [] : await firstByLooking(db, listId, filter)
  const { total, isCapped, batches } = await countChosen(db, listId, filter, first, byIndex)
  if (total === 0) return { contacts: [], next: null, total, isCapped }
  const rows = await readByWords()
  const page = rows.slice(0, limit)
  const last = page.at(-1)
  const next = rows.length > limit && last ? `${last.rank}/${last.id}` : null
  return { contacts: page.map(({ rank: _, ...line }) => asLine(line)), next, total, isCapped }

  async function readByWords(): Promise<readonly RankedLine[]> {
    if (first.length > 0 && sort === 'row') {
      const behind = first.filter((id) => id > Number(after)).slice(0, limit + 1)
      if (behind.length > limit) return read(sql`contacts`, behind)
      const near = Number(after) === 0 ? [] : await read(nextOf(listId, Number(after)), 'one-by-one')
      if (near.length > limit) return near
    }
    return read(sql`contacts`, await byIndex())
  }
}

/** The first contacts of a list that a filter with words means, found by looking at one after the other. */
async function firstByLooking(db: Db, listId: string, filter: Filter): Promise<readonly number[]> {
  return readIds(db)`
    select id from ${nextOf(listId, 0)} where ${chosenContacts(listId, filter, 'one-by-one')} order by id limit ${CAP + 1}`
}

/** Contacts as they are shown, in the order of their ids. */
export async function contactLines(db: Db, ids: readonly number[]): Promise<ContactLine[]> {
  const lines = await readRows(db, LINE)`
    select * from contacts where id = any(${sql.param([...ids])}::bigint[]) order by id`
  return lines.map(asLine)
}

/** The contacts of a list next behind one, as a table to look through. */
const nextOf = (listId: string, after: number): SQL =>
  sql`(select * from contacts where list_id = ${listId} and id > ${after} order by id limit ${LOOKED_AT}) contacts`

/** Fewer contacts than these are looked for in the batches they came with alone. */
const FEW = 2000

interface Chosen {
  readonly total: number
  readonly isCapped: boolean
  /** The batches that hold all of them, where they are few and the counts tell; null for any. */
  readonly batches: readonly string[] | null
}

const onlyIn = (batches: Chosen['batches']): SQL =>
  batches === null ? sql`true` : sql`batch_id = any(${sql.param([...batches])}::uuid[])`

/**
 * @param first those met by looking
 * @param byIndex how those are found that hold its words, where they are too rare to be met so
 */
async function countChosen(
  db: Db,
  listId: string,
  filter: Filter,
  first: readonly number[],
  byIndex: () => Promise<WordsFound>,
): Promise<Chosen> {
  if (isInCube(filter)) {
    const conditions = sql.join([sql`list_id = ${listId}`, ...pileConditions(filter, 'cube')], sql` and `)
    const counted = await readRows(db, { batchId: text, n: num })`
      select batch_id, sum(contacts) as n from contact_cube where ${conditions} group by 1 having sum(contacts) > 0`
    const total = counted.reduce((sum, { n }) => sum + n, 0)
    return { total, isCapped: false, batches: total < FEW ? counted.map(({ batchId }) => batchId) : null }
  }
  if (first.length > CAP) return { total: CAP, isCapped: true, batches: null }
  const found = await readCount(db)`
    select count(*) as n from (select 1 from contacts where ${chosenContacts(listId, filter, await byIndex())} limit ${CAP + 1}) found`
  return { total: Math.min(found, CAP), isCapped: found > CAP, batches: null }
}

/** What is shown of a contact, as it is stored. */
const LINE = {
  id: num,
  batchId: text,
  row: num,
  fullName: text,
  company: text,
  title: text,
  city: text,
  country: text,
  number: orNull(text),
  rawNumber: text,
  lineType: word<ContactLine['lineType']>,
  lineStatus: word<ContactLine['lineStatus']>,
  knownFrom: word<ContactLine['knownFrom']>,
  email: orNull(text),
  emailKind: word<ContactLine['emailKind']>,
  emailState: word<ContactLine['emailState']>,
  sureness: word<ContactLine['sureness']>,
  verdict: word<ContactLine['verdict']>,
  changes: listOf(word<ContactLine['changes'][number]>),
  lane: word<ContactLine['lane']>,
  laneReason: word<ContactLine['laneReason']>,
  suppressedFor: text,
  joined: num,
  joinedInto: orNull(num),
  isShared: bool,
}
type StoredLine = RowOf<typeof LINE>
type RankedLine = StoredLine & { readonly rank: number }

const asLine = ({ suppressedFor, ...line }: StoredLine): ContactLine => ({
  ...line,
  suppressedFor: scopesIn(suppressedFor),
})

/** The scopes that stand in a text, apart by a space. */
export const scopesIn = (text: string): Scope[] => SCOPES.filter((scope) => text.split(' ').includes(scope))
