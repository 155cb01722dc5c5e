import { eq } from 'drizzle-orm'
import type { Hono } from 'hono'
import { batches } from '../db/schema'
import { notFound, Problem } from '../http/problem'
import { serve } from '../http/serve'
import { findList, findOpenList } from '../lists/routes'
import type { BatchRow } from '../projection/rowCells'
import type { Services } from '../services'
import { asBatch, batchesOf } from './batches'
import { heldRowsOf, streamHeldRows } from './heldRows'
import { receiveContent } from './receiveContent'
import { tooLarge } from './tooLarge'

export function bringRoutes(app: Hono, services: Services): void {
  const { db, config } = services
  const findBatch = async (batchId: string): Promise<BatchRow> => {
    const [batch] = await db.select().from(batches).where(eq(batches.id, batchId))
    if (!batch) throw notFound('batch')
    return batch
  }

  serve(app, services, 'readBatches', async ({ params }) => {
    await findList(db, params.listId)
    return (await batchesOf(db, params.listId)).map(asBatch)
  })

  serve(app, services, 'makeBatch', async ({ params, body }) => {
    const list = await findOpenList(db, params.listId)
    if (body.bytes > config.maxUploadBytes) throw tooLarge(config.maxUploadBytes)
    if (body.mapping.length !== body.headings.length)
      throw new Problem(422, 'mapping-off', 'There must be one field, or none, for each heading.')
    if (!body.mapping.some((field) => field === 'number' || field === 'email')) {
      throw new Problem(
        422,
        'nobody-reachable',
        'No column is a number or an e-mail. Choose one, or nobody in this file could be reached.',
      )
    }
    const [batch] = await db
      .insert(batches)
      .values({ ...body, listId: list.id, state: 'uploading' })
      .returning()
    if (!batch) throw new Error('insert returned nothing')
    return asBatch(batch)
  })

  serve(app, services, 'sendContent', async ({ params, c }) => {
    const batch = await findBatch(params.batchId)
    const body = c.req.raw.body
    if (!body) throw new Problem(400, 'empty-file', 'The file is empty: it has no bytes.')
    await receiveContent(services, batch, body).catch((error: unknown) => {
      // The rest of a refused file is not read: the connection cannot be used again.
      c.header('connection', 'close')
      throw error
    })
    return asBatch(await findBatch(batch.id))
  })

  serve(app, services, 'readHeld', async ({ params }) => heldRowsOf(db, await findBatch(params.batchId)))

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
