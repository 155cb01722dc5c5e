import {
  type AddressFacts,
  type Deliverability,
  needsCheck,
  needsVerifying,
  type RegisterFacts,
} from '@upper-field/core/check'
import type { AnswerItem } from '@upper-field/core/connect'
import {
  type Judgement,
  judgeAddress,
  judgeNumber,
  type ProviderTerms,
  satisfies,
  stillWanted,
  type Want,
} from '@upper-field/core/fill'
import { areNamesCompatible } from '@upper-field/core/pair'
import { type Reading, readPhoneCell } from '@upper-field/core/phone'
import { readEmails } from '@upper-field/core/tidy'
import { sql } from 'drizzle-orm'
import { type FactService, openFacts } from '../check/openFacts'
import { readFreshDays } from '../check/settings'
import type { Bought } from '../check/storeAnswers'
import { ADDRESSES, type AddressAnswer, LINES, type LineAnswer } from '../check/subjects'
import { answerProblemOf } from '../connections/client'
import { listOf, num, readRows, text, word } from '../db/readRows'
import { factsOfAddresses, factsOfNumbers } from '../projection/facts'
import type { Services } from '../services'
import { type Candidate, candidatesIn } from './askProvider'
import { conditionOf } from './plan'
import type { AttemptRow, Run, SearchedContact } from './run'

/** An answer that is to be judged. */
export interface Answered {
  readonly attempt: AttemptRow
  readonly contact: SearchedContact
  readonly provider: ProviderTerms
  readonly items: readonly AnswerItem[]
  /** What one charge costs by the answer's own word; null where it tells nothing of it. */
  readonly price: number | null
}

export interface JudgedCandidate {
  readonly raw: string
  readonly score: number
  readonly isAddress: boolean
  readonly judgement: Judgement
}

/** An answer with what was made of it, and what was bought to know that. */
export interface JudgedAnswer extends Answered {
  readonly candidates: readonly JudgedCandidate[]
  readonly lines: readonly Bought<LineAnswer>[]
  readonly addresses: readonly Bought<AddressAnswer>[]
}

/** What checks are done with: facts that are known and fresh, and whom to ask else. */
export interface Checks {
  /** The register's word on a number; null where lines are not checked. Throws a job problem where it cannot be had. */
  readonly line: ((e164: string, about: AttemptRow) => Promise<Checked<LineAnswer> | null>) | null
  /** The verifier's word on an address; null in it where the answer comes later. */
  readonly address: ((address: string, about: AttemptRow) => Promise<Checked<AddressAnswer> | null>) | null
  /** Numbers and addresses that contacts had before this run. */
  readonly known: ReadonlyMap<number, readonly string[]>
  /** What earlier attempts of this run have found, by contact. */
  readonly found: ReadonlyMap<number, readonly Want[]>
}

interface Checked<A> {
  readonly told: A
  readonly bought: Bought<A> | null
}

/**
 * Judges an answer: its candidates in their order of score, numbers and addresses each by themselves; once what is wanted
 * of a kind is accepted, the others are not checked any more. Null where a check is still awaited.
 */
export async function judgeAnswer(run: Run, answered: Answered, checks: Checks): Promise<JudgedAnswer | null> {
  const { items, provider } = answered
  const judging: Judging = {
    run,
    answered,
    checks,
    wants: wantsOf(run, answered, checks),
    candidates: [],
    lines: [],
    addresses: [],
  }
  for (const one of candidatesIn(items, 'number').slice(0, provider.mostCandidates)) await takeNumber(judging, one)
  for (const one of candidatesIn(items, 'email').slice(0, provider.mostCandidates))
    if (!(await takeAddress(judging, one))) return null
  const { candidates, lines, addresses } = judging
  return { ...answered, candidates, lines, addresses }
}

interface Judging {
  readonly run: Run
  readonly answered: Answered
  readonly checks: Checks
  /** What is looked for in this answer. */
  readonly wants: readonly Want[]
  readonly candidates: JudgedCandidate[]
  readonly lines: Bought<LineAnswer>[]
  readonly addresses: Bought<AddressAnswer>[]
}

/** Where everybody is asked, what one has found is no reason not to look at what the other gives. */
const wantsOf = ({ asking }: Run, { contact }: Answered, { found }: Checks): readonly Want[] =>
  asking === 'everybody' ? contact.lacks : stillWanted(contact.lacks, found.get(contact.id) ?? [])

/** What all candidates of an answer have in common. */
function ofWhom({ run, answered: { contact, provider }, checks, wants }: Judging, { name, score }: Candidate) {
  return {
    wants,
    known: checks.known.get(contact.id) ?? [],
    isOther: name !== '' && !areNamesCompatible(name, contact.fullName),
    isUnsure: score < conditionOf(run.options, provider.id).minScore,
  }
}

async function takeNumber(judging: Judging, candidate: Candidate): Promise<void> {
  const { answered, checks } = judging
  const reading = readPhoneCell(candidate.raw, { country: answered.contact.country || null })
  const whose = ofWhom(judging, candidate)
  const first = judgeNumber({ ...whose, reading, register: null })
  const isEnough = judging.candidates.some(
    ({ judgement }) =>
      judgement.outcome === 'accepted' && first.outcome === 'accepted' && satisfies(judgement.found, first.found),
  )
  judging.candidates.push({
    raw: candidate.raw,
    score: candidate.score,
    isAddress: false,
    judgement: isEnough ? notNeeded(first) : await checkedNumber(judging, first, { ...whose, reading }, checks),
  })
}

const notNeeded = ({ value }: Judgement): Judgement => ({
  outcome: 'set-aside',
  reason: 'later-than-first',
  value,
  keptAs: null,
})

type Whose = ReturnType<typeof ofWhom>

async function checkedNumber(
  { answered: { attempt }, lines }: Judging,
  first: Judgement,
  whose: Whose & { readonly reading: Reading },
  { line }: Checks,
): Promise<Judgement> {
  if (first.outcome === 'set-aside' || !line) return first
  const checked = await orNull(line(first.value, attempt))
  if (checked === null) return { outcome: 'set-aside', reason: 'not-checked', value: first.value, keptAs: null }
  if (checked.bought) lines.push(checked.bought)
  const { lineType, status } = checked.told
  return judgeNumber({ ...whose, register: { lineType, isOutOfService: status === 'out-of-service' } })
}

/** @returns false where the verifier's answer is still awaited */
async function takeAddress(judging: Judging, candidate: Candidate): Promise<boolean> {
  const { checks, answered, addresses } = judging
  const whose = ofWhom(judging, candidate)
  const [email = null] = readEmails(candidate.raw)
  const said = DELIVERABILITY.get(candidate.deliverability ?? '') ?? null
  const first = judgeAddress({ ...whose, email, verified: said === 'undeliverable' ? said : null })
  const take = (judgement: Judgement) =>
    judging.candidates.push({ raw: candidate.raw, score: candidate.score, isAddress: true, judgement })
  if (first.outcome === 'set-aside') return take(first) > 0
  const isEnough = judging.candidates.some(
    ({ judgement }) => judgement.outcome === 'accepted' && judgement.found === first.found,
  )
  if (isEnough) return take(notNeeded(first)) > 0
  if (!checks.address) return take(judgeAddress({ ...whose, email, verified: said })) > 0
  const checked = await orNull(checks.address(first.value, answered.attempt).then((told) => told ?? 'later'))
  if (checked === 'later') return false
  if (checked?.bought) addresses.push(checked.bought)
  return take(judgeAddress({ ...whose, email, verified: checked?.told.deliverability ?? 'unknown' })) > 0
}

const DELIVERABILITY = new Map<string, Deliverability>(
  (['deliverable', 'accept-all', 'undeliverable', 'unknown'] as const).map((one) => [one, one]),
)

/** An odd answer of a checking service concerns this candidate alone; whatever concerns the whole run is thrown on. */
const orNull = <T>(checking: Promise<T>): Promise<T | null> =>
  checking.catch((error: unknown) => {
    if (answerProblemOf(error) === null) throw error
    return null
  })

/** Everything that is needed to judge these answers: what is known is read for all of them at once. */
export async function openChecks(services: Services, run: Run, answers: readonly Answered[]): Promise<Checks> {
  const { db, now } = services
  const days = await readFreshDays(db)
  const ids = [...new Set(answers.map(({ contact }) => contact.id))]
  const e164s = answers.flatMap(({ items, contact }) =>
    candidatesIn(items, 'number').flatMap(({ raw }) =>
      readPhoneCell(raw, { country: contact.country || null }).numbers.map(({ e164 }) => e164),
    ),
  )
  const emails = answers.flatMap(({ items }) =>
    candidatesIn(items, 'email').flatMap(({ raw }) => readEmails(raw).map(({ address }) => address)),
  )
  const facts = run.plan.register ? await factsOfNumbers(db, [...new Set(e164s)]) : new Map<string, RegisterFacts>()
  const verified = run.plan.verifier
    ? await factsOfAddresses(db, [...new Set(emails)])
    : new Map<string, AddressFacts>()
  const register = run.plan.register && lazily(() => openFacts(services, LINES))
  const verifier = run.plan.verifier && lazily(() => openFacts(services, ADDRESSES))
  return {
    known: await knownBefore(services, run, ids),
    found: await foundBefore(services, run, ids),
    line:
      register &&
      (async (e164, attempt) => {
        const known = facts.get(e164)
        if (known?.lineType && !needsCheck(known, now(), days))
          return {
            told: { ...LINES.unknown(e164), lineType: known.lineType, status: known.status ?? 'unknown' },
            bought: null,
          }
        return buy(await register(), e164, questionOf('line', e164, known?.checkedAt ?? null, attempt), attempt)
      }),
    address:
      verifier &&
      (async (address, attempt) => {
        const known = verified.get(address)
        if (known && !needsVerifying(known, now(), days))
          return { told: { email: address, deliverability: known.deliverability }, bought: null }
        const question = questionOf('address', address, known?.checkedAt ?? null, attempt)
        const bought = await buy(await verifier(), address, question, attempt)
        const isOverdue = attempt.deadline !== null && attempt.deadline.getTime() < now()
        return bought ?? (isOverdue ? { told: ADDRESSES.unknown(address), bought: null } : null)
      }),
  }
}

/**
 * Whoever asks while the same is known of a number asks the same question, in this fill or another: it is answered once
 * and paid once.
 */
const questionOf = (kind: string, about: string, checkedAt: number | null, { askedAt }: AttemptRow): string =>
  `${kind}:${about}:${checkedAt ?? 'never'}:${askedAt.toISOString().slice(0, 10)}`

async function buy<A>(
  service: FactService<A>,
  about: string,
  question: string,
  { id: attemptId, contactId }: AttemptRow,
): Promise<Checked<A> | null> {
  const answer = await service.askOne(about, question)
  return answer && { told: answer.told, bought: { ...answer, question, attemptId, contactId } }
}

function lazily<T>(open: () => Promise<T>): () => Promise<T> {
  let opened: Promise<T> | null = null
  return () => {
    opened ??= open()
    return opened
  }
}

/** What contacts had before this run: that another provider gave the same says what each is worth. */
async function knownBefore(
  { db }: Services,
  { jobId }: Run,
  ids: readonly number[],
): Promise<ReadonlyMap<number, readonly string[]>> {
  const these = sql`any(${sql.param([...ids])}::bigint[])`
  const held = await readRows(db, { contactId: num, known: listOf(text) })`
    select contact_id, array_agg(value) as known from (
      select contact_id, e164 as value from contact_numbers n where contact_id = ${these} and not (n.origin = 'fill' and exists (
        select 1 from fills f join attempts a on a.id = f.attempt_id
        where f.contact_id = n.contact_id and f.e164 = n.e164 and a.job_id = ${jobId}))
      union all
      select contact_id, address from contact_emails e where contact_id = ${these} and not exists (
        select 1 from fills f join attempts a on a.id = f.attempt_id
        where f.contact_id = e.contact_id and f.address = e.address and a.job_id = ${jobId})
    ) known group by contact_id`
  return new Map(held.map(({ contactId, known }) => [contactId, known]))
}

async function foundBefore(
  { db }: Services,
  { jobId }: Run,
  ids: readonly number[],
): Promise<ReadonlyMap<number, readonly Want[]>> {
  const before = await readRows(db, { contactId: num, found: listOf(word<Want>) })`
    select contact_id, array_agg(one) as found from attempts, unnest(found) as one
    where job_id = ${jobId} and contact_id = any(${sql.param([...ids])}::bigint[]) group by contact_id`
  return new Map(before.map(({ contactId, found }) => [contactId, found]))
}
