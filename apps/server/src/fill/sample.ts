import type { FillEstimate, FillResult, FillSample, SampledOrder } from '@upper-field/contract'
import { type Asked, expectOrder, NOT_ASKED, type OrderOutcome, replayAsked } from '@upper-field/core/fill'
import { and, desc, eq, sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { bool, num, type RowOf, readCount, readRows, text } from '../db/readRows'
import { attempts, fillRuns } from '../db/schema'
import { fillForOf, wantingOf } from './wanting'

/** One provider's answer about one contact of a sample. */
const SAMPLED = { contactId: num, country: text, provider: text, isFound: bool, isSomebodyElse: bool, cost: num }
type Sampled = RowOf<typeof SAMPLED>

/**
 * What the latest sample of a list teaches, told for everybody who wants a mobile: each order replayed on the answers of
 * everybody about the same contacts. Null where nobody was asked so.
 * @param order the order of today, to compare with
 */
export async function readFillSample(
  db: Db,
  listId: string,
  order: readonly string[],
  budget: number | null,
): Promise<FillSample | null> {
  const sampled = await latestSample(db, listId)
  if (!sampled) return null
  const { run, answers, ids, contacts, wanting, told } = sampled
  const scale = wanting / contacts.length
  const { bestWithinBudget, curve, choices } = replayAsked(ids, contacts, budget === null ? null : budget / scale)
  return {
    jobId: run.jobId,
    contacts: contacts.length,
    spent: run.spent,
    wanting,
    today: isSampled(order, ids) ? told(order) : null,
    cheapest: told(asMany(choices).order),
    withinBudget: bestWithinBudget && told(bestWithinBudget.order),
    curve: curve.map(({ order }) => told(order)),
    choices: choices.map(({ usable, cost }) => ({
      usable: Math.round(usable * scale),
      cost: Math.round(cost * scale),
    })),
    providers: ids.map((id) => providerIn(answers, id)),
  }
}

/** The joint answers of the latest sample of a list, and what an order would bring by them. Null where nobody was asked so. */
async function latestSample(db: Db, listId: string) {
  const [run] = await db
    .select()
    .from(fillRuns)
    .where(and(eq(fillRuns.listId, listId), eq(fillRuns.asking, 'everybody'), HAS_ANSWERS))
    .orderBy(desc(fillRuns.startedAt))
    .limit(1)
  const answers = run ? await answersOf(db, run.jobId) : []
  if (!run || answers.length === 0) return null
  const ids = run.order.filter((id) => answers.some(({ provider }) => provider === id))
  const contacts = byContact(answers, ids, await countSampled(db, run.jobId))
  const wanting = await countWanting(db, run)
  const told = (one: readonly string[]): SampledOrder => ({
    order: [...one],
    ...expectOrder(
      one.map((id) => ids.indexOf(id)),
      contacts,
      wanting,
      drawing(),
    ),
  })
  return { run, answers, ids, contacts, wanting, told }
}

/** Until the first answers to a new sample have come, the one before is told. */
const HAS_ANSWERS = sql`exists (
  select 1 from ${attempts} where ${attempts.jobId} = ${fillRuns.jobId} and ${attempts.state} in ('accepted', 'set-aside', 'nothing'))`

/** True where everybody of an order was in the sample. */
const isSampled = (order: readonly string[], ids: readonly string[]): boolean =>
  order.length > 0 && order.every((id) => ids.includes(id))

/** What an order will probably bring and cost for so many, by what the latest sample taught; null where none did. */
export async function expectedOf(
  db: Db,
  listId: string,
  order: readonly string[],
  wanting: number,
): Promise<FillEstimate['expected']> {
  const sampled = await latestSample(db, listId)
  if (!sampled || sampled.wanting === 0 || !isSampled(order, sampled.ids)) return null
  const share = wanting / sampled.wanting
  const { usable, cost } = sampled.told(order)
  return { usable: Math.round(usable.value * share), cost: Math.round(cost.value * share) }
}

/** What a run that tried some tells of the others who lack the same; null for any other run, and while it goes on. */
export async function expectRest(db: Db, run: typeof fillRuns.$inferSelect): Promise<FillResult['rest']> {
  if (run.sample === null || run.asking !== 'until-found') return null
  const searches = await readRows(db, { state: text, cost: num })`
    select s.state, (select coalesce(sum(amount), 0) from charges c where c.job_id = s.job_id and c.contact_id = s.contact_id) as cost
    from fill_searches s where s.job_id = ${run.jobId} order by s.contact_id`
  if (searches.length === 0 || searches.some(({ state }) => state === 'open' || state === 'waiting')) return null
  const meant = fillForOf({ ...run, contactId: null })
  const contacts = await readCount(db)`
    select count(*) as n from contacts where ${wantingOf(meant)}
      and id not in (select contact_id from fill_searches where job_id = ${run.jobId})`
  const tried = searches.map(({ state, cost }) => [{ cost, isFound: state === 'found' }])
  return { contacts, ...expectOrder([0], tried, contacts, drawing()) }
}

/** Of those that find as many as all together the cheapest. */
function asMany(choices: readonly OrderOutcome[]): OrderOutcome {
  const most = Math.max(...choices.map(({ usable }) => usable))
  const full = choices.filter(({ usable }) => usable === most)
  return full.reduce((best, one) => (one.cost < best.cost ? one : best))
}

/** Line checks of an attempt are paid with it; where a number was known already, they were free then too. */
async function answersOf(db: Db, jobId: string): Promise<Sampled[]> {
  return readRows(db, SAMPLED)`
    select a.contact_id, c.country, a.provider, a.state = 'accepted' as is_found,
      exists (select 1 from candidates d where d.attempt_id = a.id and d.outcome = 'somebody-else') as is_somebody_else,
      (select coalesce(sum(amount), 0) from charges h where h.attempt_id = a.id) as cost
    from attempts a join contacts c on c.id = a.contact_id
    where a.job_id = ${jobId} and a.state in ('accepted', 'set-aside', 'nothing') order by a.contact_id`
}

async function countSampled(db: Db, jobId: string): Promise<number> {
  return readCount(db)`
    select count(*) as n from fill_searches where job_id = ${jobId} and state in ('found', 'partly', 'not-found')`
}

/** @param all how many were taken: nobody could be asked about those without an answer */
function byContact(answers: readonly Sampled[], ids: readonly string[], all: number): readonly (readonly Asked[])[] {
  const contacts = new Map<number, Asked[]>()
  for (const { contactId, provider, cost, isFound } of answers) {
    const asked = contacts.get(contactId) ?? ids.map(() => NOT_ASKED)
    asked[ids.indexOf(provider)] = { cost, isFound }
    contacts.set(contactId, asked)
  }
  const others = Array.from({ length: Math.max(0, all - contacts.size) }, () => ids.map(() => NOT_ASKED))
  return [...contacts.values(), ...others]
}

/** Whoever wants a mobile now, and those of the sample that have found one since. */
async function countWanting(db: Db, run: typeof fillRuns.$inferSelect): Promise<number> {
  const meant = fillForOf({ ...run, contactId: null })
  return readCount(db)`
    select count(*) as n from contacts where list_id = ${run.listId}
      and ((${wantingOf(meant)}) or id in (select contact_id from fill_searches where job_id = ${run.jobId}))`
}

function providerIn(answers: readonly Sampled[], id: string): FillSample['providers'][number] {
  const mine = answers.filter(({ provider }) => provider === id)
  const foundByOthers = new Set(
    answers.filter(({ provider, isFound }) => provider !== id && isFound).map(({ contactId }) => contactId),
  )
  const usable = mine.filter(({ isFound }) => isFound)
  return {
    provider: id,
    asked: mine.length,
    usable: usable.length,
    onlyHere: usable.filter(({ contactId }) => !foundByOthers.has(contactId)).length,
    somebodyElse: mine.filter(({ isSomebodyElse }) => isSomebodyElse).length,
    cost: mine.reduce((sum, { cost }) => sum + cost, 0),
    goodIn: goodIn(mine),
  }
}

/** Fewer answers than these tell nothing of a country. */
const LEAST_OF_COUNTRY = 4
const BETTER = 1.2

function goodIn(mine: readonly Sampled[]): string[] {
  const share = (of: readonly Sampled[]) => of.filter(({ isFound }) => isFound).length / of.length
  const usual = share(mine)
  return [...new Set(mine.map(({ country }) => country))]
    .map((country) => ({ country, answers: mine.filter((one) => one.country === country) }))
    .filter(({ country, answers }) => country !== '' && answers.length >= LEAST_OF_COUNTRY)
    .map(({ country, answers }) => ({ country, share: share(answers) }))
    .filter((one) => one.share > usual * BETTER)
    .sort((a, b) => b.share - a.share)
    .map(({ country }) => country)
}

/** The same draws whenever a sample is looked at (a linear congruential generator, Numerical Recipes). */
function drawing(): () => number {
  let state = 2_463_534_242
  return () => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0
    return state / 4_294_967_296
  }
}
