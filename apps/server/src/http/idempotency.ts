import type { Me } from '@upper-field/contract'
import { and, eq, isNull, lt, or, sql } from 'drizzle-orm'
import { withLastWord } from '../db/database'
import { idempotencyKeys } from '../db/schema'
import type { Services } from '../services'
import { sha256Hex } from '../sha256'
import { Problem } from './problem'

interface Keyed {
  readonly me: Me
  readonly key: string
  readonly call: string
  /** Params, query and body: the same key stands for the same of them. */
  readonly asked: unknown
}

interface KnownCall extends Pick<typeof idempotencyKeys.$inferSelect, 'call' | 'request' | 'answer' | 'carriedOutAt'> {
  /** True where it began too long ago to be still at work. */
  readonly isLate: boolean
}

/**
 * Carries a keyed call out once. Repeated, it gets the first answer. A call that failed gives its key back; one that
 * was cut off by a crash is carried out by whoever repeats it, unless its effect was committed: every transaction of
 * the call notes that, so that the effect and the note are there together or not at all.
 * Throws a problem where the key stands for another call, or the first call is still under way.
 */
export async function answerOnce<T>(services: Services, keyed: Keyed, answer: () => Promise<T>): Promise<T> {
  const { me, key, call, asked } = keyed
  if (key.length > 100) throw new Problem(422, 'key-too-long', 'An Idempotency-Key has at most 100 characters.')
  const mine = and(eq(idempotencyKeys.personId, me.id), eq(idempotencyKeys.key, key))
  const token = crypto.randomUUID()
  const request = sha256Hex(JSON.stringify(asked))
  const known = await claim(services, { personId: me.id, key, call, request, token })
  if (known) return firstAnswer<T>(known, call, request)
  try {
    const result = await withLastWord(
      async (client) => {
        const { rowCount } = await client.query(
          'update idempotency_keys set carried_out_at = now() where person_id = $1 and key = $2 and token = $3',
          [me.id, key, token],
        )
        if (rowCount === 0) throw new Problem(409, 'taken-over', 'The same call was repeated and is carried out there.')
      },
      () => answer(),
    )
    await services.db.update(idempotencyKeys).set({ answer: result }).where(mine)
    return result
  } catch (error) {
    // What was committed stays carried out; only a call that did nothing gives its key back.
    await services.db
      .delete(idempotencyKeys)
      .where(and(mine, eq(idempotencyKeys.token, token), isNull(idempotencyKeys.carriedOutAt)))
    throw error
  }
}

/** Takes the key. @returns what is known of it where it is somebody else's, or was answered */
async function claim(
  { db, config }: Services,
  claimed: { personId: string; key: string; call: string; request: string; token: string },
): Promise<KnownCall | null> {
  const { idempotencyHours, underWaySeconds } = config.limits
  const isOver = lt(idempotencyKeys.at, sql`now() - make_interval(secs => ${idempotencyHours * 3600})`)
  const isLate = sql<boolean>`${idempotencyKeys.at} < now() - make_interval(secs => ${underWaySeconds})`
  const isCutOff = and(
    isNull(idempotencyKeys.answer),
    isNull(idempotencyKeys.carriedOutAt),
    eq(idempotencyKeys.request, claimed.request),
    isLate,
  )
  const taken = await db
    .insert(idempotencyKeys)
    .values(claimed)
    .onConflictDoUpdate({
      target: [idempotencyKeys.personId, idempotencyKeys.key],
      set: { ...claimed, answer: null, carriedOutAt: null, at: sql`now()` },
      setWhere: or(isOver, isCutOff),
    })
    .returning()
  if (taken.length > 0) return null
  const { call, request, answer, carriedOutAt } = idempotencyKeys
  const [known] = await db
    .select({ call, request, answer, carriedOutAt, isLate })
    .from(idempotencyKeys)
    .where(and(eq(idempotencyKeys.personId, claimed.personId), eq(idempotencyKeys.key, claimed.key)))
  if (!known) throw new Problem(409, 'under-way', 'The same call is still under way.')
  return known
}

function firstAnswer<T>(known: KnownCall, call: string, request: string): T {
  if (known.call !== call || known.request !== request)
    throw new Problem(422, 'key-reused', 'This Idempotency-Key was used for another call. Nothing was changed.')
  if (known.answer !== null) return known.answer as T
  // Between its effect and its answer it is still under way.
  if (known.carriedOutAt !== null && known.isLate)
    throw new Problem(
      409,
      'carried-out',
      'This call was carried out, but its answer was lost when the server stopped. Nothing was done twice: look at the list again.',
    )
  throw new Problem(409, 'under-way', 'The same call is still under way.')
}

/** Lets keys go whose time is over. @returns how many */
export async function forgetOldKeys({ db, config }: Pick<Services, 'db' | 'config'>): Promise<number> {
  const gone = await db
    .delete(idempotencyKeys)
    .where(lt(idempotencyKeys.at, sql`now() - make_interval(secs => ${config.limits.idempotencyHours * 3600})`))
    .returning({ key: idempotencyKeys.key })
  return gone.length
}
