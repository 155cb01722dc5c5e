import { REGISTER } from '@upper-field/core/fill'
import { sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { charges, numbers } from '../db/schema'
import { costOfRegister, type RegisterAnswer } from './register'

export interface AnswerContext {
  readonly listId: string
  readonly jobId: string
  readonly contactId?: number
  readonly reason: 'line check' | 'line check of a candidate'
  readonly at: Date
}

/** Keeps the register's answers on the numbers, and each charge once, however often this is repeated. */
export async function storeAnswers(tx: Db, answers: readonly RegisterAnswer[], context: AnswerContext): Promise<void> {
  for (const answer of answers) {
    const cost = costOfRegister(answer)
    if (cost > 0) {
      const facts = {
        lineType: answer.lineType,
        status: answer.status,
        carrier: answer.carrier,
        isPorted: answer.ported,
        timeZone: answer.timeZone,
        lastSeen: answer.lastSeen,
        checkedAt: context.at,
      }
      await tx
        .insert(numbers)
        .values({ e164: answer.number, ...facts })
        .onConflictDoUpdate({ target: numbers.e164, set: facts })
      await tx
        .insert(charges)
        .values({
          listId: context.listId,
          jobId: context.jobId,
          provider: REGISTER.id,
          subject: answer.number,
          contactId: context.contactId ?? null,
          amount: cost,
          reason: context.reason,
          at: context.at,
        })
        .onConflictDoNothing()
    }
    await tx.execute(sql`
      insert into line_checks (job_id, e164, line_type, status, carrier, cost, answered_at)
      values (${context.jobId}, ${answer.number}, ${answer.lineType}, ${answer.status}, ${answer.carrier}, ${cost}, ${context.at.toISOString()})
      on conflict (job_id, e164) do update set line_type = excluded.line_type, status = excluded.status,
        carrier = excluded.carrier, cost = excluded.cost, answered_at = excluded.answered_at`)
  }
}

/** Contacts of every list that hold one of these numbers: what was learnt changes them all. */
export async function holdersOf(tx: Db, e164s: readonly string[]): Promise<{ id: number; listId: string }[]> {
  const { rows } = await tx.execute<{ id: string; list_id: string }>(
    sql`select distinct contact_id as id, list_id from contact_numbers where e164 = any(${sql.param(e164s)}::text[])`,
  )
  return rows.map((row) => ({ id: Number(row.id), listId: row.list_id }))
}
