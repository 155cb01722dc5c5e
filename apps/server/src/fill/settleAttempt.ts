import { needsCheck } from '@upper-field/core/check'
import type { AnswerItem } from '@upper-field/core/connect'
import {
  type Asking,
  type CandidateJudgement,
  costOfAnswer,
  judgeCandidate,
  type ProviderTerms,
} from '@upper-field/core/fill'
import { areNamesCompatible } from '@upper-field/core/pair'
import { readPhoneCell } from '@upper-field/core/phone'
import { eq, sql } from 'drizzle-orm'
import { type FactAnswer, type FactTerms, openFacts } from '../check/openFacts'
import { readFreshDays } from '../check/settings'
import { holdersOf, storeAnswers } from '../check/storeAnswers'
import { LINES, type LineAnswer } from '../check/subjects'
import { answerProblemOf } from '../connections/client'
import { type Db, transaction } from '../db/database'
import { attempts, candidates, charges, fills } from '../db/schema'
import { withListLock } from '../lists/listLock'
import { factsOfNumbers } from '../projection/facts'
import { refreshContacts } from '../projection/refresh'
import type { Services } from '../services'
import { type Candidate, candidatesIn, reportAccepted } from './askProvider'
import { settleReserve } from './budget'
import type { WantingContact } from './wanting'

export type AttemptRow = typeof attempts.$inferSelect

interface Judged {
  readonly raw: string
  readonly score: number
  readonly judgement:
    | CandidateJudgement
    | { readonly outcome: 'set-aside'; readonly reason: 'later-than-first'; readonly e164: string | null }
  readonly bought: Bought | null
}

interface Bought {
  readonly answer: FactAnswer<LineAnswer>
  /** The key it was asked about under. */
  readonly question: string
  readonly register: FactTerms
}

/** On which terms an answer is judged and paid. Without a register numbers are taken by what their plan says. */
export interface SettleTerms {
  readonly provider: ProviderTerms
  readonly register: FactTerms | null
  readonly asking: Asking
  /** Who was asked about. */
  readonly contact: Pick<WantingContact, 'country' | 'fullName'>
}

/**
 * Reads, checks and judges the candidates of one answer and books what they cost, in one transaction. Repeating it
 * after a crash asks the register the same question under the same key and books nothing twice.
 */
export async function settleAnswer(
  services: Services,
  attempt: AttemptRow,
  items: readonly AnswerItem[],
  { provider, register, asking, contact }: SettleTerms,
): Promise<void> {
  const all = candidatesIn(items)
  const how = { checksLines: register !== null, contact }
  const judged = await judgeAll(services, attempt, all.slice(0, provider.mostCandidates), how)
  const accepted = judged.find(({ judgement }) => judgement.outcome === 'accepted')
  const acceptedNumber = accepted?.judgement.e164 ?? null
  if (acceptedNumber) await reportAccepted(services, provider.id, attempt.id)
  const at = new Date(services.now())
  const holding = { work: 'fill' as const, jobId: attempt.jobId }
  await withListLock(services, attempt.listId, holding, async (tx, client) => {
    const [open] = await tx.select().from(attempts).where(eq(attempts.id, attempt.id)).for('update')
    if (open?.state !== 'waiting') return
    const bought = judged.flatMap((one) => one.bought ?? [])
    let spent = 0
    for (const { answer, question, register } of bought) {
      const stored = await storeAnswers(tx, LINES, [answer], {
        listId: attempt.listId,
        jobId: attempt.jobId,
        provider: register.id,
        contactId: attempt.contactId,
        attemptId: attempt.id,
        reason: 'line check of a candidate',
        questionOf: () => question,
        at,
      })
      spent += stored.spent
    }
    if (judged.length > 0) await tx.insert(candidates).values(judged.map(asCandidate(attempt.id)))
    const cost = costOfAnswer(provider, {
      candidates: all.length,
      accepted: acceptedNumber !== null,
      deliverable: items.filter(({ deliverability }) => deliverability === 'deliverable').length,
    })
    if (cost > 0) {
      const charged = await tx
        .insert(charges)
        .values({
          listId: attempt.listId,
          jobId: attempt.jobId,
          provider: provider.id,
          subject: String(attempt.contactId),
          contactId: attempt.contactId,
          attemptId: attempt.id,
          question: attempt.id,
          amount: cost,
          reason: `per ${provider.charge.per}`,
          at,
        })
        .onConflictDoNothing()
        .returning({ id: charges.id })
      if (charged.length > 0) spent += cost
    }
    await settleReserve(tx, attempt.jobId, { reserved: attempt.reserved, spent })
    const state = acceptedNumber ? 'accepted' : judged.length > 0 ? 'set-aside' : 'nothing'
    await tx
      .update(attempts)
      .set({ state, answeredAt: attempt.answeredAt ?? at, reserved: 0 })
      .where(eq(attempts.id, attempt.id))
    await setSearch(tx, attempt, acceptedNumber && asking === 'until-found' ? 'found' : 'open')
    if (!acceptedNumber || (await isFilled(tx, attempt.contactId, acceptedNumber))) return
    await tx.insert(fills).values({
      listId: attempt.listId,
      contactId: attempt.contactId,
      attemptId: attempt.id,
      provider: provider.id,
      e164: acceptedNumber,
      madeAt: at,
    })
    // Whoever holds this number already shares it from now on.
    const holders = (await holdersOf(tx, LINES, [acceptedNumber])).filter(({ listId }) => listId === attempt.listId)
    await refreshContacts(tx, client, [attempt.contactId, ...holders.map(({ id }) => id)])
  })
}

const asCandidate = (attemptId: string) => (one: Judged, position: number) => ({
  attemptId,
  position,
  raw: one.raw,
  score: Math.round(one.score),
  e164: one.judgement.e164,
  outcome: one.judgement.outcome === 'accepted' ? 'accepted' : one.judgement.reason,
})

/** Ends an attempt that brought no answer and gives back what was set aside for it. */
export async function endAttempt(
  services: Services,
  attempt: AttemptRow,
  { state, reason }: { readonly state: 'failed' | 'late'; readonly reason: string | null },
): Promise<void> {
  await transaction(services.pool, async (tx) => {
    const [open] = await tx.select().from(attempts).where(eq(attempts.id, attempt.id)).for('update')
    if (open?.state !== 'waiting') return
    await settleReserve(tx, attempt.jobId, { reserved: attempt.reserved, spent: 0 })
    await tx
      .update(attempts)
      .set({ state, reason, reserved: 0, answeredAt: new Date(services.now()) })
      .where(eq(attempts.id, attempt.id))
    await setSearch(tx, attempt, 'open')
  })
}

const setSearch = (tx: Db, attempt: AttemptRow, state: string) =>
  tx.execute(
    sql`update fill_searches set state = ${state} where job_id = ${attempt.jobId} and contact_id = ${attempt.contactId}`,
  )

/** Candidates in their order of score; once one is accepted the others are not checked any more. */
async function judgeAll(
  services: Services,
  attempt: AttemptRow,
  answer: readonly Candidate[],
  how: { checksLines: boolean; contact: SettleTerms['contact'] },
): Promise<Judged[]> {
  const known = await knownBefore(services.db, attempt)
  const judged: Judged[] = []
  for (const { number, score, name } of answer) {
    const reading = readPhoneCell(number, { country: how.contact.country || null })
    const e164 = reading.numbers.find(({ valid }) => valid)?.e164 ?? null
    if (judged.some(({ judgement }) => judgement.outcome === 'accepted')) {
      judged.push({
        raw: number,
        score,
        judgement: { outcome: 'set-aside', reason: 'later-than-first', e164 },
        bought: null,
      })
      continue
    }
    const isOther = name !== '' && !areNamesCompatible(name, how.contact.fullName)
    const first = judgeCandidate({ reading, register: null, known, isOther })
    if (first.outcome === 'set-aside' || !how.checksLines || !e164) {
      judged.push({ raw: number, score, judgement: first, bought: null })
      continue
    }
    const checked = await checkLine(services, e164, attempt.askedAt).catch((error: unknown) => {
      if (answerProblemOf(error) === null) throw error
      return null
    })
    if (checked === null) {
      judged.push({
        raw: number,
        score,
        judgement: { outcome: 'set-aside', reason: 'not-checked', e164 },
        bought: null,
      })
      continue
    }
    judged.push({
      raw: number,
      score,
      judgement: judgeCandidate({ reading, register: checked.line, known, isOther }),
      bought: checked.bought,
    })
  }
  return judged
}

/** Numbers a contact had before this run: that another provider gave the same says what each is worth. */
async function knownBefore(db: Db, { contactId, jobId }: AttemptRow): Promise<string[]> {
  const { rows } = await db.execute<{ e164: string }>(sql`
    select e164 from contact_numbers n where contact_id = ${contactId} and not (n.origin = 'fill' and exists (
      select 1 from fills f join attempts a on a.id = f.attempt_id
      where f.contact_id = n.contact_id and f.e164 = n.e164 and a.job_id = ${jobId}))`)
  return rows.map(({ e164 }) => e164)
}

async function isFilled(tx: Db, contactId: number, e164: string): Promise<boolean> {
  const { rows } = await tx.execute(
    sql`select 1 from fills where contact_id = ${contactId} and e164 = ${e164} and undone_at is null limit 1`,
  )
  return rows.length > 0
}

/**
 * The register's word on a number: what is known and fresh, else asked for. Whoever asks while the same is known of a
 * number asks the same question, in this fill or another: the register answers it once and is paid once.
 */
async function checkLine(services: Services, e164: string, askedAt: Date) {
  const facts = (await factsOfNumbers(services.db, [e164])).get(e164)
  if (facts?.lineType && !needsCheck(facts, services.now(), await readFreshDays(services.db))) {
    return { line: { lineType: facts.lineType, isOutOfService: facts.status === 'out-of-service' }, bought: null }
  }
  const register = await openFacts(services, LINES)
  const question = `line:${e164}:${facts?.checkedAt ?? 'never'}:${askedAt.toISOString().slice(0, 10)}`
  const answer = await register.askOne(e164, question)
  return {
    line: { lineType: answer.told.lineType, isOutOfService: answer.told.status === 'out-of-service' },
    bought: { answer, question, register: register.terms },
  }
}
