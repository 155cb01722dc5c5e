import type { Me } from '@upper-field/contract'
import { eq } from 'drizzle-orm'
import type { Hono } from 'hono'
import type { PoolClient } from 'pg'
import { type Db, transaction } from '../db/database'
import { joins } from '../db/schema'
import { notFound } from '../http/problem'
import { serve } from '../http/serve'
import { asJob } from '../jobs/store'
import { createKeptAnswers, stampOfList, stampOfLists } from '../lists/keptAnswers'
import { withListLock } from '../lists/listLock'
import { findOpenList } from '../lists/routes'
import type { CallServices } from '../services'
import { alsoIn } from './alsoIn'
import { compareLists } from './compareLists'
import { decide, latestDecisions, listOfDecision, listOfPair, takeDecisionBack } from './decide'
import { pairState } from './pairState'
import { pageOfPairs } from './pairsPage'
import { firstLines, sharedLines } from './sharedLines'
import { startPairing } from './startPairing'
import { undoJoin } from './undoJoin'

export function pairRoutes(app: Hono, services: CallServices): void {
  const { db, pool } = services
  const kept = createKeptAnswers(stampOfLists(db))
  const keptOfList = createKeptAnswers(stampOfList(db))

  serve(app, services, 'readPairing', ({ params }) => pairState(db, params.listId))
  serve(app, services, 'readPairs', ({ params, query }) => pageOfPairs(db, params.listId, query.cursor))
  serve(app, services, 'readSharedLines', ({ params, query }) =>
    sharedLines(db, params.listId, query.cursor, () =>
      keptOfList.of(params.listId, ['shared lines'], () => firstLines(db, params.listId)),
    ),
  )
  serve(app, services, 'readListsBeside', ({ params }) =>
    kept.of(params.listId, ['beside'], () => compareLists(db, params.listId)),
  )
  serve(app, services, 'readAlsoIn', ({ params, query }) =>
    kept.of(params.listId, ['also in', query], () => alsoIn(db, params.listId, query.filter)),
  )
  serve(app, services, 'readDecided', ({ params, query }) => latestDecisions(db, params.listId, query.limit))
  /** Decides something in a list that may be worked on and is held meanwhile. */
  const deciding = async <T>(listId: string, signal: AbortSignal, work: (tx: Db, client: PoolClient) => Promise<T>) => {
    await findOpenList(db, listId)
    return withListLock(services, listId, { work: 'decide', signal }, work)
  }
  serve(app, services, 'decidePair', async ({ params, body, me, signal }) =>
    deciding(await listOfPair(db, params.pairId), signal, (tx, client) =>
      decide(tx, client, { ...body, pairId: params.pairId, who: me.name }),
    ),
  )
  serve(app, services, 'takeDecisionBack', async ({ params, signal }) =>
    deciding(await listOfDecision(db, params.decisionId), signal, (tx, client) =>
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
    await deciding(known.listId, signal, (tx, client) => undoJoin(tx, client, params.joinId, new Date(services.now())))
    return {}
  })
}
