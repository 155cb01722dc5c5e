import { sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { charges } from '../db/schema'
import type { FactAnswer } from './openFacts'
import type { Subject } from './subjects'

export interface AnswerContext {
  readonly listId: string
  readonly jobId: string
  /** Who answered. */
  readonly provider: string
  readonly contactId?: number
  readonly attemptId?: string
  readonly reason: string
  /** The key it was asked about under: the service has charged it once, however often it was asked. */
  readonly questionOf: (subject: string) => string
  readonly at: Date
}

/**
 * Keeps answers on what they are about, and each charge once, however often this is repeated and whoever else asked the
 * same question. @returns what was charged now, and was not before
 */
export async function storeAnswers<A>(
  tx: Db,
  subject: Subject<A>,
  answers: readonly FactAnswer<A>[],
  context: AnswerContext,
): Promise<{ readonly spent: number }> {
  let spent = 0
  for (const { told, cost } of answers) {
    if (!subject.toldNothing(told)) await subject.storeFacts(tx, told, context.at)
    if (cost > 0 && (await charge(tx, subject.subjectOf(told), cost, context))) spent += cost
    await subject.noteAnswer(tx, told, { jobId: context.jobId, cost, at: context.at })
  }
  return { spent }
}

async function charge(tx: Db, about: string, amount: number, context: AnswerContext): Promise<boolean> {
  const { listId, jobId, provider, contactId = null, attemptId = null, reason, questionOf, at } = context
  const made = await tx
    .insert(charges)
    .values({
      listId,
      jobId,
      contactId,
      attemptId,
      reason,
      at,
      provider,
      subject: about,
      question: questionOf(about),
      amount,
    })
    .onConflictDoNothing()
    .returning({ id: charges.id })
  return made.length > 0
}

/** Contacts of every list that hold one of these: what was learnt changes them all. */
export async function holdersOf<A>(
  tx: Db,
  { holders, column }: Subject<A>,
  subjects: readonly string[],
): Promise<{ id: number; listId: string }[]> {
  const { rows } = await tx.execute<{ id: string; list_id: string }>(
    sql`select distinct contact_id as id, list_id from ${sql.raw(holders)} where ${sql.raw(column)} = any(${sql.param([...subjects])}::text[])`,
  )
  return rows.map((row) => ({ id: Number(row.id), listId: row.list_id }))
}
