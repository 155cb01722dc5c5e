import type { CheckOf } from '@upper-field/contract'
import {
  addressAgesAs,
  DELIVERABILITIES,
  type Deliverability,
  LINE_STATUSES,
  lineAgesAs,
} from '@upper-field/core/check'
import type { AnswerItem, Gives } from '@upper-field/core/connect'
import { LINE_TYPES } from '@upper-field/core/phone'
import { sql } from 'drizzle-orm'
import { z } from 'zod'
import type { Db } from '../db/database'
import { asGiven, insertRows } from '../db/insertRows'
import { addressChecks, addresses, doNotCall, doNotCallChecks, lineChecks, numbers } from '../db/schema'
import { suppressListed } from './suppressListed'

/** An answer as it is written down beside its question: what was told, and what it cost. */
export interface Noted<A> {
  readonly told: A
  readonly cost: number
}

/** One kind of thing that is checked: who tells of it, and where what was told is kept. */
export interface Subject<A> {
  readonly of: CheckOf
  readonly gives: Gives
  /** What it is called in a question about one, and about many. */
  readonly names: { readonly one: 'number' | 'email'; readonly many: 'numbers' | 'emails' }
  /** Tables and column: the questions, what is known for all lists, and who holds it. */
  readonly checks: string
  readonly facts: string
  readonly holders: string
  readonly column: string
  /** Which of those held are worth asking about, as a condition on the holders `n`. */
  readonly isWorth: string
  /** Country of what the holders `n` hold, where a service may know some countries alone. */
  readonly country: string | null
  /** Whether the facts `f` say that a register holds it, as a condition. */
  readonly isListed: string
  readonly reason: string
  /** Null for an answer that cannot be read. */
  readonly read: (item: AnswerItem) => A | null
  readonly subjectOf: (answer: A) => string
  /** What counts as told where it was left out of an answer. */
  readonly unknown: (subject: string) => A
  readonly toldNothing: (answer: A) => boolean
  /** Keeps what was told for all lists. No two of the answers are about the same. */
  readonly storeFacts: (tx: Db, answers: readonly A[], at: Date) => Promise<void>
  /** Writes answers down beside their questions. No two of them are about the same. */
  readonly noteAnswers: (tx: Db, jobId: string, answers: readonly Noted<A>[], at: Date) => Promise<void>
}

const LineAnswer = z.object({
  number: z.string(),
  lineType: z.enum(LINE_TYPES),
  status: z.enum(LINE_STATUSES),
  carrier: z.string().nullable().default(null),
  ported: z.boolean().nullable().default(null),
  timeZone: z.string().nullable().default(null),
  lastSeen: z.string().nullable().default(null),
})
export type LineAnswer = z.infer<typeof LineAnswer>

export const LINES: Subject<LineAnswer> = {
  of: 'numbers',
  gives: 'line-facts',
  names: { one: 'number', many: 'numbers' },
  checks: 'line_checks',
  facts: 'numbers',
  holders: 'contact_numbers',
  column: 'e164',
  isWorth: 'n.is_valid',
  country: 'n.country',
  isListed: 'false',
  reason: 'line check',
  read: (item) => LineAnswer.safeParse(item).data ?? null,
  subjectOf: ({ number }) => number,
  unknown: (number) => LineAnswer.parse({ number, lineType: 'unknown', status: 'unknown' }),
  toldNothing: ({ lineType, status }) => lineType === 'unknown' && status === 'unknown',
  async storeFacts(tx, answers, checkedAt) {
    const facts = answers.map(({ number, lineType, status, carrier, ported, timeZone, lastSeen }) => ({
      e164: number,
      lineType,
      status,
      carrier,
      isPorted: ported,
      timeZone,
      lastSeen,
      checkedAt,
      agesAs: lineAgesAs(lineType, status),
    }))
    await insertRows(
      tx,
      numbers,
      facts,
      sql`on conflict (e164) do update ${asGiven('line_type', 'status', 'carrier', 'is_ported', 'time_zone', 'last_seen', 'checked_at', 'ages_as')}`,
    )
  },
  async noteAnswers(tx, jobId, answers, answeredAt) {
    const rows = answers.map(({ told: { number, lineType, status, carrier }, cost }) => ({
      jobId,
      e164: number,
      lineType,
      status,
      carrier,
      cost,
      answeredAt,
    }))
    await insertRows(
      tx,
      lineChecks,
      rows,
      sql`on conflict (job_id, e164) do update ${asGiven('line_type', 'status', 'carrier', 'cost', 'answered_at')}`,
    )
  },
}

const AddressAnswer = z.object({
  email: z.string().transform((email) => email.toLowerCase()),
  deliverability: z.enum(DELIVERABILITIES),
})
export type AddressAnswer = { readonly email: string; readonly deliverability: Deliverability }

export const ADDRESSES: Subject<AddressAnswer> = {
  of: 'addresses',
  gives: 'email-facts',
  names: { one: 'email', many: 'emails' },
  checks: 'address_checks',
  facts: 'addresses',
  holders: 'contact_emails',
  column: 'address',
  // What is thrown away after an hour needs no verifier.
  isWorth: "n.kind <> 'throwaway'",
  country: null,
  isListed: 'false',
  reason: 'address check',
  read: (item) => AddressAnswer.safeParse(item).data ?? null,
  subjectOf: ({ email }) => email,
  unknown: (email) => ({ email, deliverability: 'unknown' }),
  toldNothing: ({ deliverability }) => deliverability === 'unknown',
  async storeFacts(tx, answers, checkedAt) {
    const facts = answers.flatMap(({ email, deliverability }) => {
      const agesAs = addressAgesAs(deliverability)
      return agesAs === null ? [] : [{ address: email, deliverability, checkedAt, agesAs }]
    })
    await insertRows(
      tx,
      addresses,
      facts,
      sql`on conflict (address) do update ${asGiven('deliverability', 'checked_at', 'ages_as')}`,
    )
  },
  async noteAnswers(tx, jobId, answers, answeredAt) {
    const rows = answers.map(({ told: { email, deliverability }, cost }) => ({
      jobId,
      address: email,
      deliverability,
      cost,
      answeredAt,
    }))
    await insertRows(
      tx,
      addressChecks,
      rows,
      sql`on conflict (job_id, address) do update ${asGiven('deliverability', 'cost', 'answered_at')}`,
    )
  },
}

const ListedAnswer = z.object({
  number: z.string(),
  listed: z.union([z.boolean(), z.enum(['true', 'false']).transform((word) => word === 'true')]),
  register: z.string().max(100).nullable().default(null),
})
/** Whether a number stands on a do-not-call register; null where it was not told. */
export type ListedAnswer = {
  readonly number: string
  readonly listed: boolean | null
  readonly register: string | null
}

export const DO_NOT_CALL: Subject<ListedAnswer> = {
  of: 'do-not-call',
  gives: 'do-not-call',
  names: { one: 'number', many: 'numbers' },
  checks: 'do_not_call_checks',
  facts: 'do_not_call',
  holders: 'contact_numbers',
  column: 'e164',
  isWorth: 'n.is_valid',
  country: 'n.country',
  isListed: 'f.is_listed',
  reason: 'do-not-call check',
  read: (item) => ListedAnswer.safeParse(item).data ?? null,
  subjectOf: ({ number }) => number,
  unknown: (number) => ({ number, listed: null, register: null }),
  toldNothing: ({ listed }) => listed === null,
  async storeFacts(tx, answers, checkedAt) {
    const facts = answers.flatMap(({ number, listed, register }) =>
      listed === null ? [] : [{ e164: number, isListed: listed, register, checkedAt, agesAs: 'do-not-call' as const }],
    )
    await insertRows(
      tx,
      doNotCall,
      facts,
      sql`on conflict (e164) do update ${asGiven('is_listed', 'register', 'checked_at', 'ages_as')}`,
    )
    await suppressListed(tx, facts)
  },
  async noteAnswers(tx, jobId, answers, answeredAt) {
    const rows = answers.map(({ told: { number, listed, register }, cost }) => ({
      jobId,
      e164: number,
      isListed: listed,
      register,
      cost,
      answeredAt,
    }))
    await insertRows(
      tx,
      doNotCallChecks,
      rows,
      sql`on conflict (job_id, e164) do update ${asGiven('is_listed', 'register', 'cost', 'answered_at')}`,
    )
  },
}

/** Does something with the kind of thing that is meant. */
export function withSubject<T>(of: CheckOf, work: <A>(subject: Subject<A>) => T): T {
  if (of === 'addresses') return work(ADDRESSES)
  return of === 'do-not-call' ? work(DO_NOT_CALL) : work(LINES)
}
