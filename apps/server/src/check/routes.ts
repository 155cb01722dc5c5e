import type { CheckEstimate } from '@upper-field/contract'
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
import { type Subject, withSubject } from './subjects'

export function checkRoutes(app: Hono, services: CallServices): void {
  const { db, pool } = services
  const kept = createKeptAnswers(stampOfLists(db))
  const estimate = async <A>(subject: Subject<A>, listId: string, filter: string): Promise<CheckEstimate> =>
    kept.of(listId, ['check', subject.of, filter, await readFreshDays(db), await factTerms(db, subject)], () =>
      estimateCheck(db, subject, listId, filter),
    )

  serve(app, services, 'estimateCheck', async ({ params, query }) => {
    await findList(db, params.listId)
    return withSubject(query.of, (subject) => estimate(subject, params.listId, query.filter))
  })

  serve(app, services, 'readAnswerAges', async ({ params, query }) => {
    await findList(db, params.listId)
    return withSubject(query.of, async (subject) =>
      kept.of(params.listId, ['ages', query, await readFreshDays(db)], () =>
        answerAges(db, subject, params.listId, query.filter),
      ),
    )
  })

  serve(app, services, 'startCheck', async ({ params: { listId }, body: { of, filter, agreed }, me }) => {
    await findOpenList(db, listId)
    const asked = { listId, filter, agreed, startedBy: me.name }
    return withSubject(of, async (subject) => {
      const known = await estimate(subject, listId, filter)
      return asJob(await transaction(pool, (tx) => startCheck(tx, subject, asked, known)))
    })
  })

  serve(app, services, 'lookUp', ({ body }) => lookUp(services, body))
  serve(app, services, 'readCheckSettings', () => readCheckSettings(db))
  serve(app, services, 'changeCheckSettings', ({ body }) => changeCheckSettings(db, body))
}
