import { sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { LOCKS } from '../db/locks'
import { gather } from '../jobs/gathered'
import { JobProblem } from '../jobs/jobProblem'
import type { Asking } from './askInOrders'
import { type Chosen, chosenSubjects } from './estimate'
import { readFreshDays } from './settings'
import type { Subject } from './subjects'

/**
 * Writes down what a check is to ask about: each once, fresh answers not again, nor what another check is to ask about.
 * Throws a job problem, and writes nothing, where it has become more than was agreed to.
 * @returns how many questions there are
 */
export function gatherQuestions<A>({ services, subject, job, service }: Asking<A>): Promise<number> {
  const { filter, agreed } = job.payload as { filter: string; agreed: number }
  const { price, countries } = service.terms
  return gather(services, job, subject.checks, async (tx) => {
    // Two checks at once must not both buy the same answer.
    await tx.execute(sql`select pg_advisory_xact_lock(${LOCKS.checks})`)
    const chosen = { listId: job.listId, filter, days: await readFreshDays(tx), countries }
    const questions = await writeQuestions(tx, subject, job.id, chosen)
    if (questions * price > agreed) throw new JobProblem('costs-more')
    return questions
  })
}

async function writeQuestions<A>(tx: Db, subject: Subject<A>, jobId: string, chosen: Chosen): Promise<number> {
  const { rowCount } = await tx.execute(sql`
    insert into ${sql.raw(subject.checks)} (job_id, ${sql.raw(subject.column)})
    select ${jobId}::uuid, subject from (${chosenSubjects(subject, chosen)}) chosen where not is_fresh`)
  return rowCount ?? 0
}
