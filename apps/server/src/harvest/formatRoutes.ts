import type { ResponseOf, TriedFormat } from '@upper-field/contract'
import {
  exampleOf,
  formatOfExample,
  type NumberFormat,
  readPage,
  type TriedFormat as Tried,
  tryFormat,
} from '@upper-field/core/harvest'
import { eq } from 'drizzle-orm'
import type { Hono } from 'hono'
import { transaction } from '../db/database'
import { numberFormats } from '../db/schema'
import { notFound, Problem } from '../http/problem'
import { serve } from '../http/serve'
import type { CallServices } from '../services'
import { findHarvest, findOpenHarvest } from './findHarvest'
import { pagesRead } from './pagesRead'
import { findAnew, formatsOf, type HarvestRow, htmlOf } from './storePage'

/** Examples of what a format would do that are shown. */
const SHOWN = 20

/** Formats of numbers: learnt from an example, tried on the pages that were read, kept. */
export function formatRoutes(app: Hono, services: CallServices): void {
  const { db, pool } = services

  serve(app, services, 'learnFormat', async ({ params, body }) => {
    const harvest = await findHarvest(db, params.harvestId)
    const example = exampleOf(body)
    if (!example)
      throw new Problem(422, 'no-example', 'What was marked is no number: mark its digits, six of them at least.')
    return tried(harvest, formatOfExample(example, { name: example.raw, takes: body.takes, country: body.country }))
  })

  serve(app, services, 'tryFormat', async ({ params, body }) => tried(await findHarvest(db, params.harvestId), body))

  async function tried(harvest: HarvestRow, format: NumberFormat): Promise<TriedFormat> {
    const known = await formatsOf(db)
    const all: Tried[] = []
    for await (const { page, siteCountry } of pagesRead(db, harvest.id)) {
      const fetched = {
        url: page.finalUrl ?? page.url,
        country: page.country ?? siteCountry,
        page: readPage(htmlOf(page)),
      }
      all.push(tryFormat([fetched], known, format))
    }
    const finds = all.flatMap((one) => one.finds)
    const loses = all.flatMap((one) => one.loses)
    const lookAlikes = all.flatMap((one) => one.lookAlikes)
    return {
      format: asSent(format),
      pages: all.length,
      finds: finds.length,
      loses: loses.length,
      lookAlikes: lookAlikes.length,
      found: finds.slice(0, SHOWN).map((one) => ({ ...one })),
      lost: loses.slice(0, SHOWN).map((one) => ({ ...one })),
      suspects: lookAlikes.slice(0, SHOWN).map((one) => ({ ...one })),
    }
  }

  serve(app, services, 'keepFormat', async ({ params, body, me }) => {
    const harvest = await findOpenHarvest(db, params.harvestId)
    const kept = { format: body, madeBy: me.name, madeAt: new Date(services.now()) }
    await transaction(pool, async (tx) => {
      await tx
        .insert(numberFormats)
        .values({ name: body.name, ...kept })
        .onConflictDoUpdate({ target: numberFormats.name, set: kept })
      // What became a batch stays as it was taken.
      if (harvest.batchId === null) await findAnew(tx, harvest, await formatsOf(tx))
    })
    return {}
  })

  serve(app, services, 'readFormats', async () => {
    const all = await db.select().from(numberFormats).orderBy(numberFormats.name)
    return all.map(({ format, madeBy, madeAt }) => ({
      format: asSent(format),
      madeBy,
      madeAt: madeAt.toISOString(),
    }))
  })

  serve(app, services, 'dropFormat', async ({ params }) => {
    const dropped = await db.delete(numberFormats).where(eq(numberFormats.name, params.name)).returning()
    if (dropped.length === 0) throw notFound('format')
    return {}
  })
}

/** A format as the contract has it: lists that can be written to. */
const asSent = (format: NumberFormat): ResponseOf<'readFormats'>[number]['format'] => ({
  ...format,
  groups: format.groups.map((group) => ({ ...group })),
  after: [...format.after],
  notAfter: [...format.notAfter],
})
