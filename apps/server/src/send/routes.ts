import { DestinationDocument, type Edition, KeptLayout } from '@upper-field/contract'
import {
  type Destination,
  FILE_FORM,
  type FileKind,
  type FileLayout,
  fileNameFor,
  type Takes,
} from '@upper-field/core/send'
import { and, desc, eq, isNull, sql } from 'drizzle-orm'
import type { Hono } from 'hono'
import { chosenContacts, contactLines } from '../contacts/page'
import { readWholeFilter } from '../contacts/readFilter'
import { type Db, transaction } from '../db/database'
import { readCount } from '../db/readRows'
import { batches, destinations, editions, fileLayouts } from '../db/schema'
import { notFound, Problem } from '../http/problem'
import { serve } from '../http/serve'
import { createJob } from '../jobs/store'
import { createKeptAnswers, stampOfLists } from '../lists/keptAnswers'
import { findList } from '../lists/routes'
import type { CallServices } from '../services'
import { dataPackageOf } from './dataPackage'
import { audienceOf, findDestination, keptDestinations, removeDestination, shippedDestinations } from './destinations'
import { piecesOf } from './editionJob'
import { linesOf } from './editionLines'
import { contactsOfFinding, runPreflight } from './preflight'
import { suppressedSince } from './suppressedSince'
import { MOST_WORKBOOK_ROWS } from './workbook'

/** Contacts of a finding that are shown at once. */
const FOUND_AT_ONCE = 50

export function sendRoutes(app: Hono, services: CallServices): void {
  const { db } = services
  const kept = createKeptAnswers(stampOfLists(db))

  serve(app, services, 'preflight', async ({ params, query }) => {
    await findList(db, params.listId)
    const destination = await findDestination(db, query.destination)
    const shape = audienceOf(destination, query.takes)
    const { filter, exact } = query
    return kept.of(params.listId, ['preflight', filter, exact, destination, query.takes], () =>
      runPreflight(db, { listId: params.listId, filter, destination, shape, isExact: exact === 'yes' }),
    )
  })

  serve(app, services, 'readFinding', async ({ params, query }) => {
    await findList(db, params.listId)
    const shape = audienceOf(await findDestination(db, query.destination), query.takes)
    const { finding, after, filter } = query
    const page = await contactsOfFinding(
      db,
      { listId: params.listId, filter, shape },
      { finding, after, limit: FOUND_AT_ONCE },
    )
    const ids = page.contacts.map(({ id }) => id)
    return { contacts: await contactLines(db, ids), next: page.next }
  })

  serve(app, services, 'readFileLayouts', async () => {
    const kept = await db.select().from(fileLayouts).orderBy(fileLayouts.name)
    return kept.map(({ name, layout }) => KeptLayout.parse({ name, layout }))
  })
  serve(app, services, 'keepFileLayout', async ({ body, me }) => {
    const kept = { layout: body.layout, changedBy: me.name, changedAt: new Date(services.now()) }
    await db
      .insert(fileLayouts)
      .values({ name: body.name, ...kept })
      .onConflictDoUpdate({ target: fileLayouts.name, set: kept })
    return body
  })

  serve(app, services, 'readDestinations', async () => [...(await keptDestinations(db))].map(asDocument))
  serve(app, services, 'readShippedDestinations', async () => shippedDestinations().map(asDocument))
  serve(app, services, 'keepDestination', async ({ params, body, me }) => {
    if (body.id !== params.destinationId)
      throw new Problem(422, 'other-id', 'The document declares another destination than the one it is kept as.')
    const kept = { document: body, changedBy: me.name, changedAt: new Date(services.now()) }
    await db
      .insert(destinations)
      .values({ id: body.id, ...kept })
      .onConflictDoUpdate({ target: destinations.id, set: kept })
    return body
  })
  serve(app, services, 'removeDestination', async ({ params }) => {
    await transaction(services.pool, (tx) => removeDestination(tx, params.destinationId))
    return {}
  })

  serve(app, services, 'readEditions', async ({ params }) =>
    Promise.all(
      (
        await db
          .select()
          .from(editions)
          .where(and(eq(editions.listId, params.listId), isNull(editions.audienceId)))
          .orderBy(desc(editions.createdAt))
      ).map(async (edition) =>
        asEdition(edition, edition.state === 'ready' ? (await suppressedSince(db, edition)).length : 0),
      ),
    ),
  )

  serve(app, services, 'makeEdition', async ({ params, body, me }) => {
    const list = await findList(db, params.listId)
    if ((body.destination === 'people') !== (body.form === 'people')) {
      throw new Problem(422, 'form-off', 'A file for people has the form "people", an audience "hashed" or "plain".')
    }
    if (body.batchId !== null) await refuseBatch(db, list.id, body)
    if (body.form !== 'people') await refuseForm(db, body.destination, body.takes, body.form)
    return transaction(services.pool, async (tx) => {
      const chosen = await countChosen(tx, list.id, body)
      if (chosen === 0)
        throw new Problem(409, 'nobody-chosen', 'Nobody is chosen who may be sent: parked contacts are left out.')
      if (kindOf(body) === 'xlsx' && chosen > MOST_WORKBOOK_ROWS)
        throw new Problem(
          422,
          'workbook-too-large',
          `A workbook is made of at most ${MOST_WORKBOOK_ROWS.toLocaleString('en')} rows; these are ${chosen.toLocaleString('en')}. Choose fewer, or another kind of file.`,
        )
      const editionId = crypto.randomUUID()
      const job = await createJob(tx, {
        kind: 'edition',
        listId: list.id,
        unit: 'contacts',
        total: chosen,
        payload: { editionId },
        startedBy: me.name,
      })
      const purpose =
        body.form === 'people'
          ? (body.filter.length <= 40 && body.filter) || 'contacts'
          : `${body.destination} ${body.form}`
      const [made] = await tx
        .insert(editions)
        .values({
          id: editionId,
          listId: list.id,
          jobId: job.id,
          destination: body.destination,
          takes: body.takes,
          form: body.form,
          filter: body.filter,
          layout: body.form === 'people' ? body.layout : null,
          batchId: body.batchId,
          fileName: fileNameFor(list.name, purpose, new Date(services.now()), FILE_FORM[kindOf(body)].ending),
        })
        .returning()
      if (!made) throw new Error('insert returned nothing')
      return asEdition(made)
    })
  })

  serve(app, services, 'describeEdition', async ({ params, c }) => {
    const [edition] = await db.select().from(editions).where(eq(editions.id, params.editionId))
    if (!edition) throw notFound('edition')
    if (edition.state !== 'ready') throw new Problem(409, 'not-ready', 'This file is not ready yet.')
    return c.json(await dataPackageOf(db, edition), 200, {
      'content-disposition': 'attachment; filename="datapackage.json"',
      'cache-control': 'no-store',
    })
  })

  serve(app, services, 'downloadEdition', async ({ params }) => {
    const [edition] = await db.select().from(editions).where(eq(editions.id, params.editionId))
    if (!edition) throw notFound('edition')
    if (edition.state === 'withdrawn')
      throw new Problem(410, 'withdrawn', 'This file held a person who asked to be forgotten. Make it anew.')
    if (edition.state !== 'ready') throw new Problem(409, 'not-ready', 'This file is not ready yet.')
    const suppressed = (await suppressedSince(db, edition)).length
    if (suppressed > 0)
      throw new Problem(
        410,
        'suppressed-since',
        `${suppressed.toLocaleString('en')} in this file said no after it was made. It is kept back: make it again, without them.`,
      )
    const pieces = await fileOf(db, edition)
    const body = new ReadableStream<Uint8Array>({
      pull: async (controller) => {
        const { value, done } = await pieces.next()
        if (done) controller.close()
        else controller.enqueue(value)
      },
    })
    return new Response(body, {
      headers: {
        'content-type': FILE_FORM[edition.layout?.kind ?? 'csv'].type,
        'content-length': String(edition.bytes),
        'content-disposition': `attachment; filename="${edition.fileName}"`,
        'cache-control': 'no-store',
      },
    })
  })
}

/** How many rows a file will have at most. */
async function countChosen(
  tx: Db,
  listId: string,
  { filter, batchId }: { readonly filter: string; readonly batchId: string | null },
): Promise<number> {
  return readCount(tx)`${
    batchId === null
      ? sql`select count(*) as n from contacts where ${chosenContacts(listId, await readWholeFilter(tx, listId, filter))} and lane <> 'parked'`
      : sql`select (select count(*) from rows where batch_id = ${batchId})
          + (select count(*) from held_rows where batch_id = ${batchId} and let_in_at is null) as n`
  }`
}

/** The file as it came is of one batch of the list, and has rows. */
async function refuseBatch(db: Db, listId: string, { batchId, form, layout, filter }: BodyWithBatch): Promise<void> {
  const [batch] = await db
    .select()
    .from(batches)
    .where(eq(batches.id, batchId ?? ''))
  if (!batch || batch.listId !== listId || batch.state !== 'ready') throw notFound('batch')
  if (form !== 'people') throw new Problem(422, 'form-off', 'A file as it came is one for people.')
  if (filter !== '')
    throw new Problem(422, 'filter-off', 'A file as it came has every row of its batch: it takes no filter.')
  if (layout?.kind === 'vcard') throw new Problem(422, 'form-off', 'A file as it came has rows, and cards have none.')
}

interface BodyWithBatch {
  readonly batchId: string | null
  readonly form: string
  readonly layout: FileLayout | null
  readonly filter: string
}

/** The bytes of a file: as they were written, or the lines of an audience put into one. */
async function fileOf(db: Db, edition: typeof editions.$inferSelect): Promise<AsyncGenerator<Uint8Array>> {
  if (edition.audienceId === null) return piecesOf(db, edition.id)
  const shape = audienceOf(await findDestination(db, edition.destination), edition.takes)
  return encoded(linesOf(db, edition.id, shape))
}

async function* encoded(texts: AsyncGenerator<string>): AsyncGenerator<Uint8Array> {
  for await (const text of texts) yield new TextEncoder().encode(text)
}

const kindOf = ({ form, layout }: { readonly form: string; readonly layout: FileLayout | null }): FileKind =>
  form === 'people' ? (layout?.kind ?? 'csv') : 'csv'

/** Throws a problem where a destination takes no such audience, or not in this form. */
async function refuseForm(db: Db, id: string, takes: Takes, form: 'hashed' | 'plain'): Promise<void> {
  const destination = await findDestination(db, id)
  audienceOf(destination, takes)
  if (destination.hashing === 'always' && form === 'plain')
    throw new Problem(422, 'form-off', `${destination.name} takes hashed identifiers only.`)
  if (destination.hashing === 'never' && form === 'hashed')
    throw new Problem(422, 'form-off', `${destination.name} takes no hashed identifiers.`)
}

const asDocument = (destination: Destination): DestinationDocument => DestinationDocument.parse(destination)

export const asEdition = (edition: typeof editions.$inferSelect, suppressed = 0): Edition => ({
  id: edition.id,
  jobId: edition.jobId,
  destination: edition.destination,
  takes: edition.takes,
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
