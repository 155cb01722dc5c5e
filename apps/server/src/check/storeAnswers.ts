import { sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { charges, numbers } from '../db/schema'
import { costOfRegister, type RegisterAnswer, type RegisterTerms } from './register'

export interface AnswerContext {
  readonly listId: string
  readonly jobId: string
  /** Who answered, and what an answer costs there. */
  readonly register: RegisterTerms
  readonly contactId?: number
  readonly attemptId?: string
  readonly reason: 'line check' | 'line check of a candidate'
  /** The key a number was asked about under: the register has charged it once, however often it was asked. */
  readonly questionOf: (number: string) => string
  readonly at: Date
}

/**
 * Keeps the register's answers on the numbers, and each charge once, however often this is repeated and whoever else
 * asked the same question. @returns what was charged now, and was not before
 */
export async function storeAnswers(
  tx: Db,
  answers: readonly RegisterAnswer[],
  context: AnswerContext,
): Promise<{ readonly spent: number }> {
  let spent = 0
  for (const answer of answers) {
    const cost = costOfRegister(answer, context.register)
    if (cost > 0) {
      await storeFacts(tx, answer, context.at)
      if (await charge(tx, answer.number, cost, context)) spent += cost
    }
    await tx.execute(sql`
      insert into line_checks (job_id, e164, line_type, status, carrier, cost, answered_at)
      values (${context.jobId}, ${answer.number}, ${answer.lineType}, ${answer.status}, ${answer.carrier}, ${cost}, ${context.at.toISOString()})
      on conflict (job_id, e164) do update set line_type = excluded.line_type, status = excluded.status,
        carrier = excluded.carrier, cost = excluded.cost, answered_at = excluded.answered_at`)
  }
  return { spent }
}

async function storeFacts(tx: Db, answer: RegisterAnswer, checkedAt: Date): Promise<void> {
  const facts = {
    lineType: answer.lineType,
    status: answer.status,
    carrier: answer.carrier,
    isPorted: answer.ported,
    timeZone: answer.timeZone,
    lastSeen: answer.lastSeen,
    checkedAt,
  }
  await tx
    .insert(numbers)
    .values({ e164: answer.number, ...facts })
    .onConflictDoUpdate({ target: numbers.e164, set: facts })
}

async function charge(tx: Db, number: string, amount: number, context: AnswerContext): Promise<boolean> {
  const { listId, jobId, contactId = null, attemptId = null, reason, questionOf, at } = context
  const made = await tx
    .insert(charges)
    .values({
      listId,
      jobId,
      contactId,
      attemptId,
      reason,
      at,
      provider: context.register.id,
      subject: number,
      question: questionOf(number),
      amount,
    })
    .onConflictDoNothing()
    .returning({ id: charges.id })
  return made.length > 0
}

/** Contacts of every list that hold one of these numbers: what was learnt changes them all. */
export async function holdersOf(tx: Db, e164s: readonly string[]): Promise<{ id: number; listId: string }[]> {
  const { rows } = await tx.execute<{ id: string; list_id: string }>(
    sql`select distinct contact_id as id, list_id from contact_numbers where e164 = any(${sql.param(e164s)}::text[])`,
  )
  return rows.map((row) => ({ id: Number(row.id), listId: row.list_id }))
}
