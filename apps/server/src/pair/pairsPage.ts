import { type PairItem, type PairPage, PairSide } from '@upper-field/contract'
import { and, eq, isNull, sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { as, kept, num, type RowOf, readRows, text, word } from '../db/readRows'
import { pairs } from '../db/schema'
import { CURSOR, readCursor } from '../http/cursor'

const PAGE = 20

const PAIR = {
  id: num,
  aId: num,
  bId: num,
  score: num,
  key: word<PairItem['key']>,
  evidence: kept<PairItem['evidence']>,
  against: num,
  alike: num,
}
type PairRow = RowOf<typeof PAIR>

/** Pairs left to a person, likeliest first, by key set: a score and an id are where the page before ended. */
export async function pageOfPairs(db: Db, listId: string, cursor: string | undefined): Promise<PairPage> {
  const [score = 1e9, id = 0] = readCursor(cursor, [CURSOR.number, CURSOR.id]) ?? []
  const found = await readRows(db, PAIR)`
    select p.*, (select count(*) from pairs o where o.list_id = p.list_id and o.pattern = p.pattern and o.decision_id is null) as alike
    from pairs p where p.list_id = ${listId} and p.decision_id is null
      and (p.score < ${score}::real or (p.score = ${score}::real and p.id > ${id}))
    order by p.score desc, p.id limit ${PAGE + 1}`
  const shown = found.slice(0, PAGE)
  const others = await othersOf(
    db,
    shown.map(({ id }) => id),
  )
  const sides = await sidesOf(
    db,
    shown.flatMap(({ id, aId, bId }) => [aId, bId, ...(others.get(id) ?? [])]),
  )
  const last = shown.at(-1)
  return {
    pairs: shown.flatMap((row) => itemOf(row, sides, others.get(row.id) ?? []) ?? []),
    next: found.length > PAGE && last ? `${last.score}/${last.id}` : null,
    total: await db.$count(pairs, and(eq(pairs.listId, listId), isNull(pairs.decisionId))),
  }
}

function itemOf(row: PairRow, sides: ReadonlyMap<number, PairSide>, others: readonly number[]): PairItem | null {
  const { aId, bId, evidence, ...rest } = row
  const [a, b] = [sides.get(aId), sides.get(bId)]
  if (!a || !b) return null
  return { ...rest, evidence, sides: [a, b], others: others.flatMap((id) => sides.get(id) ?? []) }
}

/** So many more contacts are shown beside two. */
const MOST_OTHERS = 3

/** Contacts that wait to be decided with one of a pair as well, likeliest first. */
async function othersOf(db: Db, pairIds: readonly number[]): Promise<Map<number, number[]>> {
  const near = await readRows(db, { pair: num, other: num })`
    select p.id as pair, o.other from pairs p cross join lateral (
      select other, max(score) as score from (
        select case when q.a_id in (p.a_id, p.b_id) then q.b_id else q.a_id end as other, q.score
        from pairs q where q.list_id = p.list_id and q.decision_id is null and q.id <> p.id
          and (q.a_id in (p.a_id, p.b_id) or q.b_id in (p.a_id, p.b_id))) near
      group by other order by max(score) desc, other limit ${MOST_OTHERS}) o
    where p.id = any(${sql.param(pairIds)}::bigint[]) order by p.id, o.score desc, o.other`
  const found = new Map<number, number[]>()
  for (const { pair, other } of near) found.set(pair, [...(found.get(pair) ?? []), other])
  return found
}

const SIDE = {
  contactId: num,
  batch: text,
  row: num,
  fullName: text,
  title: text,
  company: text,
  domain: text,
  city: text,
  postalCode: text,
  street: text,
  birthDate: text,
  country: text,
  profile: text,
  numbers: as(PairSide.shape.numbers),
  emails: as(PairSide.shape.emails),
}

async function sidesOf(db: Db, ids: readonly number[]): Promise<Map<number, PairSide>> {
  const sides = await readRows(db, SIDE)`
    select c.*, c.id as contact_id, b.name as batch,
      coalesce((select json_agg(json_build_object('e164', n.e164, 'lineType', n.line_type) order by n.position)
        from contact_numbers n where n.contact_id = c.id and n.is_valid), '[]') as numbers,
      coalesce((select json_agg(e.address order by e.position) from contact_emails e where e.contact_id = c.id), '[]') as emails
    from contacts c join batches b on b.id = c.batch_id where c.id = any(${sql.param(ids)}::bigint[])`
  return new Map(sides.map((side) => [side.contactId, side]))
}
