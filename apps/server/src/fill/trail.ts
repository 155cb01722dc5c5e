import type { ContactStep, ContactTrail, TrailCandidate, TrailLine, TrailPage } from '@upper-field/contract'
import { orderFor, serves } from '@upper-field/core/fill'
import { desc, eq, type SQL, sql } from 'drizzle-orm'
import { chosenContacts } from '../contacts/page'
import { readFilter } from '../contacts/readFilter'
import type { Db } from '../db/database'
import { groupBy } from '../db/groupBy'
import { bool, listOf, num, orNull, type RowOf, readCount, readRow, readRows, text, word } from '../db/readRows'
import { attempts, candidates, fillRuns, fillSearches } from '../db/schema'
import { CURSOR, readCursor } from '../http/cursor'
import { ASKED } from './askedInputs'
import { isAskable, mostOf, type PlanTerms, planOf } from './plan'
import { answeredLately, asAskable } from './wanting'

type RunRow = typeof fillRuns.$inferSelect

async function latestRun(db: Db, condition: SQL): Promise<RunRow | null> {
  const [run] = await db.select().from(fillRuns).where(condition).orderBy(desc(fillRuns.startedAt)).limit(1)
  return run ?? null
}

export interface TrailInput {
  readonly listId: string
  readonly filter: string
  /** Only whom one of these providers found something for, or of whom something was set aside for one of these reasons. */
  readonly foundBy: readonly string[]
  readonly because: readonly string[]
  readonly cursor: string | undefined
  readonly limit: number
}

/** The courses of the contacts of a list's latest run, in the order of their rows. Null where there was none. */
export async function readTrail(db: Db, input: TrailInput): Promise<TrailPage | null> {
  const run = await latestRun(db, eq(fillRuns.listId, input.listId))
  if (!run) return null
  const { jobId } = run
  // Whoever was joined to another since is chosen with that one: its course stays.
  const chosen = sql`s.job_id = ${jobId} and coalesce(c.joined_into, c.id) in (
    select id from contacts where ${chosenContacts(input.listId, readFilter(input.filter))})${narrowing(jobId, input)}`
  const [after = 0] = readCursor(input.cursor, [CURSOR.id]) ?? []
  const found = await readRows(db, SEARCH)`
    select s.contact_id, s.state, c.full_name, c.country from fill_searches s join contacts c on c.id = s.contact_id
    where ${chosen} and s.contact_id > ${after} order by s.contact_id limit ${input.limit + 1}`
  const page = found.slice(0, input.limit)
  const last = page.at(-1)
  return {
    jobId,
    startedAt: run.startedAt.toISOString(),
    total: await readCount(db)`
      select count(*) as n from fill_searches s join contacts c on c.id = s.contact_id where ${chosen}`,
    ...(await facetsOf(db, jobId)),
    lines: await linesOf(db, run, page),
    next: found.length > input.limit && last ? String(last.contactId) : null,
  }
}

function narrowing(jobId: string, { foundBy, because }: TrailInput): SQL {
  const found = sql`and exists (select 1 from attempts a where a.job_id = ${jobId} and a.contact_id = s.contact_id
    and a.state = 'accepted' and a.provider = any(${sql.param([...foundBy])}::text[]))`
  const aside = sql`and exists (select 1 from attempts a join candidates d on d.attempt_id = a.id
    where a.job_id = ${jobId} and a.contact_id = s.contact_id and d.outcome = any(${sql.param([...because])}::text[]))`
  return sql` ${foundBy.length > 0 ? found : sql``} ${because.length > 0 ? aside : sql``}`
}

async function facetsOf(db: Db, jobId: string): Promise<Pick<TrailPage, 'foundBy' | 'because'>> {
  const found = await readRows(db, FACET)`
    select provider as name, count(*) as n from attempts where job_id = ${jobId} and state = 'accepted' group by 1 order by 2 desc`
  const aside = await readRows(db, FACET)`
    select d.outcome as name, count(distinct a.contact_id) as n from candidates d join attempts a on a.id = d.attempt_id
    where a.job_id = ${jobId} and d.outcome not in ('accepted', 'later-than-first', 'not-wanted') group by 1 order by 2 desc`
  const asRecord = (facets: typeof found) => Object.fromEntries(facets.map(({ name, n }) => [name, n]))
  return { foundBy: asRecord(found), because: asRecord(aside) }
}

async function linesOf(db: Db, { jobId }: RunRow, page: readonly RowOf<typeof SEARCH>[]): Promise<TrailLine[]> {
  const ids = sql.param(page.map(({ contactId }) => contactId))
  const steps = await readRows(db, STEP)`
    select a.contact_id, a.provider, a.state, a.reason,
      array(select distinct d.outcome from candidates d where d.attempt_id = a.id and d.outcome not in ('accepted', 'not-wanted')) as aside,
      (select coalesce(sum(amount), 0) from charges c where c.attempt_id = a.id) as cost
    from attempts a where a.job_id = ${jobId} and a.contact_id = any(${ids}::bigint[]) order by a.asked_at, a.id`
  const taken = await readRows(db, TAKEN)`
    select f.contact_id, coalesce(f.e164, f.address) as value, f.found_as from fills f join attempts a on a.id = f.attempt_id
    where a.job_id = ${jobId} and f.contact_id = any(${ids}::bigint[]) and f.undone_at is null order by f.made_at, f.id`
  const stepsOf = groupBy(steps, ({ contactId }) => contactId)
  const takenOf = groupBy(taken, ({ contactId }) => contactId)
  return page.map((search) => {
    const mine = stepsOf.get(search.contactId) ?? []
    return {
      ...search,
      steps: mine.map(({ provider, state, reason, aside }) => ({ provider, state, reason, aside })),
      taken: (takenOf.get(search.contactId) ?? []).map(({ value, foundAs }) => ({ value, foundAs })),
      cost: mine.reduce((sum, { cost }) => sum + cost, 0),
    }
  })
}

type Step = TrailLine['steps'][number]
const SEARCH = { contactId: num, state: word<TrailLine['state']>, fullName: text, country: text }
const FACET = { name: text, n: num }
const STEP = {
  contactId: num,
  provider: text,
  state: word<Step['state']>,
  reason: orNull(text),
  aside: listOf(word<Step['aside'][number]>),
  cost: num,
}
const TAKEN = { contactId: num, value: text, foundAs: word<TrailLine['taken'][number]['foundAs']> }

/** What each provider of its latest run was asked about a contact, said and charged; null where it was in none. */
export async function readContactTrail(db: Db, contactId: number): Promise<ContactTrail | null> {
  const run = await latestRun(
    db,
    sql`${fillRuns.jobId} in (select ${fillSearches.jobId} from ${fillSearches} where ${fillSearches.contactId} = ${contactId})`,
  )
  if (!run) return null
  const [search] = await db
    .select()
    .from(fillSearches)
    .where(sql`${fillSearches.jobId} = ${run.jobId} and ${fillSearches.contactId} = ${contactId}`)
  const known = await readRow(db, ASKED)`select * from contacts where id = ${contactId}`
  if (!search || !known) return null
  const contact = { ...asAskable(known), lacks: search.wants }
  const plan = await planOf(db, run)
  const made = await db
    .select()
    .from(attempts)
    .where(sql`${attempts.jobId} = ${run.jobId} and ${attempts.contactId} = ${contactId}`)
  const lately = (await answeredLately(db, run, [contactId])).get(contactId)
  const isOver = search.state !== 'open' && search.state !== 'waiting'
  const steps: ContactStep[] = []
  for (const id of orderFor(contact.country, { order: plan.order, branches: plan.options.branches })) {
    const provider = plan.providers.find((one) => one.id === id)
    if (!provider || !search.wants.some((want) => serves(provider.gives, want))) continue
    const attempt = made.find((one) => one.provider === id)
    const canBeAsked = isAskable(plan, provider, contact)
    const wasLately = lately?.has(id) ?? false
    steps.push({
      provider: id,
      attempt: attempt ? await attemptWith(db, plan, attempt) : null,
      notAsked: attempt
        ? null
        : !canBeAsked
          ? 'no-input'
          : wasLately
            ? 'asked-lately'
            : isOver
              ? 'ended-before'
              : 'not-yet',
      mayAsk: !attempt && canBeAsked && isOver ? mostOf(provider, plan) : null,
    })
  }
  return { jobId: run.jobId, state: search.state as ContactTrail['state'], wants: [...search.wants], steps }
}

async function attemptWith(
  db: Db,
  plan: PlanTerms,
  attempt: typeof attempts.$inferSelect,
): Promise<ContactStep['attempt']> {
  const given = await db
    .select()
    .from(candidates)
    .where(eq(candidates.attemptId, attempt.id))
    .orderBy(candidates.position)
  const charged = await readRow(db, { cost: num, checks: num, isPaid: bool })`
    select coalesce(sum(amount) filter (where provider = ${attempt.provider}), 0) as cost,
      coalesce(sum(amount) filter (where provider <> ${attempt.provider}), 0) as checks,
      coalesce(bool_or(provider = ${attempt.provider}), false) as is_paid
    from charges where attempt_id = ${attempt.id}`
  const held = await valuesHeld(db, attempt.contactId)
  const price = priceOfTaking(plan, attempt.provider, charged?.isPaid === true)
  return {
    id: attempt.id,
    state: attempt.state,
    reason: attempt.reason,
    askedAt: attempt.askedAt.toISOString(),
    answeredAt: attempt.answeredAt?.toISOString() ?? null,
    cost: charged?.cost ?? 0,
    checks: charged?.checks ?? 0,
    candidates: given.map(({ position, raw, score, e164, address, outcome, keptAs }) => {
      const value = e164 ?? address
      const canBeTaken = outcome !== 'accepted' && value !== null && !held.has(value)
      return {
        position,
        raw,
        score,
        value,
        outcome: outcome as TrailCandidate['outcome'],
        keptAs: keptAs as TrailCandidate['keptAs'],
        mayTake: canBeTaken ? price : null,
      }
    }),
  }
}

/** Numbers and addresses that a contact has: what it has cannot be taken once more. */
export async function valuesHeld(db: Db, contactId: number): Promise<ReadonlySet<string>> {
  const held = await readRows(db, { value: text })`
    select e164 as value from contact_numbers where contact_id = ${contactId}
    union select address from contact_emails where contact_id = ${contactId}`
  return new Set(held.map(({ value }) => value))
}

/** What a provider charges for a value that is taken by hand: only who charges for those, and has not charged yet. */
export function priceOfTaking({ providers }: PlanTerms, id: string, isPaid: boolean): number {
  const charge = providers.find((one) => one.id === id)?.charge
  return charge?.per === 'accepted' && !isPaid ? charge.amount : 0
}
