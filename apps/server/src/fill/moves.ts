import { nextAct } from '@upper-field/core/fill'
import { and, eq, sql } from 'drizzle-orm'
import { type Db, transaction } from '../db/database'
import { groupBy } from '../db/groupBy'
import { insertRows } from '../db/insertRows'
import { num, readCount, readRows, text } from '../db/readRows'
import { attempts, fillRuns } from '../db/schema'
import type { Services } from '../services'
import { leftOfMonth } from '../spend/limit'
import { type AskingCost, conditionOf, costOfAsking, isAskable, servingOf, sumOf } from './plan'
import type { AttemptRow, Run, SearchedContact } from './run'
import { answeredLately } from './wanting'

/** What became of some searches: whom to ask now, and whether anything moved at all. */
export interface Moves {
  readonly asks: readonly { readonly contact: SearchedContact; readonly attempt: AttemptRow }[]
  readonly moved: number
  /** The money of this day is used up: the run goes on tomorrow. */
  readonly isDaySpent: boolean
}

/** What all pieces of a step count together. */
export interface StepCounts {
  /** About how many contacts each provider was asked in this run. */
  readonly asked: Map<string, number>
  /** How many more questions a provider takes in this step, where it takes only so many a second. */
  readonly room: Map<string, number>
}

/** A step is of no more questions than a slow provider takes in so many seconds: it could not be stopped else. */
const STEP_SECONDS = 2

export const roomIn = ({ plan }: Run): Map<string, number> =>
  new Map([...plan.perSecond].map(([id, perSecond]) => [id, Math.max(1, Math.floor(perSecond * STEP_SECONDS))]))

/** What is known of the searches of some contacts before a move. */
export interface Known {
  readonly made: ReadonlyMap<number, readonly AttemptRow[]>
  /** Who answered about a contact in an earlier run not long ago. */
  readonly before: ReadonlyMap<number, ReadonlySet<string>>
  /** About how many each provider was asked in this run. */
  readonly asked: Map<string, number>
  readonly room: Map<string, number>
  readonly spentOn: ReadonlyMap<number, number>
  /** What services with a limit of their own may still charge this month. */
  readonly left: Map<string, number>
}

/** A question that is to be asked, and the most it can cost. */
interface Asking {
  readonly contact: SearchedContact
  readonly provider: string
  readonly most: number
  /** What of it checks may cost, by the service that checks. */
  readonly checks: AskingCost['checks']
  /** Another answer about the contact is still awaited. */
  readonly isWaiting: boolean
}

/** An end of a search, or a question that is to be asked. */
export type Decision =
  | { readonly contact: SearchedContact; readonly state: string }
  | Asking
  /** Whoever is to be asked takes no more questions in this step. */
  | { readonly contact: SearchedContact; readonly isLater: true }

/**
 * One move for each of these contacts: who is asked next, or how its search ends. The money for all questions is set
 * aside and the questions are written down in one transaction, before anybody is asked.
 * What is asked is counted on in the counts of the step.
 */
export async function makeMoves(
  services: Services,
  run: Run,
  contacts: readonly SearchedContact[],
  counts: StepCounts,
): Promise<Moves> {
  if (contacts.length === 0) return { asks: [], moved: 0, isDaySpent: false }
  const facts = await whatIsKnown(services.db, run, contacts)
  return transaction(services.pool, async (tx) => {
    const known = { ...facts, ...counts, left: await leftOfMonth(tx) }
    const decisions = contacts.map((contact) => decide(run, contact, known))
    const ends = decisions.filter((one) => 'state' in one)
    const { asked, ended, isDaySpent } = await reserve(
      tx,
      run,
      decisions.flatMap((one) => ('provider' in one ? [one] : [])),
    )
    await setSearches(tx, run.jobId, [...ends, ...ended])
    const made = await openAttempts(services, tx, run, asked)
    const rows = new Map(made.map((attempt) => [attempt.contactId, attempt]))
    const asks = asked.flatMap(({ contact }) => {
      const attempt = rows.get(contact.id)
      return attempt ? [{ contact, attempt }] : []
    })
    return { asks, moved: ends.length + ended.length + asks.length, isDaySpent }
  })
}

/** The next move for one contact. A search does not end while an answer is awaited: it may have to be paid. */
export function decide(run: Run, contact: SearchedContact, known: Known): Decision {
  const made = known.made.get(contact.id) ?? []
  const isWaiting = made.some(({ state }) => state === 'waiting')
  const eligible = servingOf(run.plan, contact).filter(
    (provider) => made.some((attempt) => attempt.provider === provider.id) || mayAsk(run, provider.id, contact, known),
  )
  const act = nextAct({ eligible, attempts: made, wants: contact.lacks, asking: run.asking })
  if (act.act !== 'ask') return { contact, state: act.act === 'wait' ? 'waiting' : act.outcome }
  if (contact.isOut) return { contact, state: isWaiting ? 'waiting' : 'left-out' }
  const room = known.room.get(act.provider)
  if (room === 0) return { contact, isLater: true }
  if (room !== undefined) known.room.set(act.provider, room - 1)
  known.asked.set(act.provider, (known.asked.get(act.provider) ?? 0) + 1)
  const terms = run.plan.providers.find(({ id }) => id === act.provider)
  const cost = terms ? costOfAsking(terms, run.plan) : NOTHING
  for (const [service, amount] of atServices(act.provider, cost)) {
    const left = known.left.get(service)
    if (left !== undefined) known.left.set(service, left - amount)
  }
  return { contact, provider: act.provider, most: sumOf(cost), checks: cost.checks, isWaiting }
}

const NOTHING: AskingCost = { own: 0, checks: {} }

/** What an asking may cost at each service that charges for it. */
const atServices = (provider: string, { own, checks }: AskingCost): (readonly [string, number])[] => [
  [provider, own],
  ...Object.entries(checks),
]

function mayAsk(
  run: Run,
  provider: string,
  contact: SearchedContact,
  { before, asked, spentOn, left }: Known,
): boolean {
  const terms = run.plan.providers.find(({ id }) => id === provider)
  if (!terms || run.failing.has(provider) || before.get(contact.id)?.has(provider)) return false
  const { perContact } = run.options
  const { mostAsked } = conditionOf(run.options, provider)
  if (mostAsked !== null && (asked.get(provider) ?? 0) >= mostAsked) return false
  const isOverLimit = ([service, amount]: readonly [string, number]) => amount > (left.get(service) ?? Infinity)
  const cost = costOfAsking(terms, run.plan)
  if (atServices(provider, cost).some(isOverLimit)) return false
  if (perContact !== null && (spentOn.get(contact.id) ?? 0) + sumOf(cost) > perContact) return false
  return isAskable(run.plan, terms, contact)
}

async function whatIsKnown(
  db: Db,
  run: Run,
  contacts: readonly SearchedContact[],
): Promise<Omit<Known, keyof StepCounts | 'left'>> {
  const ids = contacts.map(({ id }) => id)
  const rows = await db
    .select()
    .from(attempts)
    .where(and(eq(attempts.jobId, run.jobId), sql`${attempts.contactId} = any(${sql.param(ids)}::bigint[])`))
  return {
    made: groupBy(rows, ({ contactId }) => contactId),
    before: await answeredLately(db, run, ids),
    spentOn: run.options.perContact === null ? new Map() : await spentOnContacts(db, run.jobId, contacts),
  }
}

/** About how many contacts each provider was asked in a run; nothing where no condition counts that. */
export async function askedInRun(db: Db, { jobId, options }: Run): Promise<Map<string, number>> {
  if (Object.values(options.conditions).every(({ mostAsked }) => mostAsked === null)) return new Map()
  const asked = await readRows(db, { provider: text, n: num })`
    select provider, count(*) as n from attempts where job_id = ${jobId} group by 1`
  return new Map(asked.map(({ provider, n }) => [provider, n]))
}

async function spentOnContacts(
  db: Db,
  jobId: string,
  contacts: readonly SearchedContact[],
): Promise<ReadonlyMap<number, number>> {
  const spent = await readRows(db, { contactId: num, n: num })`
    select contact_id, sum(amount) as n from charges
    where job_id = ${jobId} and contact_id = any(${sql.param(contacts.map(({ id }) => id))}::bigint[]) group by 1`
  return new Map(spent.map(({ contactId, n }) => [contactId, n]))
}

/**
 * Sets money aside for as many questions as the budget allows. The row's own lock makes the sum exact, whoever asks at
 * the same time. What cannot be paid now waits where money set aside for others may come back, and ends where it never
 * can be.
 */
async function reserve(
  tx: Db,
  { jobId, options: { perDay } }: Run,
  asking: readonly Asking[],
): Promise<{ readonly asked: readonly Asking[]; readonly ended: readonly Decision[]; readonly isDaySpent: boolean }> {
  const [run] = await tx.select().from(fillRuns).where(eq(fillRuns.jobId, jobId)).for('update')
  if (!run || asking.length === 0) return { asked: [], ended: [], isDaySpent: false }
  const today = perDay === null ? 0 : await spentToday(tx, jobId)
  const asked: Asking[] = []
  const ended: Decision[] = []
  let reserved = run.reserved
  let isDaySpent = false
  for (const one of asking) {
    const fitsDay = perDay === null || today + reserved + one.most <= perDay
    if (run.spent + reserved + one.most <= run.budget && fitsDay) {
      asked.push(one)
      reserved += one.most
    } else if (run.spent + one.most > run.budget || (perDay !== null && one.most > perDay))
      ended.push({ contact: one.contact, state: one.isWaiting ? 'waiting' : 'budget' })
    else if (!fitsDay && today + one.most > (perDay ?? 0)) isDaySpent = true
  }
  await tx.update(fillRuns).set({ reserved }).where(eq(fillRuns.jobId, jobId))
  return { asked, ended, isDaySpent }
}

async function spentToday(tx: Db, jobId: string): Promise<number> {
  return readCount(tx)`
    select coalesce(sum(amount), 0) as n from charges
    where job_id = ${jobId} and at >= date_trunc('day', now() at time zone 'utc') at time zone 'utc'`
}

async function openAttempts(
  services: Services,
  tx: Db,
  { jobId, listId }: Run,
  asked: readonly Asking[],
): Promise<AttemptRow[]> {
  const askedAt = new Date(services.now())
  const rows = asked.map(({ contact, provider, most, checks }) => ({
    id: crypto.randomUUID(),
    jobId,
    listId,
    contactId: contact.id,
    provider,
    state: 'waiting' as const,
    reserved: most,
    checks,
    askedAt,
  }))
  await insertRows(tx, attempts, rows)
  return rows.map((row) => ({
    ...row,
    reason: null,
    found: [],
    answer: null,
    toldPrice: null,
    answeredAt: null,
    deadline: null,
    receipt: null,
  }))
}

/** Writes down how searches stand. */
async function setSearches(tx: Db, jobId: string, decisions: readonly Decision[]): Promise<void> {
  const states = decisions.flatMap((one) => ('state' in one ? [one] : []))
  await setStates(
    tx,
    jobId,
    states.map(({ contact, state }) => ({ contactId: contact.id, state })),
  )
}

/**
 * Opens searches again that wait for nobody: their answer was settled in the very moment in which it was written down that
 * they wait, or a crash came between the two.
 */
export async function reopenForgotten(db: Db, jobId: string): Promise<void> {
  await db.execute(sql`
    update fill_searches s set state = 'open' where s.job_id = ${jobId} and s.state = 'waiting'
      and not exists (select 1 from attempts a where a.job_id = s.job_id and a.contact_id = s.contact_id and a.state = 'waiting')`)
}

export async function setStates(
  tx: Db,
  jobId: string,
  states: readonly { readonly contactId: number; readonly state: string }[],
): Promise<void> {
  if (states.length === 0) return
  await tx.execute(sql`
    update fill_searches s set state = n.state
    from unnest(${sql.param(states.map(({ contactId }) => contactId))}::bigint[], ${sql.param(states.map(({ state }) => state))}::text[]) as n(id, state)
    where s.job_id = ${jobId} and s.contact_id = n.id`)
}
