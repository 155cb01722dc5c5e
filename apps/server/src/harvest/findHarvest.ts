import { eq } from 'drizzle-orm'
import type { Db } from '../db/database'
import { harvests } from '../db/schema'
import { notFound, Problem } from '../http/problem'
import { findOpenList } from '../lists/routes'
import type { HarvestRow } from './storePage'

/** Throws a problem where there is none. */
export async function findHarvest(db: Db, harvestId: string): Promise<HarvestRow> {
  const [found] = await db.select().from(harvests).where(eq(harvests.id, harvestId))
  if (!found) throw notFound('reading of pages')
  return found
}

/** The same, of a list that may be changed. */
export async function findOpenHarvest(db: Db, harvestId: string): Promise<HarvestRow> {
  const found = await findHarvest(db, harvestId)
  await findOpenList(db, found.listId)
  return found
}

/**
 * The same, of which no batch was begun yet: what is decided of it later would reach nobody, and one that was cut off
 * goes on with the rows it began with.
 */
export async function findUntakenHarvest(db: Db, harvestId: string): Promise<HarvestRow> {
  const found = await findOpenHarvest(db, harvestId)
  if (found.batchId !== null) throw takenAlready()
  return found
}

export const takenAlready = (): Problem =>
  new Problem(409, 'taken-already', 'What was found is a batch already: correct it there.')
