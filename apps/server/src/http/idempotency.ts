import type { Me } from '@upper-field/contract'
import { and, eq } from 'drizzle-orm'
import { idempotencyKeys } from '../db/schema'
import type { Services } from '../services'
import { Problem } from './problem'

interface Keyed {
  readonly me: Me
  readonly key: string
  readonly call: string
}

/**
 * Answers a repeated call with the first answer. A call that failed gives its key back.
 * Throws a problem where the same key stands for another call, or the first call is still under way.
 */
export async function answerOnce<T>({ db }: Services, { me, key, call }: Keyed, answer: () => Promise<T>): Promise<T> {
  if (key.length > 100) throw new Problem(422, 'key-too-long', 'An Idempotency-Key has at most 100 characters.')
  const mine = and(eq(idempotencyKeys.personId, me.id), eq(idempotencyKeys.key, key))
  const taken = await db
    .insert(idempotencyKeys)
    .values({ personId: me.id, key, call })
    .onConflictDoNothing()
    .returning()
  if (taken.length === 0) {
    const [known] = await db.select().from(idempotencyKeys).where(mine)
    if (known?.call !== call) throw new Problem(422, 'key-reused', 'This Idempotency-Key was used for another call.')
    if (known.answer === null) throw new Problem(409, 'under-way', 'The same call is still under way.')
    return known.answer as T
  }
  try {
    const result = await answer()
    await db.update(idempotencyKeys).set({ answer: result }).where(mine)
    return result
  } catch (error) {
    await db.delete(idempotencyKeys).where(mine)
    throw error
  }
}
