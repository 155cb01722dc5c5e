import type { PairItem, PairPage, PairSide } from '@upper-field/contract'
import { sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { CURSOR, readCursor } from '../http/cursor'

const PAGE = 20

interface PairRow extends Record<string, unknown> {
  readonly id: string
  readonly a_id: string
  readonly b_id: string
  readonly score: number
  readonly key: PairItem['key']
  readonly evidence: PairItem['evidence']
  readonly against: number
  readonly alike: string
}

/** Pairs left to a person, likeliest first, by key set: a score and an id are where the page before ended. */
export async function pageOfPairs(db: Db, listId: string, cursor: string | undefined): Promise<PairPage> {
  const [score = 1e9, id = 0] = readCursor(cursor, [CURSOR.number, CURSOR.id]) ?? []
  const { rows } = await db.execute<PairRow>(sql`
    select p.*, (select count(*) from pairs o where o.list_id = p.list_id and o.pattern = p.pattern and o.decision_id is null) as alike
    from pairs p where p.list_id = ${listId} and p.decision_id is null
      and (p.score < ${score}::real or (p.score = ${score}::real and p.id > ${id}))
    order by p.score desc, p.id limit ${PAGE + 1}`)
  const shown = rows.slice(0, PAGE)
  const others = await othersOf(
    db,
    shown.map((row) => Number(row.id)),
  )
  const sides = await sidesOf(
    db,
    shown.flatMap((row) => [Number(row.a_id), Number(row.b_id), ...(others.get(Number(row.id)) ?? [])]),
  )
  const last = shown.at(-1)
  const { rows: counted } = await db.execute<{ n: string }>(
    sql`select count(*) as n from pairs where list_id = ${listId} and decision_id is null`,
  )
  return {
    pairs: shown.flatMap((row) => itemOf(row, sides, others.get(Number(row.id)) ?? []) ?? []),
    next: rows.length > PAGE && last ? `${last.score}/${last.id}` : null,
    total: Number(counted[0]?.n ?? 0),
  }
}

function itemOf(row: PairRow, sides: ReadonlyMap<number, PairSide>, others: readonly number[]): PairItem | null {
  const [a, b] = [sides.get(Number(row.a_id)), sides.get(Number(row.b_id))]
  if (!a || !b) return null
  const { score, key, evidence, against } = row
  return {
    id: Number(row.id),
    score,
    key,
    evidence,
    against,
    sides: [a, b],
    others: others.flatMap((id) => sides.get(id) ?? []),
    alike: Number(row.alike),
  }
}

/** So many more contacts are shown beside two. */
const MOST_OTHERS = 3

/** Contacts that wait to be decided with one of a pair as well, likeliest first. */
async function othersOf(db: Db, pairIds: readonly number[]): Promise<Map<number, number[]>> {
  const { rows } = await db.execute<{ pair: string; other: string }>(sql`
    select p.id as pair, o.other from pairs p cross join lateral (
      select other, max(score) as score from (
        select case when q.a_id in (p.a_id, p.b_id) then q.b_id else q.a_id end as other, q.score
        from pairs q where q.list_id = p.list_id and q.decision_id is null and q.id <> p.id
          and (q.a_id in (p.a_id, p.b_id) or q.b_id in (p.a_id, p.b_id))) near
      group by other order by max(score) desc, other limit ${MOST_OTHERS}) o
    where p.id = any(${sql.param(pairIds)}::bigint[]) order by p.id, o.score desc, o.other`)
  const found = new Map<number, number[]>()
  for (const { pair, other } of rows) found.set(Number(pair), [...(found.get(Number(pair)) ?? []), Number(other)])
  return found
}

async function sidesOf(db: Db, ids: readonly number[]): Promise<Map<number, PairSide>> {
  const { rows } = await db.execute<Record<string, string> & { numbers: PairSide['numbers']; emails: string[] }>(sql`
    select c.*, b.name as batch,
      coalesce((select json_agg(json_build_object('e164', n.e164, 'lineType', n.line_type) order by n.position)
        from contact_numbers n where n.contact_id = c.id and n.is_valid), '[]') as numbers,
      coalesce((select json_agg(e.address order by e.position) from contact_emails e where e.contact_id = c.id), '[]') as emails
    from contacts c join batches b on b.id = c.batch_id where c.id = any(${sql.param(ids)}::bigint[])`)
  return new Map(rows.map((row) => [Number(row.id), sideOf(row)]))
}

const sideOf = (row: Record<string, string> & { numbers: PairSide['numbers']; emails: string[] }): PairSide => ({
  contactId: Number(row.id),
  batch: row.batch ?? '',
  row: Number(row.row),
  fullName: row.full_name ?? '',
  title: row.title ?? '',
  company: row.company ?? '',
  domain: row.domain ?? '',
  city: row.city ?? '',
  postalCode: row.postal_code ?? '',
  street: row.street ?? '',
  birthDate: row.birth_date ?? '',
  country: row.country ?? '',
  profile: row.profile ?? '',
  numbers: row.numbers,
  emails: row.emails,
})
