import { and, desc, eq, isNotNull } from 'drizzle-orm'
import type { Db } from '../db/database'
import { deliveries } from '../db/schema'

/** The delivery by which an audience got its last edition: removals alone are none. Undefined where it never got any. */
export async function lastDelivered(db: Db, audienceId: string): Promise<typeof deliveries.$inferSelect | undefined> {
  const [last] = await db
    .select()
    .from(deliveries)
    .where(and(eq(deliveries.audienceId, audienceId), eq(deliveries.state, 'done'), isNotNull(deliveries.editionId)))
    .orderBy(desc(deliveries.startedAt))
    .limit(1)
  return last
}
