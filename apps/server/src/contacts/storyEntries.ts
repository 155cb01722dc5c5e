import type { StoryFact } from '@upper-field/contract'
import type { StoryEntry } from '@upper-field/core/story'
import { and, isNull, type SQL, sql } from 'drizzle-orm'
import { z } from 'zod'
import type { Db } from '../db/database'
import { as, bool, num, orNull, type RowOf, readCount, readRows, text, when, word } from '../db/readRows'
import { calls, companyFacts } from '../db/schema'
import { memberIs } from '../db/spans'
import { withJoined } from '../pair/standsFor'

type Entries = Promise<StoryEntry<StoryFact>[]>
type Kind<K extends StoryFact['kind']> = Extract<StoryFact, { kind: K }>

const JOIN = {
  id: num,
  otherRow: num,
  otherBatch: text,
  otherName: text,
  by: word<Kind<'joined'>['by']>,
  key: text,
  isSurvivor: bool,
  madeAt: when,
  undoneAt: orNull(when),
}

/** A contact can be made of a million rows: so many joins are told one by one, the latest; of those before only how many. */
const MOST_JOINS = 100

/** Joins of this contact, also those that were undone. */
export async function joinEntries(db: Db, contactId: number): Entries {
  const isOfContact = sql`(j.survivor_id = ${contactId} or j.member_id = ${contactId})`
  const latest = await readRows(db, JOIN)`
    select j.*, j.key_kind as by, o.row as other_row, o.full_name as other_name, b.name as other_batch, j.survivor_id = ${contactId} as is_survivor
    from joins j
    join contacts o on o.id = case when j.survivor_id = ${contactId} then j.member_id else j.survivor_id end
    join batches b on b.id = o.batch_id
    where ${isOfContact} order by j.id desc limit ${MOST_JOINS}`
  const joins = latest.toReversed()
  const [first] = joins
  if (joins.length < MOST_JOINS || !first) return joins.flatMap(entriesOfJoin)
  const before = await readCount(db)`select count(*) as n from joins j where ${isOfContact} and j.id < ${first.id}`
  const more: StoryEntry<StoryFact> = { at: first.madeAt.toISOString(), what: { kind: 'joined-more', rows: before } }
  return [...(before > 0 ? [more] : []), ...joins.flatMap(entriesOfJoin)]
}

function entriesOfJoin({
  id,
  madeAt,
  undoneAt,
  otherRow,
  otherBatch,
  ...join
}: RowOf<typeof JOIN>): StoryEntry<StoryFact>[] {
  const other = { otherRow, otherBatch }
  const joined: Kind<'joined'> = {
    kind: 'joined',
    joinId: undoneAt === null ? id : 0,
    ...other,
    ...join,
  }
  const apart: Kind<'taken-apart'> = { kind: 'taken-apart', ...other }
  const entries: StoryEntry<StoryFact>[] = [{ at: madeAt.toISOString(), what: joined }]
  return undoneAt === null ? entries : [...entries, { at: undoneAt.toISOString(), what: apart }]
}

/** Answers about some numbers or addresses, asked by any list, oldest first; with the cost where this list paid. */
const answersIn = (checks: SQL, isAbout: SQL, listId: string): SQL => sql`
  select c.*, case when j.list_id = ${listId} then coalesce(c.cost, 0) else 0 end as our_cost
  from ${checks} c join jobs j on j.id = c.job_id
  where ${isAbout} and c.answered_at is not null order by c.answered_at`

/** An answer that told nothing. */
const orUnknown = <T extends string>(value: unknown): T => word<T>(value ?? 'unknown')

const ANSWER = { answeredAt: when, ourCost: num }
const areE164s = (e164s: readonly string[]): SQL => sql`c.e164 = any(${sql.param([...e164s])}::text[])`

/** What the register has answered about this contact's numbers, asked by any list; the cost where this list paid. */
export async function checkEntries(db: Db, e164s: readonly string[], listId: string): Entries {
  const told = {
    e164: text,
    lineType: orUnknown<Kind<'checked'>['lineType']>,
    status: orUnknown<Kind<'checked'>['status']>,
    carrier: orNull(text),
  }
  const answers = await readRows(db, { ...ANSWER, ...told })`${answersIn(sql`line_checks`, areE164s(e164s), listId)}`
  return answers.map(({ answeredAt, ourCost, ...answer }) => ({
    at: answeredAt.toISOString(),
    what: { kind: 'checked', ...answer, cost: ourCost },
  }))
}

/** What do-not-call registers have answered about this contact's numbers, asked by any list. */
export async function registerEntries(db: Db, e164s: readonly string[], listId: string): Entries {
  const told = { e164: text, isListed: orNull(bool), register: orNull(text) }
  const asked = answersIn(sql`do_not_call_checks`, areE164s(e164s), listId)
  const answers = await readRows(db, { ...ANSWER, ...told })`${asked}`
  return answers.map(({ answeredAt, ourCost, ...answer }) => ({
    at: answeredAt.toISOString(),
    what: { kind: 'asked-register', ...answer, cost: ourCost },
  }))
}

/** What the verifier has answered about this contact's addresses, asked by any list; the cost where this list paid. */
export async function verifiedEntries(db: Db, addresses: readonly string[], listId: string): Entries {
  const told = { address: text, deliverability: orUnknown<Kind<'verified'>['deliverability']> }
  const areThese = sql`c.address = any(${sql.param([...addresses])}::text[])`
  const answers = await readRows(db, { ...ANSWER, ...told })`${answersIn(sql`address_checks`, areThese, listId)}`
  return answers.map(({ answeredAt, ourCost, ...answer }) => ({
    at: answeredAt.toISOString(),
    what: { kind: 'verified', ...answer, cost: ourCost },
  }))
}

const CANDIDATES = z.array(z.object({ value: z.string().nullable(), outcome: z.string() }))
const ATTEMPT = { at: when, provider: text, state: text, cost: num, candidates: orNull(as(CANDIDATES)) }

/** Which providers were asked about the contact or whoever is joined to it, what they gave, and what it cost. */
export async function attemptEntries(db: Db, contactId: number): Entries {
  const attempts = await readRows(db, ATTEMPT)`
    select a.provider, a.state, coalesce(a.answered_at, a.asked_at) as at, coalesce((select sum(amount) from charges c where c.job_id = a.job_id and c.provider = a.provider and c.contact_id = a.contact_id), 0) as cost,
      (select json_agg(json_build_object('value', coalesce(d.e164, d.address), 'outcome', d.outcome) order by d.position) from candidates d where d.attempt_id = a.id) as candidates
    from attempts a join ${withJoined([contactId])} w on w.id = a.contact_id order by a.asked_at`
  return attempts.map(({ at, candidates, ...attempt }) => ({
    at: at.toISOString(),
    what: { kind: 'asked', ...attempt, candidates: candidates ?? [] },
  }))
}

const FILL = { fillId: text, provider: text, value: text, foundAs: word<Kind<'filled'>['foundAs']>, madeAt: when }

export async function fillEntries(db: Db, contactId: number): Entries {
  const fills = await readRows(db, FILL)`
    select f.id as fill_id, f.provider, coalesce(f.e164, f.address) as value, f.found_as, f.made_at
    from fills f join ${withJoined([contactId])} w on w.id = f.contact_id where undone_at is null order by made_at`
  return fills.map(({ madeAt, ...fill }) => ({ at: madeAt.toISOString(), what: { kind: 'filled', ...fill } }))
}

/** Calls whose outcome stands, of it and of whoever is joined to it. */
export async function callEntries(db: Db, contactId: number): Entries {
  const found = await db
    .select()
    .from(calls)
    .where(and(sql`${calls.contactId} in (select w.id from ${withJoined([contactId])} w)`, isNull(calls.undoneAt)))
  return found.map(({ e164, outcome, madeBy, madeAt }) => ({
    at: madeAt.toISOString(),
    what: { kind: 'called', e164, outcome, by: madeBy },
  }))
}

/** What providers told of the company of the contact, or of whoever is joined to it. */
export async function companyEntries(db: Db, contactId: number): Entries {
  const found = await db
    .select()
    .from(companyFacts)
    .where(sql`${companyFacts.contactId} in (select w.id from ${withJoined([contactId])} w)`)
  return found.map(({ provider, site, page, industry, headcount, toldAt }) => ({
    at: toldAt.toISOString(),
    what: { kind: 'company-told', provider, site, page, industry, headcount },
  }))
}

/** Files and audiences it was sent in, or whoever is joined to it. */
export async function sentEntries(db: Db, contactId: number): Entries {
  const editions = await readRows(db, { destination: text, fileName: text, createdAt: when })`
    select distinct e.* from ${withJoined([contactId])} w join edition_members m on ${memberIs(sql`m`, sql`w.id`)}
    join editions e on e.id = m.edition_id where e.state = 'ready' order by e.created_at`
  return editions.map(({ createdAt, ...edition }) => ({
    at: createdAt.toISOString(),
    what: { kind: 'sent', ...edition },
  }))
}

const ACT = {
  id: text,
  madeBy: text,
  madeAt: when,
  undoneAt: orNull(when),
  columnName: orNull(text),
  value: orNull(text),
  code: orNull(word<Kind<'left-out'>['code']>),
}

/** Edits of this contact and repairs left out for it, also those taken back. */
export async function actEntries(db: Db, contactId: number): Entries {
  const acts = await readRows(db, ACT)`
    select a.id, a.made_by, a.made_at, a.undone_at, e.column_name, e.value, null as code
    from edits e join acts a on a.id = e.act_id where e.contact_id = ${contactId}
    union all
    select a.id, a.made_by, a.made_at, a.undone_at, null, null, l.code
    from left_out l join acts a on a.id = l.act_id where l.contact_id = ${contactId}
    order by made_at`
  return acts.flatMap(({ id, madeBy: by, madeAt, undoneAt, columnName, value, code }) => {
    const actId = undoneAt === null ? id : null
    const what: StoryFact =
      code === null
        ? { kind: 'edited', actId, column: columnName ?? '', value: value ?? '', by }
        : { kind: 'left-out', actId, code, by }
    const entries: StoryEntry<StoryFact>[] = [{ at: madeAt.toISOString(), what }]
    return undoneAt === null ? entries : [...entries, { at: undoneAt.toISOString(), what: { kind: 'taken-back', by } }]
  })
}

/** That the person asked to be forgotten, and was. */
export async function forgottenEntries(db: Db, contactId: number): Entries {
  const found = await readRows(db, { by: text, at: when })`
    select who as by, at from forgotten where contact_id = ${contactId}`
  return found.map(({ at, by }) => ({ at: at.toISOString(), what: { kind: 'forgotten', by } }))
}

const CHOICE = { part: word<Kind<'value-chosen'>['part']>, madeAt: when, by: text, row: num, batch: text }

/** Parts of this contact that people took from one of its rows. */
export async function chosenEntries(db: Db, contactId: number): Entries {
  const choices = await readRows(db, CHOICE)`
    select v.part, v.made_at, d.who as by, c.row, b.name as batch
    from value_choices v join pair_decisions d on d.id = v.decision_id
    join contacts c on c.id = v.contact_id join batches b on b.id = c.batch_id
    where coalesce(c.joined_into, c.id) = ${contactId}
      and exists (select 1 from contacts o where o.joined_into = ${contactId}) order by v.made_at, v.id`
  return choices.map(({ madeAt, ...choice }) => ({
    at: madeAt.toISOString(),
    what: { kind: 'value-chosen', ...choice },
  }))
}
