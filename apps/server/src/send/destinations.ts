import { DestinationDocument } from '@upper-field/contract'
import { type AudienceShape, type Destination, shapeOf, type Takes } from '@upper-field/core/send'
import { and, count, eq, isNull } from 'drizzle-orm'
import type { Db } from '../db/database'
import { audiences, destinationKeys, destinations } from '../db/schema'
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

/**
 * Forgets a destination, and the key to it. Refused while audiences are there: nobody could be taken out of them any more.
 */
export async function removeDestination(tx: Db, id: string): Promise<void> {
  const { name } = await findDestination(tx, id)
  const [there] = await tx
    .select({ n: count() })
    .from(audiences)
    .where(and(eq(audiences.destination, id), isNull(audiences.removedAt)))
  if (there && there.n > 0)
    throw new Problem(
      409,
      'has-audiences',
      `${there.n === 1 ? 'One audience is' : `${there.n} audiences are`} at ${name}. Take ${there.n === 1 ? 'it' : 'them'} away first: whoever says no could not be taken out any more. Nothing was forgotten.`,
    )
  await tx.delete(destinationKeys).where(eq(destinationKeys.destination, id))
  await tx.delete(destinations).where(eq(destinations.id, id))
}

/** What an audience of these looks like there. Throws a problem where the destination takes none. */
export function audienceOf(destination: Destination, takes: Takes): AudienceShape {
  const shape = shapeOf(destination, takes)
  if (!shape) throw new Problem(422, 'not-taken', `${destination.name} takes no ${takes}.`)
  return shape
}
