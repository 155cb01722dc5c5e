import { createHash } from 'node:crypto'
import { sql } from 'drizzle-orm'
import { type Db, transaction } from '../db/database'
import { groupBy } from '../db/groupBy'
import type { JobHandler, StepOutcome } from '../jobs/runner'
import { type JobRow, saveJob } from '../jobs/store'
import { countContacts } from '../projection/cube'
import { refreshContacts } from '../projection/refresh'
import type { Services } from '../services'
import { costOfRegister, openRegister, type RegisterAnswer } from './register'
import { holdersOf, storeAnswers } from './storeAnswers'

/** Numbers asked about in one step. */
const STEP = 200

/** Asks the register about the numbers of a check, a step at a time; a repeated step asks the same and pays once. */
export const checkJob: JobHandler = {
  async step(services, job): Promise<StepOutcome> {
    const numbers = await nextNumbers(services.db, job.id)
    if (numbers.length === 0) {
      await transaction(services.pool, (tx) => recount(tx, job))
      return { next: 'done' }
    }
    const register = await openRegister(services)
    const answers = await register.askMany(numbers, `${job.id}:${digestOf(numbers)}`)
    await settle(services, job, numbers, answers)
    return { next: 'step' }
  },

  async ended({ pool }, job) {
    await transaction(pool, (tx) => recount(tx, job))
  },
}

const digestOf = (numbers: readonly string[]): string =>
  createHash('sha256').update(numbers.join(',')).digest('hex').slice(0, 24)

async function nextNumbers(db: Db, jobId: string): Promise<string[]> {
  const { rows } = await db.execute<{ e164: string }>(
    sql`select e164 from line_checks where job_id = ${jobId} and answered_at is null order by e164 limit ${STEP}`,
  )
  return rows.map(({ e164 }) => e164)
}

/** Numbers the register left out of its answer count as unknown: they are neither asked for ever nor paid. */
async function settle(
  services: Services,
  job: JobRow,
  asked: readonly string[],
  answers: readonly RegisterAnswer[],
): Promise<void> {
  const byNumber = new Map(answers.map((answer) => [answer.number, answer]))
  const all = asked.map((number) => byNumber.get(number) ?? unknownAnswer(number))
  await transaction(services.pool, async (tx, client) => {
    await storeAnswers(tx, all, {
      listId: job.listId,
      jobId: job.id,
      reason: 'line check',
      at: new Date(services.now()),
    })
    const holders = groupBy(await holdersOf(tx, asked), ({ listId }) => listId)
    for (const found of holders.values()) {
      await refreshContacts(
        tx,
        client,
        found.map(({ id }) => id),
      )
    }
    const spent = Number(job.result.spent ?? 0) + all.reduce((sum, answer) => sum + costOfRegister(answer), 0)
    const unknown = Number(job.result.unknown ?? 0) + all.filter((answer) => costOfRegister(answer) === 0).length
    await saveJob(tx, job.id, { phase: 'asking', done: job.done + asked.length, result: { spent, unknown } })
  })
}

const unknownAnswer = (number: string): RegisterAnswer => ({
  number,
  lineType: 'unknown',
  status: 'unknown',
  carrier: null,
  ported: null,
  timeZone: null,
  lastSeen: null,
})

/** What was learnt may stand in other lists too: their counts follow. */
async function recount(tx: Db, job: JobRow): Promise<void> {
  const { rows } = await tx.execute<{ list_id: string }>(sql`
    select distinct n.list_id from line_checks l join contact_numbers n on n.e164 = l.e164
    where l.job_id = ${job.id} and l.answered_at is not null order by 1`)
  for (const { list_id } of rows) await countContacts(tx, list_id)
}
