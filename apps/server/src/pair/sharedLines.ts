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

const LINE = { e164: text, lineType: word<LineType>, holders: num, total: num }

/** Numbers that several people of a list hold, most holders first, by key set: holders and number of the last one. */
export async function sharedLines(db: Db, listId: string, cursor: string | undefined): Promise<SharedLines> {
  const [holders = 1e9, after = ''] = readCursor<z.ZodType<number | string>>(cursor, [CURSOR.id, CURSOR.e164]) ?? []
  const found = await readRows(db, LINE)`
    with lines as (
      select n.e164, min(n.line_type) as line_type, count(distinct c.id) as holders
      from contact_numbers n join contacts c on c.id = n.contact_id and c.joined_into is null and ${isShown('c')}
      where n.list_id = ${listId} and n.is_valid group by n.e164 having count(distinct c.id) > 1)
    select *, (select count(*) from lines) as total from lines
    where holders < ${holders} or (holders = ${holders} and e164 > ${after})
    order by holders desc, e164 limit ${PAGE + 1}`
  const shown = found.slice(0, PAGE)
  const last = shown.at(-1)
  const whoOf = await holdersOf(
    db,
    listId,
    shown.map(({ e164 }) => e164),
  )
  return {
    lines: shown.map((row) => describeLine(row, whoOf.get(row.e164) ?? [])),
    next: found.length > PAGE && last ? `${last.holders}/${last.e164}` : null,
    total: found[0]?.total ?? 0,
  }
}

const HOLDER = { e164: text, contactId: num, fullName: text, familyName: text, company: text, domain: text }
type Holder = RowOf<typeof HOLDER>

const describeLine = (
  { e164, lineType, holders }: Omit<RowOf<typeof LINE>, 'total'>,
  who: readonly Holder[],
): SharedLine => ({
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
