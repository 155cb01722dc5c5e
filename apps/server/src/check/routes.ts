import { sql } from 'drizzle-orm'
import type { Hono } from 'hono'
import { transaction } from '../db/database'
import { LOCKS } from '../db/locks'
import { Problem } from '../http/problem'
import { serve } from '../http/serve'
import { asJob, createJob } from '../jobs/store'
import { findList, findOpenList } from '../lists/routes'
import type { Services } from '../services'
import { refuseOverLimit } from '../spend/limit'
import { chosenNumbers, estimateCheck } from './estimate'
import { registerTerms } from './register'

/** Lines cannot be checked: nobody is there to ask. */
export const noRegister = (): Problem =>
  new Problem(
    409,
    'no-register',
    'No line register is connected. An owner can connect one under Providers. Nothing was asked.',
  )

export function checkRoutes(app: Hono, services: Services): void {
  serve(app, services, 'estimateCheck', async ({ params, query }) => {
    await findList(services.db, params.listId)
    return estimateCheck(services.db, params.listId, query.filter)
  })

  serve(app, services, 'startCheck', async ({ params, body, me }) =>
    transaction(services.pool, async (tx) => {
      await findOpenList(tx, params.listId)
      // Two checks started at once must not both buy the same answer.
      await tx.execute(sql`select pg_advisory_xact_lock(${LOCKS.checks})`)
      if ((await registerTerms(tx)) === null) throw noRegister()
      const estimate = await estimateCheck(tx, params.listId, body.filter)
      if (estimate.toAsk === 0)
        throw new Problem(409, 'nothing-to-ask', 'Every number chosen has a fresh answer. There is nothing to pay for.')
      if (estimate.most > body.agreed) {
        throw new Problem(
          409,
          'costs-more',
          `This would now ask about ${estimate.toAsk.toLocaleString('en')} numbers and cost more than was agreed. Nothing was asked.`,
        )
      }
      await refuseOverLimit(tx, estimate.most)
      const job = await createJob(tx, {
        kind: 'check',
        listId: params.listId,
        unit: 'numbers',
        total: estimate.toAsk,
        payload: { filter: body.filter, agreed: estimate.most },
        startedBy: me.name,
      })
      await tx.execute(sql`
        insert into line_checks (job_id, e164)
        select ${job.id}::uuid, e164 from (${chosenNumbers(params.listId, body.filter)}) chosen where not is_fresh`)
      return asJob(job)
    }),
  )
}
