import { atPrice, costOfAnswer, type Want } from '@upper-field/core/fill'
import { eq, inArray, sql } from 'drizzle-orm'
import { storeAnswers } from '../check/storeAnswers'
import { ADDRESSES, LINES } from '../check/subjects'
import { type Learnt, tellHolders } from '../check/tellHolders'
import type { Db } from '../db/database'
import { insertRows } from '../db/insertRows'
import { num, readRows, text } from '../db/readRows'
import { attempts, candidates, fillRuns, fills } from '../db/schema'
import { withListLock } from '../lists/listLock'
import type { Services } from '../services'
import { charge } from '../spend/charge'
import { tellWebhooks } from '../webhooks/tell'
import { keepCompanyFacts } from './companyFacts'
import type { JudgedAnswer, JudgedCandidate } from './judgeAnswers'
import { setStates } from './moves'
import { type FoundValue, foundValueOf, projectFound } from './projectFound'
import type { AttemptRow, Run } from './run'

/** How an attempt ended: with an answer that was judged, or without one. */
export type Ended =
  | { readonly as: 'judged'; readonly judged: JudgedAnswer }
  | {
      readonly as: 'failed' | 'late'
      readonly attempt: AttemptRow
      /** A code; null where nothing came at all. */
      readonly reason: string | null
    }

const attemptOf = (ended: Ended): AttemptRow => (ended.as === 'judged' ? ended.judged.attempt : ended.attempt)

/**
 * Books what some attempts cost, keeps what they brought and lets their searches go on: all in one transaction, so that
 * repeating it after a crash books nothing twice. Attempts that were ended meanwhile are left as they are.
 */
export async function settleAll(services: Services, run: Run, all: readonly Ended[]): Promise<void> {
  if (all.length === 0) return
  const at = new Date(services.now())
  await withListLock(services, run.listId, { work: 'fill', jobId: run.jobId }, async (tx, client) => {
    const open = await lockOpen(tx, all.map(attemptOf))
    const ended = all.filter((one) => open.has(attemptOf(one).id))
    const judged = ended.flatMap((one) => (one.as === 'judged' ? [one.judged] : []))
    const spent = await bookChecks(tx, run, judged, at)
    const cost = await charge(tx, judged.flatMap(chargesOf(run, at)))
    await keepCandidates(tx, judged)
    await settleReserve(tx, run.jobId, {
      reserved: ended.reduce((sum, one) => sum + attemptOf(one).reserved, 0),
      spent: spent + cost,
    })
    await endAttempts(tx, ended, at)
    await goOn(tx, run, ended)
    const found = await keepFound(tx, run, judged, at)
    await keepCompanyFacts(tx, run.listId, judged, at)
    const told = await tellHolders(tx, client, learntFrom(judged), run.listId)
    await projectFound(tx, client, run.listId, found, told)
  })
}

async function lockOpen(tx: Db, all: readonly AttemptRow[]): Promise<ReadonlySet<string>> {
  const rows = await tx
    .select({ id: attempts.id, state: attempts.state })
    .from(attempts)
    .where(
      inArray(
        attempts.id,
        all.map(({ id }) => id),
      ),
    )
    .orderBy(attempts.id)
    .for('update')
  return new Set(rows.filter(({ state }) => state === 'waiting').map(({ id }) => id))
}

/** What register and verifier were asked about. */
const learntFrom = (judged: readonly JudgedAnswer[]): readonly Learnt[] => [
  { about: LINES, subjects: judged.flatMap(({ lines }) => lines.map(({ told }) => LINES.subjectOf(told))) },
  {
    about: ADDRESSES,
    subjects: judged.flatMap(({ addresses }) => addresses.map(({ told }) => ADDRESSES.subjectOf(told))),
  },
]

/** Answers of register and verifier about candidates. */
async function bookChecks(
  tx: Db,
  { listId, jobId, plan: { register, verifier } }: Run,
  judged: readonly JudgedAnswer[],
  at: Date,
): Promise<number> {
  const context = { listId, jobId, at }
  const lines = judged.flatMap((one) => one.lines)
  const addresses = judged.flatMap((one) => one.addresses)
  const ofLines = register
    ? await storeAnswers(tx, LINES, lines, { ...context, provider: register.id, reason: 'line check of a candidate' })
    : { spent: 0 }
  const ofAddresses = verifier
    ? await storeAnswers(tx, ADDRESSES, addresses, {
        ...context,
        provider: verifier.id,
        reason: 'address check of a candidate',
      })
    : { spent: 0 }
  return ofLines.spent + ofAddresses.spent
}

export const foundIn = ({ candidates: all }: JudgedAnswer): readonly Want[] => [
  ...new Set(all.flatMap(({ judgement }) => (judgement.outcome === 'accepted' ? [judgement.found] : []))),
]

/** What came besides, and was not looked for, is neither found nor set aside. */
const isOfWhatWasWanted = ({ judgement }: JudgedCandidate): boolean =>
  judgement.outcome === 'accepted' || judgement.reason !== 'not-wanted'

/** What the provider charges for its answer. */
const chargesOf =
  ({ listId, jobId }: Run, at: Date) =>
  (judged: JudgedAnswer) => {
    const { attempt, provider, items, contact, price } = judged
    const amount = costOfAnswer(atPrice(provider, price), {
      candidates: items.filter(({ number, email }) => (number ?? email ?? '') !== '').length,
      accepted: foundIn(judged).length > 0,
      deliverable: items.filter(({ deliverability }) => deliverability === 'deliverable').length,
    })
    return amount === 0
      ? []
      : [
          {
            listId,
            jobId,
            provider: provider.id,
            subject: String(contact.id),
            contactId: contact.id,
            attemptId: attempt.id,
            question: attempt.id,
            amount,
            reason: `per ${provider.charge.per}`,
            at,
          },
        ]
  }

async function keepCandidates(tx: Db, judged: readonly JudgedAnswer[]): Promise<void> {
  const rows = judged.flatMap(({ attempt, candidates: all }) => all.map(asCandidate(attempt.id)))
  await insertRows(tx, candidates, rows)
}

const asCandidate =
  (attemptId: string) =>
  ({ raw, score, isAddress, judgement }: JudgedCandidate, position: number) => ({
    attemptId,
    position,
    raw,
    score: Math.round(score),
    e164: isAddress ? null : judgement.value,
    address: isAddress ? judgement.value : null,
    outcome: judgement.outcome === 'accepted' ? 'accepted' : judgement.reason,
    keptAs: judgement.outcome === 'accepted' ? null : judgement.keptAs,
  })

/** Turns what was set aside into what was really spent. */
async function settleReserve(
  tx: Db,
  jobId: string,
  { reserved, spent }: { readonly reserved: number; readonly spent: number },
): Promise<void> {
  await tx
    .update(fillRuns)
    .set({ reserved: sql`reserved - ${reserved}`, spent: sql`spent + ${spent}` })
    .where(eq(fillRuns.jobId, jobId))
}

async function endAttempts(tx: Db, ended: readonly Ended[], at: Date): Promise<void> {
  const ends = ended.map((one) => {
    const { id } = attemptOf(one)
    if (one.as !== 'judged') return { id, state: one.as, reason: one.reason, found: '' }
    const found = foundIn(one.judged)
    const state =
      found.length > 0 ? 'accepted' : one.judged.candidates.some(isOfWhatWasWanted) ? 'set-aside' : 'nothing'
    return { id, state, reason: null, found: found.join() }
  })
  const column = <K extends keyof (typeof ends)[number]>(key: K) => sql.param(ends.map((one) => one[key]))
  await tx.execute(sql`
    update attempts a set state = n.state, reason = n.reason, reserved = 0, answer = null,
      found = case when n.found = '' then '{}'::text[] else string_to_array(n.found, ',') end,
      answered_at = coalesce(a.answered_at, ${at.toISOString()})
    from unnest(${column('id')}::uuid[], ${column('state')}::text[], ${column('reason')}::text[], ${column('found')}::text[])
      as n(id, state, reason, found)
    where a.id = n.id`)
}

/** Searches whose question was answered are open again: what comes next is decided by their attempts. */
const goOn = (tx: Db, run: Run, ended: readonly Ended[]): Promise<void> =>
  setStates(
    tx,
    run.jobId,
    ended.map((one) => ({ contactId: attemptOf(one).contactId, state: 'open' })),
  )

/** Keeps what was accepted, and what is worth keeping besides. @returns what was not kept before */
async function keepFound(
  tx: Db,
  { listId }: Run,
  judged: readonly JudgedAnswer[],
  madeAt: Date,
): Promise<readonly FoundValue[]> {
  const rows = judged.flatMap(({ attempt, contact, provider, candidates: all }) =>
    all.flatMap(({ judgement, isAddress }) => {
      const foundAs = judgement.outcome === 'accepted' ? judgement.found : judgement.keptAs
      if (foundAs === null || judgement.value === null) return []
      const value = isAddress ? { e164: null, address: judgement.value } : { e164: judgement.value, address: null }
      return [
        { listId, contactId: contact.id, attemptId: attempt.id, provider: provider.id, foundAs, madeAt, ...value },
      ]
    }),
  )
  const known = await filledValues(
    tx,
    rows.map(({ contactId }) => contactId),
  )
  const fresh: (typeof rows)[number][] = []
  for (const row of rows) {
    const { contactId, value } = foundValueOf(row)
    const key = `${contactId} ${value}`
    if (known.has(key)) continue
    known.add(key)
    fresh.push(row)
  }
  if (fresh.length === 0) return []
  await insertRows(tx, fills, fresh)
  await tellWebhooks(
    tx,
    listId,
    'contact.filled',
    fresh.map(({ contactId, foundAs, provider }) => ({ contactId, foundAs, provider })),
  )
  return fresh.map(foundValueOf)
}

async function filledValues(tx: Db, contactIds: readonly number[]): Promise<Set<string>> {
  const held = await readRows(tx, { contactId: num, value: text })`
    select contact_id, coalesce(e164, address) as value from fills
    where contact_id = any(${sql.param([...new Set(contactIds)])}::bigint[]) and undone_at is null`
  return new Set(held.map(({ contactId, value }) => `${contactId} ${value}`))
}
