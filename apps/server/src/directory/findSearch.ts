import { eq } from 'drizzle-orm'
import type { Db } from '../db/database'
import { directorySearches } from '../db/schema'
import { notFound } from '../http/problem'

export type SearchRow = typeof directorySearches.$inferSelect

/** Throws a problem where there is none. */
export async function findSearch(db: Db, searchId: string): Promise<SearchRow> {
  const [found] = await db.select().from(directorySearches).where(eq(directorySearches.id, searchId))
  if (!found) throw notFound('search of a directory')
  return found
}
