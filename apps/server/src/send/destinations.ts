import { DestinationDocument } from '@upper-field/contract'
import { type AudienceShape, type Destination, shapeOf, type Takes } from '@upper-field/core/send'
import { eq } from 'drizzle-orm'
import type { Db } from '../db/database'
import { destinations } from '../db/schema'
import { notFound, Problem } from '../http/problem'
import { shippedFiles } from '../shippedFiles'

let shipped: readonly Destination[] | null = null

/** The destinations that ship with the application: none is there for a list before somebody adds it. */
export function shippedDestinations(): readonly Destination[] {
  shipped ??= shippedFiles('destinations').map((text) => DestinationDocument.parse(JSON.parse(text)))
  return shipped
}

/** Destinations that were added, in the order of their names. */
export async function keptDestinations(db: Db): Promise<readonly Destination[]> {
  const rows = await db.select().from(destinations).orderBy(destinations.id)
  return rows.map(({ document }) => document)
}

/** A destination that was added. Throws a problem where there is none of this id. */
export async function findDestination(db: Db, id: string): Promise<Destination> {
  const [row] = await db.select().from(destinations).where(eq(destinations.id, id))
  if (!row) throw notFound('destination')
  return row.document
}

/** What an audience of these looks like there. Throws a problem where the destination takes none. */
export function audienceOf(destination: Destination, takes: Takes): AudienceShape {
  const shape = shapeOf(destination, takes)
  if (!shape) throw new Problem(422, 'not-taken', `${destination.name} takes no ${takes}.`)
  return shape
}
