import { sql } from 'drizzle-orm'
import PQueue from 'p-queue'
import type { PoolClient } from 'pg'
import { type Db, transaction } from '../db/database'
import { isLockTimeout } from '../db/errors'
import { LOCKS, tryLock } from '../db/locks'
import { num, readCount, readRows, text } from '../db/readRows'
import { countByChange } from '../projection/countedChanges'
import type { Services } from '../services'
import { ListBusy, type ListWork, sayWho, whoHolds } from './listBusy'

/** How the contacts of a list that are changed are counted: each as it is changed, or all of the list at the end. */
export type Counting = 'by-change' | 'whole'

/** Who wants a list for itself, and how long that is waited for. */
export interface Holding {
  readonly work: ListWork
  readonly jobId?: string
  /** Longest wait in milliseconds; the setting for calls where nothing is said. */
  readonly patience?: number
  /** Ends the waiting: whoever asked has given up. */
  readonly signal?: AbortSignal
  /** `whole` for work that touches most of a list; `by-change` where nothing is said. */
  readonly counts?: Counting
}

type Work<T> = (tx: Db, client: PoolClient) => Promise<T>

/** A connection is held for so long at a time while the list is waited for, in milliseconds. */
const SLICE = 250
const PAUSE = 25

/**
 * The only way to change the contacts of lists: in one transaction that has them for itself. Whoever comes later waits
 * without holding a connection for long, in the order of coming within this process, and is told who is at work when
 * the patience ends. Throws `ListBusy`; nothing was done then.
 */
export async function withListLock<T>(
  services: Pick<Services, 'pool' | 'db' | 'config'>,
  listIds: string | readonly string[],
  holding: Holding,
  work: Work<T>,
): Promise<T> {
  const ids = [...new Set(typeof listIds === 'string' ? [listIds] : listIds)].sort()
  const patience = holding.patience ?? services.config.limits.lockSeconds * 1000
  const until = Date.now() + patience
  const waiting = AbortSignal.any([...(holding.signal ? [holding.signal] : []), AbortSignal.timeout(patience + SLICE)])
  const inTurn = ids.reduceRight<() => Promise<T>>(
    (inner, id) => () => waitInLine(id, waiting, inner),
    () => lockAndWork(services, ids, holding, until, work),
  )
  try {
    return await inTurn()
  } catch (error) {
    if (!(error instanceof NotYetTaken)) throw error
    if (holding.signal?.aborted) throw new ListBusy('You gave up waiting for this list. Nothing was changed.')
    throw new ListBusy(sayWho(await whoHolds(services.db, ids)))
  }
}

/** The list was not to be had in time. */
class NotYetTaken extends Error {}

const lines = new Map<string, PQueue>()

async function waitInLine<T>(listId: string, signal: AbortSignal, work: () => Promise<T>): Promise<T> {
  const line = lines.get(listId) ?? new PQueue({ concurrency: 1 })
  lines.set(listId, line)
  let hasBegun = false
  try {
    return await line.add(
      () => {
        hasBegun = true
        return work()
      },
      // Once it has begun, the work is not to be left alone half-way: the signal ends the waiting only.
      { signal: endsWaiting(signal, () => hasBegun) },
    )
  } catch (error) {
    throw hasBegun ? error : new NotYetTaken(undefined, { cause: error })
  } finally {
    if (line.size === 0 && line.pending === 0) lines.delete(listId)
  }
}

function endsWaiting(signal: AbortSignal, hasBegun: () => boolean): AbortSignal {
  const own = new AbortController()
  const end = () => {
    if (!hasBegun()) own.abort()
  }
  if (signal.aborted) end()
  signal.addEventListener('abort', end, { once: true })
  return own.signal
}

async function lockAndWork<T>(
  services: Pick<Services, 'pool' | 'config'>,
  ids: readonly string[],
  holding: Holding,
  until: number,
  work: Work<T>,
): Promise<T> {
  for (;;) {
    if (holding.signal?.aborted) throw new NotYetTaken()
    let isTaken = false
    try {
      return await transaction(services.pool, async (tx, client) => {
        await client.query("select set_config('lock_timeout', $1, true), set_config('application_name', $2, true)", [
          String(SLICE),
          nameOf(holding),
        ])
        for (const id of ids)
          await client.query('select pg_advisory_xact_lock(hashtextextended($1, $2))', [id, LOCKS.list])
        isTaken = true
        await client.query("select set_config('lock_timeout', $1, true)", [
          String(services.config.limits.lockSeconds * 1000),
        ])
        if (holding.counts !== 'whole') await countByChange(client)
        const result = await work(tx, client)
        await grow(tx, ids)
        return result
      })
    } catch (error) {
      if (isTaken || !isLockTimeout(error)) throw error
      if (Date.now() >= until) throw new NotYetTaken()
    }
    await new Promise((resolve) => setTimeout(resolve, PAUSE))
  }
}

/** Notes that these lists are no longer what they were: whoever worked something out beside them has to look again. */
async function grow(tx: Db, ids: readonly string[]): Promise<void> {
  await tx.execute(sql`update lists set version = version + 1 where id = any(${sql.param([...ids])}::uuid[])`)
}

/** How often the contacts of a list were changed. */
export async function versionOf(db: Db, listId: string): Promise<number> {
  return readCount(db)`select version as n from lists where id = ${listId}`
}

/** The same of every list. */
export async function versionsOfLists(db: Db): Promise<ReadonlyMap<string, number>> {
  const versions = await readRows(db, { id: text, version: num })`select id, version from lists`
  return new Map(versions.map(({ id, version }) => [id, version]))
}

/** Shown by `pg_stat_activity`, so that any process can say who is at work. */
export const nameOf = ({ work, jobId }: Pick<Holding, 'work' | 'jobId'>): string =>
  `upper-field ${work} ${jobId ?? ''}`.trim()

/**
 * Waits for a list within a transaction that is under way, however long, to change no contact of it: whoever works
 * something out beside the list need not look again.
 */
export async function holdQuietly(tx: Db, listId: string): Promise<void> {
  await tx.execute(sql`set local lock_timeout = 0`)
  await tx.execute(sql`select pg_advisory_xact_lock(hashtextextended(${listId}::text, ${LOCKS.list}))`)
}

/** The same where nobody has it. For what can follow later instead. */
export const tryToHoldQuietly = (tx: Db, listId: string): Promise<boolean> => tryLock(tx, 'list', listId)

/** Takes a list within a transaction that is under way, if nobody has it. For what can follow later instead. */
export async function tryListLock(tx: Db, client: PoolClient, listId: string): Promise<boolean> {
  if (!(await tryToHoldQuietly(tx, listId))) return false
  await countByChange(client)
  await grow(tx, [listId])
  return true
}
