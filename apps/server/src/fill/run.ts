import { asTold, type Want } from '@upper-field/core/fill'
import { and, eq, type SQL, sql } from 'drizzle-orm'
import { bool, listOf, num, readRows, word } from '../db/readRows'
import { attempts, fillRuns } from '../db/schema'
import { Problem } from '../http/problem'
import { JobProblem } from '../jobs/jobProblem'
import type { Services } from '../services'
import { ASKED, askedInputs } from './askedInputs'
import { failingProviders } from './failing'
import { namedIn, type PlanTerms, planOf } from './plan'
import { asAskable, type WantingContact } from './wanting'

export type AttemptRow = typeof attempts.$inferSelect

/** A run, the terms it asks on, and who keeps failing in it. */
export type Run = typeof fillRuns.$inferSelect & { readonly plan: PlanTerms; readonly failing: ReadonlySet<string> }

/** A contact of a run: it lacks what it lacked at the start; what was found since is found in its attempts. */
export interface SearchedContact extends WantingContact {
  /** Nothing more may be asked about it: it was suppressed meanwhile, joined to another, or is not there any more. */
  readonly isOut: boolean
}

/** Throws a job problem where the run, or a service of its plan, is not there any more. */
export async function findRun(services: Services, jobId: string): Promise<Run> {
  const [found] = await services.db.select().from(fillRuns).where(eq(fillRuns.jobId, jobId))
  if (!found) throw new JobProblem('run-gone')
  const plan = await planOf(services.db, found).catch((cause: unknown) => {
    // A service that was forgotten meanwhile.
    throw cause instanceof Problem ? new JobProblem('provider-gone', { cause }) : cause
  })
  const told = { ...plan, providers: asTold(plan.providers, found.prices) }
  return {
    ...found,
    plan: told,
    failing: await failingProviders(services.db, jobId, namedIn(found.order, found.options)),
  }
}

/** Contacts of a run whose searches meet a condition on `s`, in the order of their ids. */
export async function searchedContacts(
  services: Services,
  jobId: string,
  condition: SQL,
  most: number | null = null,
): Promise<readonly SearchedContact[]> {
  const searched = await readRows(services.db, SEARCHED)`
    select s.contact_id as id, s.wants as lacks, ${askedInputs('c', jobId)},
      c.id is null or c.joined_into is not null or c.suppressed_for = 'all' as is_out
    from fill_searches s left join contacts c on c.id = s.contact_id
    where s.job_id = ${jobId} and ${condition} order by s.contact_id limit ${most}`
  return searched.map(({ id, lacks, isOut, ...told }) => ({ id, ...asAskable(told), lacks, isOut }))
}

const SEARCHED = { id: num, lacks: listOf(word<Want>), isOut: bool, ...ASKED }

/**
 * Questions that can be gone on with, those with an answer first, then the oldest: answered, cut off before their answer, to be looked for, or overdue.
 */
export const dueAttempts = (services: Services, jobId: string, most: number): Promise<AttemptRow[]> =>
  services.db
    .select()
    .from(attempts)
    .where(
      and(
        eq(attempts.jobId, jobId),
        eq(attempts.state, 'waiting'),
        sql`(answer is not null or deadline is null or receipt is not null or deadline < ${new Date(services.now()).toISOString()})`,
      ),
    )
    .orderBy(sql`answer is null`, attempts.askedAt, attempts.id)
    .limit(most)
