import type { Hono } from 'hono'
import { transaction } from '../db/database'
import { serve } from '../http/serve'
import { asJob } from '../jobs/store'
import { createKeptAnswers, stampOfLists } from '../lists/keptAnswers'
import { findList, findOpenList } from '../lists/routes'
import type { CallServices } from '../services'
import { answerAges } from './ages'
import { estimateCheck } from './estimate'
import { lookUp } from './lookUp'
import { factTerms } from './openFacts'
import { changeCheckSettings, readCheckSettings, readFreshDays } from './settings'
import { startCheck } from './startCheck'
import { withSubject } from './subjects'

export function checkRoutes(app: Hono, services: CallServices): void {
  const { db, pool } = services
  const kept = createKeptAnswers(stampOfLists(db))

  serve(app, services, 'estimateCheck', async ({ params, query }) => {
    await findList(db, params.listId)
    return withSubject(query.of, async (subject) =>
      kept.of(params.listId, ['check', query, await readFreshDays(db), await factTerms(db, subject)], () =>
        estimateCheck(db, subject, params.listId, query.filter),
      ),
    )
  })

  serve(app, services, 'readAnswerAges', async ({ params, query }) => {
    await findList(db, params.listId)
    return withSubject(query.of, async (subject) =>
      kept.of(params.listId, ['ages', query, await readFreshDays(db)], () =>
        answerAges(db, subject, params.listId, query.filter),
      ),
    )
  })

  serve(app, services, 'startCheck', async ({ params, body, me }) =>
    transaction(pool, async (tx) => {
      await findOpenList(tx, params.listId)
      const asked = { listId: params.listId, filter: body.filter, agreed: body.agreed, startedBy: me.name }
      return asJob(await withSubject(body.of, (subject) => startCheck(tx, subject, asked)))
    }),
  )

  serve(app, services, 'lookUp', ({ body }) => lookUp(services, body))
  serve(app, services, 'readCheckSettings', () => readCheckSettings(db))
  serve(app, services, 'changeCheckSettings', ({ body }) => changeCheckSettings(db, body))
}
