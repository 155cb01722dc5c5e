import { eq } from 'drizzle-orm'
import type { PoolClient } from 'pg'
import type { Db } from '../db/database'
import { contacts, joins } from '../db/schema'
import { notFound, Problem } from '../http/problem'
import { countContacts } from '../projection/cube'
import { reproject } from '../projection/reproject'
import { carrySent } from './carrySent'
import { pointToSurvivors } from './pointToSurvivors'
import { sharersOf } from './sharers'

/** Undoes one join, while its list is held: both contacts stand for themselves again, or for whom else they are. */
export async function undoJoin(tx: Db, client: PoolClient, joinId: number, undoneAt: Date): Promise<void> {
  const [join] = await tx.select().from(joins).where(eq(joins.id, joinId)).for('update')
  if (!join) throw notFound('join')
  if (join.undoneAt) throw new Problem(409, 'apart-already', 'These two were taken apart already.')
  await tx.update(joins).set({ undoneAt }).where(eq(joins.id, join.id))
  const [member] = await tx.select({ root: contacts.joinedInto }).from(contacts).where(eq(contacts.id, join.memberId))
  await tx.update(contacts).set({ joinedInto: null }).where(eq(contacts.id, join.memberId))
  await pointToSurvivors(tx, [join.memberId])
  const touched = [
    member?.root ?? join.survivorId,
    join.survivorId,
    join.memberId,
    ...(await sharersOf(tx, [join.survivorId, join.memberId])),
  ]
  await reproject(tx, client, { contacts: touched, because: 'changed' })
  await carrySent(tx, touched)
  await countContacts(tx, join.listId)
}
