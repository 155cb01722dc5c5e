import { sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { inPages } from '../db/inPages'
import { num, readRows, text } from '../db/readRows'
import { charge } from '../spend/charge'
import type { FactAnswer } from './openFacts'
import type { Subject } from './subjects'

/** An answer that was bought, and for which question. */
export interface Bought<A> extends FactAnswer<A> {
  /** The key it was asked about under: the service has charged it once, however often it was asked. */
  readonly question: string
  readonly contactId?: number
  readonly attemptId?: string
}

export interface AnswerContext {
  readonly listId: string
  readonly jobId: string
  /** Who answered. */
  readonly provider: string
  readonly reason: string
  readonly at: Date
}

/** So many lines are written in one statement: a statement holds 65,535 values. */
const PAGE = 1000

/**
 * Keeps answers on what they are about, and each charge once, however often this is repeated and whoever else asked the
 * same question. @returns what was charged now, and was not before
 */
export async function storeAnswers<A>(
  tx: Db,
  subject: Subject<A>,
  bought: readonly Bought<A>[],
  { listId, jobId, provider, reason, at }: AnswerContext,
): Promise<{ readonly spent: number }> {
  let spent = 0
  for (const page of inPages(bought, PAGE)) {
    const once = [...new Map(page.map((one) => [subject.subjectOf(one.told), one])).values()]
    const told = once.filter((one) => !subject.toldNothing(one.told)).map((one) => one.told)
    if (told.length > 0) await subject.storeFacts(tx, told, at)
    await subject.noteAnswers(tx, jobId, once, at)
    const charged = page
      .filter(({ cost }) => cost > 0)
      .map(({ told, cost, question, contactId = null, attemptId = null }) => ({
        listId,
        jobId,
        provider,
        contactId,
        attemptId,
        reason,
        at,
        subject: subject.subjectOf(told),
        question,
        amount: cost,
      }))
    spent += await charge(tx, charged)
  }
  return { spent }
}

/** Contacts of every list that hold one of these: what was learnt changes them all. */
export async function holdersOf<A>(
  tx: Db,
  { holders, column }: Pick<Subject<A>, 'holders' | 'column'>,
  subjects: readonly string[],
): Promise<{ id: number; listId: string }[]> {
  return readRows(tx, { id: num, listId: text })`
    select distinct contact_id as id, list_id from ${sql.raw(holders)} where ${sql.raw(column)} = any(${sql.param([...subjects])}::text[])`
}
