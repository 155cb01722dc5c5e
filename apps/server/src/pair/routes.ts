import type { Me } from '@upper-field/contract'
import { eq } from 'drizzle-orm'
import type { Hono } from 'hono'
import { transaction } from '../db/database'
import { joins } from '../db/schema'
import { notFound } from '../http/problem'
import { serve } from '../http/serve'
import { asJob } from '../jobs/store'
import { createKeptAnswers, stampOfLists } from '../lists/keptAnswers'
import { withListLock } from '../lists/listLock'
import type { CallServices } from '../services'
import { alsoIn } from './alsoIn'
import { compareLists } from './compareLists'
import { decide, latestDecisions, listOfDecision, listOfPair, takeDecisionBack } from './decide'
import { pairState } from './pairState'
import { pageOfPairs } from './pairsPage'
import { sharedLines } from './sharedLines'
import { startPairing } from './startPairing'
import { undoJoin } from './undoJoin'

export function pairRoutes(app: Hono, services: CallServices): void {
  const { db, pool } = services
  const kept = createKeptAnswers(stampOfLists(db))

  serve(app, services, 'readPairing', ({ params }) => pairState(db, params.listId))
  serve(app, services, 'readPairs', ({ params, query }) => pageOfPairs(db, params.listId, query.cursor))
  serve(app, services, 'readSharedLines', ({ params, query }) =>
    kept.of(params.listId, ['shared lines', query], () => sharedLines(db, params.listId, query.cursor)),
  )
  serve(app, services, 'readListsBeside', ({ params }) =>
    kept.of(params.listId, ['beside'], () => compareLists(db, params.listId)),
  )
  serve(app, services, 'readAlsoIn', ({ params, query }) =>
    kept.of(params.listId, ['also in', query], () => alsoIn(db, params.listId, query.filter)),
  )
  serve(app, services, 'readDecided', ({ params }) => latestDecisions(db, params.listId))
  serve(app, services, 'decidePair', async ({ params, body, me, signal }) =>
    withListLock(services, await listOfPair(db, params.pairId), { work: 'decide', signal }, (tx, client) =>
      decide(tx, client, { ...body, pairId: params.pairId, who: me.name }),
    ),
  )
  serve(app, services, 'takeDecisionBack', async ({ params, signal }) =>
    withListLock(services, await listOfDecision(db, params.decisionId), { work: 'decide', signal }, (tx, client) =>
      takeDecisionBack(tx, client, params.decisionId),
    ),
  )
  const inJob = async (listId: string, payload: Record<string, unknown>, { name: startedBy }: Me) =>
    asJob(await transaction(pool, (tx) => startPairing(tx, { listId, payload, startedBy })))
  serve(app, services, 'runPairing', ({ params, body, me }) =>
    inJob(params.listId, { thresholds: body.thresholds }, me),
  )
  serve(app, services, 'changeSurvivorship', ({ params, body, me }) => inJob(params.listId, { survivorship: body }, me))

  serve(app, services, 'takeApart', async ({ params, signal }) => {
    const [known] = await db.select({ listId: joins.listId }).from(joins).where(eq(joins.id, params.joinId))
    if (!known) throw notFound('join')
    await withListLock(services, known.listId, { work: 'decide', signal }, (tx, client) =>
      undoJoin(tx, client, params.joinId, new Date(services.now())),
    )
    return {}
  })
}
