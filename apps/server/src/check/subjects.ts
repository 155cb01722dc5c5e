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
import { addresses, numbers } from '../db/schema'

/** Which question was answered, and at what price. */
export interface Noted {
  readonly jobId: string
  readonly cost: number
  readonly at: Date
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
  readonly reason: string
  /** Null for an answer that cannot be read. */
  readonly read: (item: AnswerItem) => A | null
  readonly subjectOf: (answer: A) => string
  /** What counts as told where it was left out of an answer. */
  readonly unknown: (subject: string) => A
  readonly toldNothing: (answer: A) => boolean
  readonly storeFacts: (tx: Db, answer: A, at: Date) => Promise<void>
  readonly noteAnswer: (tx: Db, answer: A, noted: Noted) => Promise<void>
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
  reason: 'line check',
  read: (item) => LineAnswer.safeParse(item).data ?? null,
  subjectOf: ({ number }) => number,
  unknown: (number) => LineAnswer.parse({ number, lineType: 'unknown', status: 'unknown' }),
  toldNothing: ({ lineType, status }) => lineType === 'unknown' && status === 'unknown',
  async storeFacts(tx, { number, lineType, status, carrier, ported, timeZone, lastSeen }, checkedAt) {
    const agesAs = lineAgesAs(lineType, status)
    const facts = { lineType, status, carrier, isPorted: ported, timeZone, lastSeen, checkedAt, agesAs }
    await tx
      .insert(numbers)
      .values({ e164: number, ...facts })
      .onConflictDoUpdate({ target: numbers.e164, set: facts })
  },
  async noteAnswer(tx, { number, lineType, status, carrier }, { jobId, cost, at }) {
    await tx.execute(sql`
      insert into line_checks (job_id, e164, line_type, status, carrier, cost, answered_at)
      values (${jobId}, ${number}, ${lineType}, ${status}, ${carrier}, ${cost}, ${at.toISOString()})
      on conflict (job_id, e164) do update set line_type = excluded.line_type, status = excluded.status,
        carrier = excluded.carrier, cost = excluded.cost, answered_at = excluded.answered_at`)
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
  reason: 'address check',
  read: (item) => AddressAnswer.safeParse(item).data ?? null,
  subjectOf: ({ email }) => email,
  unknown: (email) => ({ email, deliverability: 'unknown' }),
  toldNothing: ({ deliverability }) => deliverability === 'unknown',
  async storeFacts(tx, { email, deliverability }, checkedAt) {
    const agesAs = addressAgesAs(deliverability)
    if (agesAs === null) return
    const facts = { deliverability, checkedAt, agesAs }
    await tx
      .insert(addresses)
      .values({ address: email, ...facts })
      .onConflictDoUpdate({ target: addresses.address, set: facts })
  },
  async noteAnswer(tx, { email, deliverability }, { jobId, cost, at }) {
    await tx.execute(sql`
      insert into address_checks (job_id, address, deliverability, cost, answered_at)
      values (${jobId}, ${email}, ${deliverability}, ${cost}, ${at.toISOString()})
      on conflict (job_id, address) do update set deliverability = excluded.deliverability, cost = excluded.cost,
        answered_at = excluded.answered_at`)
  },
}

/** Does something with the kind of thing that is meant. */
export const withSubject = <T>(of: CheckOf, work: <A>(subject: Subject<A>) => T): T =>
  of === 'addresses' ? work(ADDRESSES) : work(LINES)
