import type { Me, PersonLine, Role, SessionLine } from '@upper-field/contract'
import { and, count, desc, eq, gt, ne, sql } from 'drizzle-orm'
import type { Pool } from 'pg'
import { type Db, transaction } from '../db/database'
import { LOCKS } from '../db/locks'
import { session, user } from '../db/schema'
import { notFound, Problem } from '../http/problem'
import { announceEnded } from './sessionEvents'

type PersonRow = Pick<typeof user.$inferSelect, 'id' | 'name' | 'email' | 'role'>

export const asMe = ({ id, name, email, role }: PersonRow): Me => ({ id, name, email, role: role as Role })

export async function findByEmail(db: Db, email: string): Promise<Me | null> {
  const [found] = await db.select().from(user).where(eq(user.email, email.toLowerCase()))
  return found ? asMe(found) : null
}

export const hasAnyone = async (db: Db): Promise<boolean> =>
  ((await db.select({ n: count() }).from(user))[0]?.n ?? 0) > 0

/** Runs `work` while nobody else makes, changes or removes owners. */
export const withOwnersLock = <T>(pool: Pool, work: (tx: Db) => Promise<T>): Promise<T> =>
  transaction(pool, async (tx) => {
    await tx.execute(sql`select pg_advisory_xact_lock(${LOCKS.firstOwner})`)
    return work(tx)
  })

export async function listPeople(db: Db): Promise<PersonLine[]> {
  const rows = await db
    .select({ person: user, lastSeen: sql<string | null>`max(${session.updatedAt})`, sessions: count(session.id) })
    .from(user)
    .leftJoin(session, and(eq(session.userId, user.id), gt(session.expiresAt, sql`now()`)))
    .groupBy(user.id)
    .orderBy(user.createdAt)
  return rows.map(({ person, lastSeen, sessions }) => ({
    ...asMe(person),
    addedAt: person.createdAt.toISOString(),
    lastSeenAt: lastSeen === null ? null : new Date(lastSeen).toISOString(),
    sessions,
  }))
}

export const changeRole = (pool: Pool, personId: string, role: Role): Promise<Me> =>
  withOwnersLock(pool, async (tx) => {
    if (role !== 'owner') await keepAnOwner(tx, personId)
    const [changed] = await tx
      .update(user)
      .set({ role, updatedAt: new Date() })
      .where(eq(user.id, personId))
      .returning()
    if (!changed) throw notFound('person')
    return asMe(changed)
  })

export const removePerson = (pool: Pool, personId: string): Promise<void> =>
  withOwnersLock(pool, async (tx) => {
    await keepAnOwner(tx, personId)
    const open = await tx.select({ id: session.id }).from(session).where(eq(session.userId, personId))
    const gone = await tx.delete(user).where(eq(user.id, personId)).returning({ id: user.id })
    if (gone.length === 0) throw notFound('person')
    for (const { id } of open) await announceEnded(tx, id)
  })

async function keepAnOwner(tx: Db, personId: string): Promise<void> {
  const others = await tx
    .select({ id: user.id })
    .from(user)
    .where(and(eq(user.role, 'owner'), ne(user.id, personId)))
    .limit(1)
  if (others.length === 0)
    throw new Problem(409, 'last-owner', 'This is the only owner. Make somebody else an owner first.')
}

/** Open sessions, those used last first. */
export async function openSessions(db: Db, personId: string | null): Promise<Omit<SessionLine, 'isThis'>[]> {
  const rows = await db
    .select({ session, person: user.name })
    .from(session)
    .innerJoin(user, eq(user.id, session.userId))
    .where(and(gt(session.expiresAt, sql`now()`), personId === null ? undefined : eq(session.userId, personId)))
    .orderBy(desc(session.updatedAt))
    .limit(200)
  return rows.map(({ session: one, person }) => ({
    id: one.id,
    personId: one.userId,
    person,
    startedAt: one.createdAt.toISOString(),
    lastSeenAt: one.updatedAt.toISOString(),
    address: one.ipAddress,
    agent: one.userAgent,
  }))
}

export async function endSession(pool: Pool, sessionId: string, ofPerson: string | null): Promise<boolean> {
  return transaction(pool, async (tx) => {
    const gone = await tx
      .delete(session)
      .where(and(eq(session.id, sessionId), ofPerson === null ? undefined : eq(session.userId, ofPerson)))
      .returning({ id: session.id })
    for (const { id } of gone) await announceEnded(tx, id)
    return gone.length > 0
  })
}
