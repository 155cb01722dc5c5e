import { randomBytes } from 'node:crypto'
import type { KeyScope, MachineKey } from '@upper-field/contract'
import { desc, eq, inArray, sql } from 'drizzle-orm'
import { RateLimiterMemory, RateLimiterRes } from 'rate-limiter-flexible'
import type { Db } from '../db/database'
import { machineCalls, machineKeys } from '../db/schema'
import { Problem } from '../http/problem'
import type { Services } from '../services'
import { sha256Hex } from '../sha256'
import { together } from './together'

/** A key that was let in. */
export type AdmittedKey = Pick<
  typeof machineKeys.$inferSelect,
  'id' | 'name' | 'scopes' | 'perMinute' | 'budget' | 'expiresAt' | 'withdrawnAt'
>

const PREFIX = 'ufk_'
const SHOWN = 10

/** A secret nobody can guess, with the name of what it is for in front. */
export function newSecret(): { readonly secret: string; readonly hash: string; readonly start: string } {
  const secret = `${PREFIX}${randomBytes(32).toString('base64url')}`
  return { secret, hash: sha256Hex(secret), start: secret.slice(0, SHOWN) }
}

/** The secret a call came with; null where it came with none. */
export const secretIn = (authorization: string | undefined): string | null =>
  /^Bearer\s+(\S+)$/i.exec(authorization ?? '')?.[1] ?? null

/** A minute of calls of each key, counted by this process. */
const limiters = new Map<string, RateLimiterMemory>()

const noSuchKey = () => new Problem(401, 'no-such-key', 'This key is none, or was withdrawn.')

/** The key a secret stands for, looked up with every call. Throws a problem where there is none. */
export async function findKey({ db }: Services, secret: string): Promise<AdmittedKey> {
  const hash = sha256Hex(secret)
  const key = (await keysByHash(db, hash)).get(hash)
  if (!key) throw noSuchKey()
  return key
}

/** Throws a problem where a key was withdrawn, has ended, lacks the scope, or has called too often. */
export async function admitKey({ now }: Services, key: AdmittedKey, scope: KeyScope | null): Promise<void> {
  if (key.withdrawnAt !== null) throw noSuchKey()
  if (key.expiresAt !== null && key.expiresAt.getTime() <= now())
    throw new Problem(401, 'key-expired', `This key ended on ${key.expiresAt.toISOString().slice(0, 10)}.`)
  if (scope === null) throw new Problem(403, 'people-only', 'This call is for people alone: no key may make it.')
  if (!key.scopes.includes(scope))
    throw new Problem(403, 'scope-missing', `This key lacks the scope “${scope}”; it has: ${key.scopes.join(', ')}.`)
  await takeTurn(key)
}

type KeyRow = typeof machineKeys.$inferSelect
type Keys = ReadonlyMap<string, KeyRow>
const looks = new WeakMap<Db, (hashes: readonly string[]) => Promise<Keys>>()

/** Keys by their hashes, read after they were asked for; calls at the same time share a look. */
function keysByHash(db: Db, hash: string): Promise<Keys> {
  const look =
    looks.get(db) ??
    together<string, Keys>(async (hashes) => {
      const rows = await db
        .select()
        .from(machineKeys)
        .where(inArray(machineKeys.hash, [...new Set(hashes)]))
      return new Map(rows.map((row) => [row.hash, row]))
    })
  looks.set(db, look)
  return look([hash])
}

async function takeTurn({ id, perMinute }: AdmittedKey): Promise<void> {
  const name = `${id} ${perMinute}`
  const limiter = limiters.get(name) ?? new RateLimiterMemory({ points: perMinute, duration: 60 })
  limiters.set(name, limiter)
  try {
    await limiter.consume(id)
  } catch (error) {
    if (!(error instanceof RateLimiterRes)) throw error
    const seconds = Math.max(1, Math.ceil(error.msBeforeNext / 1000))
    throw new Problem(429, 'too-many', `This key may call ${perMinute} times a minute. Try again in ${seconds} s.`, {
      retryAfter: seconds,
    })
  }
}

/** Keys as they are told, the latest first. */
export async function describeKeys(db: Db, only?: string): Promise<MachineKey[]> {
  const rows = await db
    .select({
      key: machineKeys,
      spent: sql<string>`(select coalesce(sum(amount), 0) from charges c where c.question like 'judge:' || machine_keys.id::text || ':%' and c.at >= date_trunc('month', now()))`,
      callsToday: sql<number>`(select count(*)::int from machine_calls m where m.key_id = machine_keys.id and m.at >= date_trunc('day', now()))`,
    })
    .from(machineKeys)
    .where(only === undefined ? undefined : eq(machineKeys.id, only))
    .orderBy(desc(machineKeys.madeAt))
  return rows.map(({ key, spent, callsToday }) => ({
    id: key.id,
    name: key.name,
    scopes: key.scopes as KeyScope[],
    start: key.start,
    perMinute: key.perMinute,
    budget: key.budget,
    spent: Number(spent),
    expiresAt: key.expiresAt?.toISOString() ?? null,
    lastUsedAt: key.lastUsedAt?.toISOString() ?? null,
    withdrawnAt: key.withdrawnAt?.toISOString() ?? null,
    madeBy: key.madeBy,
    madeAt: key.madeAt.toISOString(),
    callsToday,
  }))
}

interface NotedCall {
  readonly keyId: string
  readonly call: string
  readonly status: number
  readonly milliseconds: number
}

const waiting = new WeakMap<Db, NotedCall[]>()
const EVERY = 500

/** Notes a call of a key, without waiting: calls of half a second are written together. */
export function noteCall({ db }: Services, call: NotedCall): void {
  const notes = waiting.get(db)
  if (notes) {
    notes.push(call)
    return
  }
  const mine = [call]
  waiting.set(db, mine)
  setTimeout(() => {
    waiting.delete(db)
    void writeCalls(db, mine).catch(() => {})
  }, EVERY).unref()
}

async function writeCalls(db: Db, calls: readonly NotedCall[]): Promise<void> {
  await db.insert(machineCalls).values([...calls])
  const used = [...new Set(calls.map(({ keyId }) => keyId))]
  await db.execute(sql`update machine_keys set last_used_at = now() where id = any(${sql.param(used)}::uuid[])`)
}
