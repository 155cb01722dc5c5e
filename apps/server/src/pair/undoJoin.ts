import { eq } from 'drizzle-orm'
import type { PoolClient } from 'pg'
import type { Db } from '../db/database'
import { joins } from '../db/schema'
import { notFound, Problem } from '../http/problem'
import { countContacts } from '../projection/cube'
import { joinAgain } from './joinAgain'

/**
 * Undoes one join, while its list is held: both contacts stand for themselves again, or for whom else they are. Others that
 * were one person with them by a key that only one of the two holds go with that one.
 */
export async function undoJoin(tx: Db, client: PoolClient, joinId: number, undoneAt: Date): Promise<void> {
  const [join] = await tx.select().from(joins).where(eq(joins.id, joinId)).for('update')
  if (!join) throw notFound('join')
  if (join.undoneAt) throw new Problem(409, 'apart-already', 'These two were taken apart already.')
  await tx.update(joins).set({ undoneAt }).where(eq(joins.id, join.id))
  await joinAgain(tx, client, join.listId, [join.survivorId, join.memberId])
  await countContacts(tx, join.listId)
}
