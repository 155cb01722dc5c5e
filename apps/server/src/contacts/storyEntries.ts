import type { StoryFact } from '@upper-field/contract'
import type { StoryEntry } from '@upper-field/core/story'
import { and, isNull, sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { calls, companyFacts } from '../db/schema'
import { memberIs } from '../db/spans'
import { withJoined } from '../pair/standsFor'

type Entries = Promise<StoryEntry<StoryFact>[]>
type Kind<K extends StoryFact['kind']> = Extract<StoryFact, { kind: K }>

const instant = (value: unknown): string => new Date(value as string).toISOString()

/** Joins of this contact, also those that were undone. */
export async function joinEntries(db: Db, contactId: number): Entries {
  const { rows } = await db.execute<Record<string, unknown>>(sql`
    select j.*, o.row as other_row, o.full_name as other_name, b.name as other_batch, j.survivor_id = ${contactId} as is_survivor
    from joins j
    join contacts o on o.id = case when j.survivor_id = ${contactId} then j.member_id else j.survivor_id end
    join batches b on b.id = o.batch_id
    where j.survivor_id = ${contactId} or j.member_id = ${contactId} order by j.id`)
  return rows.flatMap((row) => {
    const other = { otherRow: Number(row.other_row), otherBatch: String(row.other_batch) }
    const joined: Kind<'joined'> = {
      kind: 'joined',
      joinId: row.undone_at === null ? Number(row.id) : 0,
      ...other,
      otherName: String(row.other_name),
      by: row.key_kind as 'number' | 'email' | 'likeness' | 'person',
      key: String(row.key),
      isSurvivor: row.is_survivor === true,
    }
    const apart: Kind<'taken-apart'> = { kind: 'taken-apart', ...other }
    const entries: StoryEntry<StoryFact>[] = [{ at: instant(row.made_at), what: joined }]
    return row.undone_at === null ? entries : [...entries, { at: instant(row.undone_at), what: apart }]
  })
}

/** What was answered about some numbers or addresses, asked by any list, oldest first; `our_cost` where this list paid. */
async function answersAbout(
  db: Db,
  checks: 'line_checks' | 'do_not_call_checks' | 'address_checks',
  column: 'e164' | 'address',
  subjects: readonly string[],
  listId: string,
): Promise<readonly Record<string, unknown>[]> {
  if (subjects.length === 0) return []
  const { rows } = await db.execute<Record<string, unknown>>(sql`
    select c.*, case when j.list_id = ${listId} then c.cost else 0 end as our_cost
    from ${sql.raw(checks)} c join jobs j on j.id = c.job_id
    where c.${sql.raw(column)} = any(${sql.param([...subjects])}::text[]) and c.answered_at is not null
    order by c.answered_at`)
  return rows
}

/** What the register has answered about this contact's numbers, asked by any list; the cost where this list paid. */
export async function checkEntries(db: Db, e164s: readonly string[], listId: string): Entries {
  const rows = await answersAbout(db, 'line_checks', 'e164', e164s, listId)
  return rows.map((row) => ({
    at: instant(row.answered_at),
    what: {
      kind: 'checked',
      e164: String(row.e164),
      lineType: row.line_type as Kind<'checked'>['lineType'],
      status: row.status as Kind<'checked'>['status'],
      carrier: row.carrier as string | null,
      cost: Number(row.our_cost ?? 0),
    },
  }))
}

/** What do-not-call registers have answered about this contact's numbers, asked by any list. */
export async function registerEntries(db: Db, e164s: readonly string[], listId: string): Entries {
  const rows = await answersAbout(db, 'do_not_call_checks', 'e164', e164s, listId)
  return rows.map((row) => ({
    at: instant(row.answered_at),
    what: {
      kind: 'asked-register',
      e164: String(row.e164),
      isListed: row.is_listed as boolean | null,
      register: row.register as string | null,
      cost: Number(row.our_cost ?? 0),
    },
  }))
}

/** What the verifier has answered about this contact's addresses, asked by any list; the cost where this list paid. */
export async function verifiedEntries(db: Db, addresses: readonly string[], listId: string): Entries {
  const rows = await answersAbout(db, 'address_checks', 'address', addresses, listId)
  return rows.map((row) => ({
    at: instant(row.answered_at),
    what: {
      kind: 'verified',
      address: String(row.address),
      deliverability: row.deliverability as Kind<'verified'>['deliverability'],
      cost: Number(row.our_cost ?? 0),
    },
  }))
}

/** Which providers were asked about the contact or whoever is joined to it, what they gave, and what it cost. */
export async function attemptEntries(db: Db, contactId: number): Entries {
  const { rows } = await db.execute<Record<string, unknown>>(sql`
    select a.*, coalesce((select sum(amount) from charges c where c.job_id = a.job_id and c.provider = a.provider and c.contact_id = a.contact_id), 0) as cost,
      (select json_agg(json_build_object('value', coalesce(d.e164, d.address), 'outcome', d.outcome) order by d.position) from candidates d where d.attempt_id = a.id) as given
    from attempts a join ${withJoined([contactId])} w on w.id = a.contact_id order by a.asked_at`)
  return rows.map((row) => ({
    at: instant(row.answered_at ?? row.asked_at),
    what: {
      kind: 'asked',
      provider: String(row.provider),
      state: String(row.state),
      cost: Number(row.cost),
      candidates: (row.given as Kind<'asked'>['candidates'] | null) ?? [],
    },
  }))
}

export async function fillEntries(db: Db, contactId: number): Entries {
  const { rows } = await db.execute<Record<string, unknown>>(
    sql`select f.* from fills f join ${withJoined([contactId])} w on w.id = f.contact_id where undone_at is null order by made_at`,
  )
  return rows.map((row) => ({
    at: instant(row.made_at),
    what: {
      kind: 'filled',
      fillId: String(row.id),
      provider: String(row.provider),
      value: String(row.e164 ?? row.address),
      foundAs: row.found_as as Kind<'filled'>['foundAs'],
    },
  }))
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
  const { rows } = await db.execute<Record<string, unknown>>(sql`
    select distinct e.* from ${withJoined([contactId])} w join edition_members m on ${memberIs(sql`m`, sql`w.id`)}
    join editions e on e.id = m.edition_id where e.state = 'ready' order by e.created_at`)
  return rows.map((row) => ({
    at: instant(row.created_at),
    what: { kind: 'sent', destination: String(row.destination), fileName: String(row.file_name) },
  }))
}

/** Edits of this contact and repairs left out for it, also those taken back. */
export async function actEntries(db: Db, contactId: number): Entries {
  const { rows } = await db.execute<Record<string, unknown>>(sql`
    select a.id, a.made_by, a.made_at, a.undone_at, e.column_name, e.value, null as code
    from edits e join acts a on a.id = e.act_id where e.contact_id = ${contactId}
    union all
    select a.id, a.made_by, a.made_at, a.undone_at, null, null, l.code
    from left_out l join acts a on a.id = l.act_id where l.contact_id = ${contactId}
    order by made_at`)
  return rows.flatMap((row) => {
    const actId = row.undone_at === null ? String(row.id) : null
    const by = String(row.made_by)
    const what: StoryFact =
      row.code === null
        ? { kind: 'edited', actId, column: String(row.column_name), value: String(row.value), by }
        : { kind: 'left-out', actId, code: row.code as Kind<'left-out'>['code'], by }
    const entries: StoryEntry<StoryFact>[] = [{ at: instant(row.made_at), what }]
    return row.undone_at === null
      ? entries
      : [...entries, { at: instant(row.undone_at), what: { kind: 'taken-back', by } }]
  })
}

/** That the person asked to be forgotten, and was. */
export async function forgottenEntries(db: Db, contactId: number): Entries {
  const { rows } = await db.execute<Record<string, unknown>>(
    sql`select who, at from forgotten where contact_id = ${contactId}`,
  )
  return rows.map((row) => ({ at: instant(row.at), what: { kind: 'forgotten', by: String(row.who) } }))
}

/** Parts of this contact that people took from one of its rows. */
export async function chosenEntries(db: Db, contactId: number): Entries {
  const { rows } = await db.execute<Record<string, unknown>>(sql`
    select v.part, v.made_at, d.who, c.row, b.name as batch
    from value_choices v join pair_decisions d on d.id = v.decision_id
    join contacts c on c.id = v.contact_id join batches b on b.id = c.batch_id
    where coalesce(c.joined_into, c.id) = ${contactId}
      and exists (select 1 from contacts o where o.joined_into = ${contactId}) order by v.made_at, v.id`)
  return rows.map((row) => ({
    at: instant(row.made_at),
    what: {
      kind: 'value-chosen',
      part: row.part as Kind<'value-chosen'>['part'],
      row: Number(row.row),
      batch: String(row.batch),
      by: String(row.who),
    },
  }))
}
