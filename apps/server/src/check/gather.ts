import { sql } from 'drizzle-orm'
import { type Db, transaction } from '../db/database'
import { LOCKS } from '../db/locks'
import { GATHERED } from '../jobs/gathered'
import { JobProblem } from '../jobs/jobProblem'
import { saveJob } from '../jobs/store'
import type { Asking } from './askInOrders'
import { type Chosen, chosenSubjects } from './estimate'
import { readFreshDays } from './settings'
import type { Subject } from './subjects'

/** So many questions make the statistics of before useless. */
const MANY = 5000

/**
 * Writes down what a check is to ask about: each once, fresh answers not again, nor what another check is to ask about.
 * Throws a job problem, and writes nothing, where it has become more than was agreed to.
 * @returns how many questions there are
 */
export async function gatherQuestions<A>({ services, subject, job, service }: Asking<A>): Promise<number> {
  await saveJob(services.db, job.id, { phase: 'gathering' })
  const { filter, agreed } = job.payload as { filter: string; agreed: number }
  return transaction(services.pool, async (tx) => {
    // Two checks at once must not both buy the same answer.
    await tx.execute(sql`select pg_advisory_xact_lock(${LOCKS.checks})`)
    const { price, countries } = service.terms
    const chosen = { listId: job.listId, filter, days: await readFreshDays(tx), countries }
    const questions = await writeQuestions(tx, subject, job.id, chosen)
    if (questions * price > agreed) throw new JobProblem('costs-more')
    // Without it the planner takes what was just written for few lines, and looks through all of them for each order.
    if (questions > MANY) await tx.execute(sql`analyze ${sql.raw(subject.checks)}`)
    await saveJob(tx, job.id, { phase: 'asking', total: questions, cursor: GATHERED })
    return questions
  })
}

async function writeQuestions<A>(tx: Db, subject: Subject<A>, jobId: string, chosen: Chosen): Promise<number> {
  const { rowCount } = await tx.execute(sql`
    insert into ${sql.raw(subject.checks)} (job_id, ${sql.raw(subject.column)})
    select ${jobId}::uuid, subject from (${chosenSubjects(subject, chosen)}) chosen where not is_fresh`)
  return rowCount ?? 0
}
