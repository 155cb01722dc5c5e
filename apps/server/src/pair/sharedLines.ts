import type { SharedLine, SharedLines } from '@upper-field/contract'
import { kindOfSharedLine } from '@upper-field/core/pair'
import type { LineType } from '@upper-field/core/phone'
import { sql } from 'drizzle-orm'
import type { z } from 'zod'
import { isShown } from '../contacts/shown'
import type { Db } from '../db/database'
import { groupBy } from '../db/groupBy'
import { num, type RowOf, readRows, text, word } from '../db/readRows'
import { CURSOR, readCursor } from '../http/cursor'

const PAGE = 50
/** So many holders are named; the rest is counted. */
const MOST_NAMED = 8

/** So many of those with most holders are kept at once: to count who holds a number takes a second in a million contacts. */
const FIRST = 5000

const LINE = { e164: text, lineType: word<LineType>, holders: num, total: num }
type Line = RowOf<typeof LINE>

/** Numbers that several people of a list hold, those with most holders first. */
export const firstLines = (db: Db, listId: string): Promise<readonly Line[]> => linesBehind(db, listId, START, FIRST)

/** Behind which line a page begins, by holders and number. */
interface Place {
  readonly holders: number
  readonly e164: string
}
const START: Place = { holders: 1e9, e164: '' }

const isBehind = (line: Line, { holders, e164 }: Place): boolean =>
  line.holders < holders || (line.holders === holders && line.e164 > e164)

/**
 * A page of numbers that several people of a list hold, by key set: holders and number of the last one.
 * @param first see `firstLines`
 */
export async function sharedLines(
  db: Db,
  listId: string,
  cursor: string | undefined,
  first: () => Promise<readonly Line[]>,
): Promise<SharedLines> {
  const [holders = START.holders, e164 = START.e164] =
    readCursor<z.ZodType<number | string>>(cursor, [CURSOR.id, CURSOR.e164]) ?? []
  const place = { holders: Number(holders), e164: String(e164) }
  const known = await first()
  const behind = known.filter((line) => isBehind(line, place))
  const isWhole = behind.length > PAGE || known.length === (known[0]?.total ?? 0)
  const found = isWhole ? behind.slice(0, PAGE + 1) : await linesBehind(db, listId, place, PAGE + 1)
  const shown = found.slice(0, PAGE)
  const last = shown.at(-1)
  const whoOf = await holdersOf(
    db,
    listId,
    shown.map((line) => line.e164),
  )
  return {
    lines: shown.map((row) => describeLine(row, whoOf.get(row.e164) ?? [])),
    next: found.length > PAGE && last ? `${last.holders}/${last.e164}` : null,
    total: found[0]?.total ?? 0,
  }
}

const linesBehind = (db: Db, listId: string, { holders, e164 }: Place, limit: number): Promise<readonly Line[]> =>
  readRows(db, LINE)`
    with holding as (
      -- Each holder once: to count them apart within a line would read all of a list in the order of its numbers.
      select n.e164, c.id, min(n.line_type) as line_type
      from contact_numbers n join contacts c on c.id = n.contact_id and c.joined_into is null and ${isShown('c')}
      where n.list_id = ${listId} and n.is_valid group by n.e164, c.id),
    lines as (
      select e164, min(line_type) as line_type, count(*) as holders from holding group by e164 having count(*) > 1)
    select *, (select count(*) from lines) as total from lines
    where holders < ${holders} or (holders = ${holders} and e164 > ${e164})
    order by holders desc, e164 limit ${limit}`

const HOLDER = { e164: text, contactId: num, fullName: text, familyName: text, company: text, domain: text }
type Holder = RowOf<typeof HOLDER>

const describeLine = ({ e164, lineType, holders }: Line, who: readonly Holder[]): SharedLine => ({
  e164,
  lineType,
  kind: kindOfSharedLine(lineType, who),
  holders,
  who: who.slice(0, MOST_NAMED).map(({ contactId, fullName, company }) => ({ contactId, fullName, company })),
})

async function holdersOf(db: Db, listId: string, e164s: readonly string[]): Promise<Map<string, Holder[]>> {
  const holders = await readRows(db, HOLDER)`
    select distinct on (n.e164, c.id) n.e164, c.id as contact_id, c.full_name, c.family_name, c.company, c.domain
    from contact_numbers n join contacts c on c.id = n.contact_id and c.joined_into is null and ${isShown('c')}
    where n.list_id = ${listId} and n.is_valid and n.e164 = any(${sql.param(e164s)}::text[]) order by n.e164, c.id`
  return groupBy(holders, ({ e164 }) => e164)
}
