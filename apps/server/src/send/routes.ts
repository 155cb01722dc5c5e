import type { Edition } from '@upper-field/contract'
import { fileNameFor } from '@upper-field/core/send'
import { desc, eq, sql } from 'drizzle-orm'
import type { Hono } from 'hono'
import { chosenContacts } from '../contacts/page'
import { readFilter } from '../contacts/readFilter'
import { transaction } from '../db/database'
import { editions } from '../db/schema'
import { notFound, Problem } from '../http/problem'
import { serve } from '../http/serve'
import { createJob } from '../jobs/store'
import { findList } from '../lists/routes'
import type { Services } from '../services'
import { piecesOf } from './editionJob'
import { runPreflight } from './preflight'
import { suppressedSince } from './suppressedSince'

export function sendRoutes(app: Hono, services: Services): void {
  const { db } = services

  serve(app, services, 'preflight', async ({ params, query }) => {
    await findList(db, params.listId)
    return runPreflight(db, params.listId, query.filter)
  })

  serve(app, services, 'readEditions', async ({ params }) =>
    Promise.all(
      (
        await db.select().from(editions).where(eq(editions.listId, params.listId)).orderBy(desc(editions.createdAt))
      ).map(async (edition) => asEdition(edition, edition.state === 'ready' ? await suppressedSince(db, edition) : 0)),
    ),
  )

  serve(app, services, 'makeEdition', async ({ params, body, me }) => {
    const list = await findList(db, params.listId)
    if ((body.destination === 'people') !== (body.form === 'people')) {
      throw new Problem(422, 'form-off', 'A file for people has the form "people", an audience "hashed" or "plain".')
    }
    return transaction(services.pool, async (tx) => {
      const { rows } = await tx.execute<{ n: string }>(sql`
        select count(*) as n from contacts where ${chosenContacts(list.id, readFilter(body.filter))} and lane <> 'parked'`)
      const chosen = Number(rows[0]?.n ?? 0)
      if (chosen === 0)
        throw new Problem(409, 'nobody-chosen', 'Nobody is chosen who may be sent: parked contacts are left out.')
      const editionId = crypto.randomUUID()
      const job = await createJob(tx, {
        kind: 'edition',
        listId: list.id,
        unit: 'contacts',
        total: chosen,
        payload: { editionId },
        startedBy: me.name,
      })
      const purpose = body.form === 'people' ? 'contacts' : `${body.destination} ${body.form}`
      const [made] = await tx
        .insert(editions)
        .values({
          id: editionId,
          listId: list.id,
          jobId: job.id,
          destination: body.destination,
          form: body.form,
          filter: body.filter,
          fileName: fileNameFor(list.name, purpose, new Date(services.now())),
        })
        .returning()
      if (!made) throw new Error('insert returned nothing')
      return asEdition(made)
    })
  })

  serve(app, services, 'downloadEdition', async ({ params }) => {
    const [edition] = await db.select().from(editions).where(eq(editions.id, params.editionId))
    if (!edition) throw notFound('edition')
    if (edition.state === 'withdrawn')
      throw new Problem(410, 'withdrawn', 'This file held a person who asked to be forgotten. Make it anew.')
    if (edition.state !== 'ready') throw new Problem(409, 'not-ready', 'This file is not ready yet.')
    const suppressed = await suppressedSince(db, edition)
    if (suppressed > 0)
      throw new Problem(
        410,
        'suppressed-since',
        `${suppressed.toLocaleString('en')} in this file said no after it was made. It is kept back: make it again, without them.`,
      )
    const pieces = piecesOf(db, edition.id)
    const body = new ReadableStream<Uint8Array>({
      pull: async (controller) => {
        const { value, done } = await pieces.next()
        if (done) controller.close()
        else controller.enqueue(value)
      },
    })
    return new Response(body, {
      headers: {
        'content-type': 'text/csv; charset=utf-8',
        'content-length': String(edition.bytes),
        'content-disposition': `attachment; filename="${edition.fileName}"`,
        'cache-control': 'no-store',
      },
    })
  })
}

const asEdition = (edition: typeof editions.$inferSelect, suppressed = 0): Edition => ({
  id: edition.id,
  jobId: edition.jobId,
  destination: edition.destination,
  form: edition.form as Edition['form'],
  filter: edition.filter,
  fileName: edition.fileName,
  state: edition.state as Edition['state'],
  people: edition.people,
  leftOut: edition.leftOut,
  bytes: edition.bytes,
  sha256: edition.sha256,
  suppressedSince: suppressed,
  createdAt: edition.createdAt.toISOString(),
})
