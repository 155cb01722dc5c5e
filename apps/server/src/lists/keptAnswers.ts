import { type SQL, sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { readRow, text } from '../db/readRows'

/** Answers that took long to work out, kept for as long as nothing has changed that they were made of. */
export interface KeptAnswers {
  /**
   * The answer of `work`, or the one it gave before. Who ask for the same at the same moment share one.
   * @param about whatever the answer depends on besides the lists and what jobs do: questions, settings, prices
   */
  of<T>(listId: string, about: readonly unknown[], work: () => Promise<T>): Promise<T>
}

export interface Keeping {
  /** What is worked out quicker is not kept, in milliseconds. */
  readonly worth: number
  /** However little has changed, an answer is worked out anew after so long, in milliseconds: answers age by the day. */
  readonly longest: number
  readonly most: number
}

const USUAL: Keeping = { worth: 100, longest: 60_000, most: 200 }

interface Kept {
  readonly stamp: string
  readonly until: number
  readonly answer: Promise<unknown>
}

/** @param stampOf another text whenever something has changed; see `stampOfLists` */
export function createKeptAnswers(
  stampOf: (listId: string) => Promise<string>,
  { worth, longest, most }: Keeping = USUAL,
): KeptAnswers {
  const kept = new Map<string, Kept>()
  return {
    async of<T>(listId: string, about: readonly unknown[], work: () => Promise<T>): Promise<T> {
      const key = JSON.stringify([listId, about])
      const stamp = await stampOf(listId)
      const found = kept.get(key)
      if (found?.stamp === stamp && performance.now() < found.until) return found.answer as Promise<T>
      const begun = performance.now()
      const answer = work()
      const one = { stamp, until: begun + longest, answer }
      kept.set(key, one)
      const drop = () => {
        if (kept.get(key) === one) kept.delete(key)
      }
      answer.then(() => {
        if (performance.now() - begun < worth) drop()
      }, drop)
      const [oldest] = kept.keys()
      if (kept.size > most && oldest !== undefined) kept.delete(oldest)
      return answer
    },
  }
}

/** A text that is another whenever one of these values is, or a job of the list has come further (but for indexing, which changes nobody). */
const stampOf =
  (values: (listId: string) => SQL) =>
  (db: Db) =>
  async (listId: string): Promise<string> => {
    const told = await readRow(db, { stamp: text })`
      select concat_ws('/', ${values(listId)},
        (select concat_ws('/', count(*), count(finished_at), sum(done)) from jobs where list_id = ${listId} and kind <> 'index')) as stamp`
    return told?.stamp ?? ''
  }

/** Another text whenever contacts of a list have changed, or a job of it has come further: for what depends on nothing else. */
export const stampOfList = stampOf((listId) => sql`(select version from lists where id = ${listId})`)

/**
 * Another text whenever contacts of any list have changed, or a job of this one has come further: who is in other lists too,
 * and what is known of a number, are told by all lists together.
 */
export const stampOfLists = stampOf(
  () => sql`(select sum(version) from lists), (select count(*) from lists where archived_at is not null)`,
)
