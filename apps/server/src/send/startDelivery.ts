import { wayOf } from '@upper-field/core/send'
import { and, eq } from 'drizzle-orm'
import type { Db } from '../db/database'
import { readCount } from '../db/readRows'
import { audiences, deliveries, editions } from '../db/schema'
import { notFound, Problem } from '../http/problem'
import { createJob } from '../jobs/store'
import { findDestination } from './destinations'
import { countDifference } from './difference'
import { forecastOf } from './history'
import { dropSuppressed } from './suppressedSince'

export interface DeliveryAsked {
  readonly audienceId: string
  /** Null for one that only takes out whoever has to leave. */
  readonly editionId: string | null
  /** Who asked for it; null where the application did by itself. */
  readonly startedBy: string | null
}

type DeliveryRow = typeof deliveries.$inferSelect

/**
 * Begins to send an edition. Throws a problem where there is nothing to send, nobody would be left in the audience, or
 * one is under way.
 */
export async function startDelivery(tx: Db, { audienceId, editionId, startedBy }: DeliveryAsked): Promise<DeliveryRow> {
  const [audience] = await tx.select().from(audiences).where(eq(audiences.id, audienceId)).for('update')
  if (!audience || audience.removedAt) throw notFound('audience')
  await refuseUnderWay(tx, audienceId)
  const destination = await findDestination(tx, audience.destination)
  if (editionId === null) {
    const owed = await countOwed(tx, audienceId)
    if (owed === 0) throw new Problem(409, 'nothing-to-send', 'Nobody has to leave this audience.')
    return begin(tx, { audience, editionId, way: 'removals', total: owed, startedBy, forecast: null })
  }
  const edition = await readyEdition(tx, audienceId, editionId)
  await dropSuppressed(tx, edition.id)
  const counted = await countDifference(tx, audience, editionId, new Date())
  if (counted.comes + counted.stays === 0)
    throw new Problem(
      409,
      'nobody-left',
      'Nobody would be in this audience. Take it away instead, or choose somebody for it.',
    )
  if (counted.comes + counted.leaves + counted.renewed === 0)
    throw new Problem(409, 'nothing-to-send', 'Nothing has changed since the last edition. Nothing was sent.')
  const way = wayOf(destination, audience.people > 0)
  const total = way === 'whole' ? counted.comes + counted.stays : counted.comes + counted.leaves + counted.renewed
  const forecast = await forecastOf(tx, destination, audience, edition)
  return begin(tx, { audience, editionId, way, total, startedBy, forecast })
}

async function begin(
  tx: Db,
  {
    audience,
    editionId,
    way,
    total,
    startedBy,
    forecast,
  }: Pick<DeliveryRow, 'editionId' | 'way' | 'forecast'> & {
    readonly audience: typeof audiences.$inferSelect
    readonly total: number
    readonly startedBy: string | null
  },
): Promise<DeliveryRow> {
  const id = crypto.randomUUID()
  const job = await createJob(tx, {
    kind: 'deliver',
    listId: audience.listId,
    unit: 'lines',
    total,
    payload: { deliveryId: id },
    ...(startedBy === null ? {} : { startedBy }),
  })
  const [made] = await tx
    .insert(deliveries)
    .values({ id, audienceId: audience.id, editionId, jobId: job.id, way, forecast, startedBy })
    .returning()
  if (!made) throw new Error('insert returned nothing')
  return made
}

/** Throws a problem while an audience is being sent. */
export async function refuseUnderWay(tx: Db, audienceId: string): Promise<void> {
  const [underWay] = await tx
    .select()
    .from(deliveries)
    .where(and(eq(deliveries.audienceId, audienceId), eq(deliveries.state, 'under-way')))
  if (underWay)
    throw new Problem(
      409,
      'delivery-under-way',
      `A delivery of this audience is under way${underWay.startedBy ? `, begun by ${underWay.startedBy}` : ''}. Wait for its end.`,
    )
}

async function readyEdition(tx: Db, audienceId: string, editionId: string): Promise<typeof editions.$inferSelect> {
  const [edition] = await tx
    .select()
    .from(editions)
    .where(and(eq(editions.id, editionId), eq(editions.audienceId, audienceId)))
  if (!edition) throw notFound('edition')
  if (edition.state !== 'ready') throw new Problem(409, 'not-ready', 'This edition is not ready yet.')
  return edition
}

async function countOwed(tx: Db, audienceId: string): Promise<number> {
  return readCount(tx)`
    select count(*) as n from audience_members where audience_id = ${audienceId} and owed_since is not null`
}
