import type { Me } from '@upper-field/contract'
import { canBeReached } from '@upper-field/core/table'
import { eq, sql } from 'drizzle-orm'
import type { Hono } from 'hono'
import { transaction } from '../db/database'
import { batches } from '../db/schema'
import { notFound, Problem } from '../http/problem'
import { serve } from '../http/serve'
import { isJobOver } from '../jobs/over'
import { createJob } from '../jobs/store'
import { findList, findOpenList } from '../lists/routes'
import type { BatchRow } from '../projection/rowCells'
import type { CallServices } from '../services'
import { asBatch, describeBatches } from './batches'
import { heldRowsOf, streamHeldRows } from './heldRows'
import { knownLayout, rememberLayout } from './layouts'
import { letInAsTheyStand, letInMended } from './letIn'
import { receiveContent } from './receiveContent'
import { filesLike } from './sameFiles'
import { throwAway } from './throwAway'
import { tooLarge } from './tooLarge'
import { yieldsOf } from './yields'

export function bringRoutes(app: Hono, services: CallServices): void {
  const { db, config } = services
  const findBatch = async (batchId: string): Promise<BatchRow> => {
    const [batch] = await db.select().from(batches).where(eq(batches.id, batchId))
    if (!batch) throw notFound('batch')
    return batch
  }

  const findOpenBatch = async (batchId: string): Promise<BatchRow> => {
    const batch = await findBatch(batchId)
    await findOpenList(db, batch.listId)
    return batch
  }

  serve(app, services, 'readBatches', async ({ params }) => {
    await findList(db, params.listId)
    return describeBatches(db, params.listId)
  })

  serve(app, services, 'makeBatch', async ({ params, body }) => {
    const list = await findOpenList(db, params.listId)
    if (body.bytes > config.limits.maxUploadBytes) throw tooLarge(config.limits.maxUploadBytes)
    if (body.mapping.length !== body.headings.length)
      throw new Problem(422, 'mapping-off', 'There must be one field, or none, for each heading.')
    if (!canBeReached(body.mapping)) {
      throw new Problem(
        422,
        'nobody-reachable',
        'No column tells how to reach or find anybody: choose a number, an e-mail, an address on the web, or name and company.',
      )
    }
    const batch = await transaction(services.pool, async (tx) => {
      await rememberLayout(tx, body)
      const [made] = await tx
        .insert(batches)
        .values({ ...body, listId: list.id, state: 'uploading' })
        .returning()
      return made
    })
    if (!batch) throw new Error('insert returned nothing')
    return asBatch(batch)
  })

  serve(app, services, 'readBatch', async ({ params }) => asBatch(await findBatch(params.batchId)))

  serve(app, services, 'sendContent', async ({ params, query, me, c }) => {
    const batch = await findBatch(params.batchId)
    const body = c.req.raw.body
    if (!body) throw new Problem(400, 'empty-file', 'The file is empty: it has no bytes.')
    const sending = { offset: query.offset, waits: query.wait === 'yes', startedBy: me.name }
    await receiveContent(services, batch, body, sending).catch((error: unknown) => {
      // The rest of a refused file is not read: the connection cannot be used again.
      c.header('connection', 'close')
      throw error
    })
    return asBatch(await findBatch(batch.id))
  })

  serve(app, services, 'readHeld', async ({ params }) => heldRowsOf(db, await findBatch(params.batchId)))

  serve(app, services, 'mendHeld', async ({ params, body, signal }) => {
    const batch = await findOpenBatch(params.batchId)
    await letInMended(services, batch, params.row, body.cells, { signal })
    return asBatch(await findBatch(batch.id))
  })

  serve(app, services, 'letInHeld', async ({ params, body, signal }) => {
    const batch = await findOpenBatch(params.batchId)
    const letIn = await letInAsTheyStand(services, batch, body.reason, { signal })
    return { letIn, stillHeld: (await findBatch(batch.id)).held }
  })

  serve(app, services, 'takeBatchBack', async ({ params, me }) =>
    turn(await findOpenBatch(params.batchId), 'ready', me),
  )

  serve(app, services, 'bringBatchBack', async ({ params, me }) =>
    turn(await findOpenBatch(params.batchId), 'taken-back', me),
  )

  /** Starts taking a batch back or bringing it back, once. Until the job is done the list is what it was. */
  async function turn({ id, listId }: BatchRow, from: 'ready' | 'taken-back', me: Me) {
    await transaction(services.pool, async (tx) => {
      const [batch] = await tx.select().from(batches).where(eq(batches.id, id)).for('update')
      const { rows: open } = await tx.execute(sql`
        select 1 from jobs where kind in ('take-back', 'bring-back') and payload->>'batchId' = ${id} and not ${isJobOver()}`)
      if (batch?.state !== from || open.length > 0)
        throw new Problem(409, 'batch-not-there', 'This batch is not in a state for that. Look at it again.')
      const isBack = from === 'taken-back'
      const payload = { batchId: id, isBack }
      await createJob(tx, {
        kind: isBack ? 'bring-back' : 'take-back',
        listId,
        unit: 'contacts',
        total: batch.rows,
        payload,
        startedBy: me.name,
      })
    })
    return asBatch(await findBatch(id))
  }

  serve(app, services, 'throwAway', async ({ params, signal }) => {
    await throwAway(services, await findOpenBatch(params.batchId), signal)
    return {}
  })

  serve(app, services, 'readYields', async ({ params }) => {
    await findList(db, params.listId)
    return yieldsOf(db, params.listId)
  })

  serve(app, services, 'readLayout', async ({ params }) => ({ layout: await knownLayout(db, params.key) }))

  serve(app, services, 'readSameFiles', async ({ params }) => filesLike(db, params.fingerprint))

  serve(app, services, 'downloadHeld', async ({ params }) => {
    const batch = await findBatch(params.batchId)
    return new Response(streamHeldRows(db, batch), {
      headers: {
        'content-type': 'text/csv; charset=utf-8',
        'content-disposition': `attachment; filename="held-rows-${batch.id.slice(0, 8)}.csv"`,
      },
    })
  })
}
