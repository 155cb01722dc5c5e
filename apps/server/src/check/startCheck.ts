import type { CheckOf } from '@upper-field/contract'
import { sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { LOCKS } from '../db/locks'
import { Problem } from '../http/problem'
import { createJob, type JobRow } from '../jobs/store'
import { refuseOverLimit, refuseOverProviderLimit } from '../spend/limit'
import { chosenSubjects, estimateCheck } from './estimate'
import { factTerms } from './openFacts'
import { readFreshDays } from './settings'
import type { Subject } from './subjects'

/** Lines cannot be checked: nobody is there to ask. */
export const noRegister = (): Problem => nobodyToAsk('numbers')

const nobodyToAsk = (of: CheckOf): Problem =>
  new Problem(
    409,
    NOBODY[of].code,
    `No ${NOBODY[of].service} is connected. An owner can connect one under Providers. Nothing was asked.`,
  )

const NOBODY: Readonly<Record<CheckOf, { readonly code: string; readonly service: string; readonly one: string }>> = {
  numbers: { code: 'no-register', service: 'line register', one: 'number' },
  addresses: { code: 'no-verifier', service: 'e-mail verifier', one: 'address' },
  'do-not-call': { code: 'no-do-not-call', service: 'do-not-call register', one: 'number' },
}

/** So many questions make the statistics of before useless. */
const MANY = 5000

interface AskedFor {
  readonly listId: string
  readonly filter: string
  /** The most that was agreed to. */
  readonly agreed: number
  readonly startedBy: string
}

/** Starts asking about whom a filter chooses. Throws a problem where nobody can be asked, or it would cost more than agreed. */
export async function startCheck<A>(
  tx: Db,
  subject: Subject<A>,
  { listId, filter, agreed, startedBy }: AskedFor,
): Promise<JobRow> {
  // Two checks started at once must not both buy the same answer.
  await tx.execute(sql`select pg_advisory_xact_lock(${LOCKS.checks})`)
  const { of } = subject
  const terms = await factTerms(tx, subject)
  if (terms === null) throw nobodyToAsk(of)
  const estimate = await estimateCheck(tx, subject, listId, filter)
  if (estimate.toAsk === 0)
    throw new Problem(
      409,
      'nothing-to-ask',
      `Every ${NOBODY[of].one} chosen has a fresh answer. There is nothing to pay for.`,
    )
  if (estimate.most > agreed)
    throw new Problem(
      409,
      'costs-more',
      `This would now ask about ${estimate.toAsk.toLocaleString('en')} ${subject.names.many === 'emails' ? 'addresses' : 'numbers'} and cost more than was agreed. Nothing was asked.`,
    )
  await refuseOverLimit(tx, estimate.most)
  await refuseOverProviderLimit(tx, terms.id, estimate.most)
  const job = await createJob(tx, {
    kind: 'check',
    listId,
    unit: of,
    total: estimate.toAsk,
    payload: { of, filter, agreed: estimate.most, provider: terms.id },
    startedBy,
  })
  const chosen = chosenSubjects(subject, { listId, filter, days: await readFreshDays(tx), countries: terms.countries })
  await tx.execute(sql`
    insert into ${sql.raw(subject.checks)} (job_id, ${sql.raw(subject.column)})
    select ${job.id}::uuid, subject from (${chosen}) chosen where not is_fresh`)
  // Without it the planner takes what was just written for few lines, and looks through all of them for each order.
  if (estimate.toAsk > MANY) await tx.execute(sql`analyze ${sql.raw(subject.checks)}`)
  return job
}
