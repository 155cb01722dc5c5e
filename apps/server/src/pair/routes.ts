import { eq } from 'drizzle-orm'
import type { Hono } from 'hono'
import { transaction } from '../db/database'
import { contacts, joins } from '../db/schema'
import { notFound, Problem } from '../http/problem'
import { serve } from '../http/serve'
import { asJob, createJob } from '../jobs/store'
import { findOpenList } from '../lists/routes'
import { countContacts, readTerraces } from '../projection/cube'
import { refreshContacts } from '../projection/refresh'
import type { Services } from '../services'
import { alsoIn } from './alsoIn'
import { compareLists } from './compareLists'
import { decide, latestDecisions, takeDecisionBack } from './decide'
import { pageOfPairs } from './pairsPage'
import { pairState } from './pairState'
import { pointToSurvivors } from './pointToSurvivors'
import { sharedLines } from './sharedLines'
import { sharersOf } from './sharers'

export function pairRoutes(app: Hono, services: Services): void {
  const { db, pool } = services

  serve(app, services, 'readPairing', ({ params }) => pairState(db, params.listId))
  serve(app, services, 'readPairs', ({ params, query }) => pageOfPairs(db, params.listId, query.cursor))
  serve(app, services, 'readSharedLines', ({ params, query }) => sharedLines(db, params.listId, query.cursor))
  serve(app, services, 'readListsBeside', ({ params }) => compareLists(db, params.listId))
  serve(app, services, 'readAlsoIn', ({ params, query }) => alsoIn(db, params.listId, query.filter))
  serve(app, services, 'readDecided', ({ params }) => latestDecisions(db, params.listId))
  serve(app, services, 'decidePair', ({ params, body, me }) =>
    transaction(pool, (tx, client) => decide(tx, client, { ...body, pairId: params.pairId, who: me.name })),
  )
  serve(app, services, 'takeDecisionBack', ({ params }) =>
    transaction(pool, (tx, client) => takeDecisionBack(tx, client, params.decisionId)),
  )
  const inJob = async (listId: string, payload: Record<string, unknown>) => {
    const list = await findOpenList(db, listId)
    return asJob(
      await transaction(pool, async (tx) => {
        const { contacts } = (await readTerraces(tx, [list.id])).get(list.id) ?? { contacts: null }
        return createJob(tx, { kind: 'pair', listId: list.id, unit: 'contacts', total: contacts, payload })
      }),
    )
  }
  serve(app, services, 'runPairing', ({ params, body }) => inJob(params.listId, { thresholds: body.thresholds }))
  serve(app, services, 'changeSurvivorship', ({ params, body }) => inJob(params.listId, { survivorship: body }))

  serve(app, services, 'takeApart', async ({ params }) => {
    await transaction(services.pool, async (tx, client) => {
      const [join] = await tx.select().from(joins).where(eq(joins.id, params.joinId)).for('update')
      if (!join) throw notFound('join')
      if (join.undoneAt) throw new Problem(409, 'apart-already', 'These two were taken apart already.')
      await tx
        .update(joins)
        .set({ undoneAt: new Date(services.now()) })
        .where(eq(joins.id, join.id))
      const [member] = await tx
        .select({ root: contacts.joinedInto })
        .from(contacts)
        .where(eq(contacts.id, join.memberId))
      await tx.update(contacts).set({ joinedInto: null }).where(eq(contacts.id, join.memberId))
      await pointToSurvivors(tx, [join.memberId])
      const touched = [
        member?.root ?? join.survivorId,
        join.survivorId,
        join.memberId,
        ...(await sharersOf(tx, [join.survivorId, join.memberId])),
      ]
      await refreshContacts(tx, client, touched)
      await countContacts(tx, join.listId)
    })
    return {}
  })
}
