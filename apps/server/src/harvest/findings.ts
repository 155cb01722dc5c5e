import type { HarvestSite, SiteFinding } from '@upper-field/contract'
import { type FoundHow, TAKEN_FROM } from '@upper-field/core/harvest'
import { type SQL, sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { listOf, num, orNull, readRows, text, word } from '../db/readRows'

const FOUND = {
  site: text,
  kind: word<'number' | 'email'>,
  value: text,
  confidence: num,
  how: listOf(word<FoundHow>),
  raw: text,
  quote: text,
  pages: listOf(text),
  decision: orNull(word<'taken' | 'dropped'>),
  corrected: orNull(text),
  decidedBy: orNull(text),
}

export interface FoundAt extends SiteFinding {
  readonly site: string
}

/** Values of a harvest, each once at its site with all its pages, and what was decided of them. */
export async function findingsOf(db: Db, harvestId: string, site: string | null): Promise<readonly FoundAt[]> {
  const found = await readRows(db, FOUND)`
    select f.site, f.kind, f.value, max(f.confidence) as confidence, array_agg(distinct f.how) as how,
      (array_agg(f.raw order by f.confidence desc, f.page_id))[1] as raw,
      (array_agg(f.quote order by f.confidence desc, f.page_id))[1] as quote,
      array_agg(distinct coalesce(p.final_url, p.url)) as pages,
      max(d.decision) as decision, max(d.corrected) as corrected, max(d.by) as decided_by
    from harvest_findings f join harvest_pages p on p.id = f.page_id
      left join harvest_decisions d on d.harvest_id = f.harvest_id and d.site = f.site and d.kind = f.kind and d.value = f.value
    where f.harvest_id = ${harvestId} ${site === null ? sql`` : sql`and f.site = ${site}`}
    group by f.site, f.kind, f.value
    order by f.site, f.kind desc, min(f.page_id * 10000 + f.position)`
  return found.map(({ decision, ...one }) => ({
    ...one,
    state: decision ?? (one.confidence >= TAKEN_FROM ? 'taken' : 'look'),
  }))
}

const IS_TAKEN: SQL = sql`(coalesce(d.decision, case when f.confidence >= ${TAKEN_FROM} then 'taken' else 'look' end) = 'taken')`

const SITE = {
  site: text,
  state: word<HarvestSite['state']>,
  problem: orNull(text),
  delay: num,
  country: orNull(text),
  pages: num,
  read: num,
  waiting: num,
  interrupted: num,
  numbers: num,
  emails: num,
  toLookAt: num,
}

/** The sites of a harvest with how far each is read and what was found there, in the order in which they were given. */
export async function sitesOfHarvest(db: Db, harvestId: string): Promise<HarvestSite[]> {
  return readRows(db, SITE)`
    select s.site, s.state, coalesce(s.problem, case when p.read = 0 and p.waiting = 0 then p.problem end) as problem, s.delay, s.country,
      coalesce(p.pages, 0) as pages, coalesce(p.read, 0) as read, coalesce(p.waiting, 0) as waiting,
      coalesce(p.interrupted, 0) as interrupted,
      coalesce(f.numbers, 0) as numbers, coalesce(f.emails, 0) as emails, coalesce(f.to_look_at, 0) as to_look_at
    from harvest_sites s
    left join (
      select site, count(*)::int as pages, count(*) filter (where state = 'read')::int as read,
        count(*) filter (where state in ('waiting', 'reading'))::int as waiting,
        count(*) filter (where problem = 'interrupted')::int as interrupted,
        (array_agg(problem order by rank, id) filter (where problem is not null))[1] as problem
      from harvest_pages where harvest_id = ${harvestId} group by site) p on p.site = s.site
    left join (
      select f.site, count(distinct f.value) filter (where f.kind = 'number' and ${IS_TAKEN})::int as numbers,
        count(distinct f.value) filter (where f.kind = 'email' and ${IS_TAKEN})::int as emails,
        (count(distinct (f.kind, f.value)) filter (where d.decision is null)
          - count(distinct (f.kind, f.value)) filter (where d.decision is null and f.confidence >= ${TAKEN_FROM}))::int as to_look_at
      from harvest_findings f left join harvest_decisions d
        on d.harvest_id = f.harvest_id and d.site = f.site and d.kind = f.kind and d.value = f.value
      where f.harvest_id = ${harvestId} group by f.site) f on f.site = s.site
    where s.harvest_id = ${harvestId} order by s.position`
}
