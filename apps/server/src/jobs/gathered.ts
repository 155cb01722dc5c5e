import { sql } from 'drizzle-orm'
import { type Db, transaction } from '../db/database'
import type { Services } from '../services'
import { type JobRow, saveJob } from './store'

/** True where it is written down about whom a job is to ask: nobody is added to it later, whatever becomes of its list. */
export const isGathered = ({ cursor }: Pick<JobRow, 'cursor'>): boolean => cursor.isGathered === true

/** So many lines make the statistics of before useless. */
const MANY = 5000

/**
 * The first step of a job that asks: writes down, once and whole, about whom.
 * @param table a name of ours
 * @param write writes the lines into it, and tells how many there are
 * @returns how many there are
 */
export async function gather(
  { db, pool }: Services,
  { id }: JobRow,
  table: string,
  write: (tx: Db) => Promise<number>,
): Promise<number> {
  await saveJob(db, id, { phase: 'gathering' })
  return transaction(pool, async (tx) => {
    const total = await write(tx)
    // Without it the planner takes what was just written for few lines, and looks through all of them at each step.
    if (total > MANY) await tx.execute(sql`analyze ${sql.raw(table)}`)
    await saveJob(tx, id, { phase: 'asking', total, cursor: { isGathered: true } })
    return total
  })
}
