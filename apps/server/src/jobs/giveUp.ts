import type { Pool, PoolClient } from 'pg'
import type { Db } from '../db/database'
import { isLostConnection } from '../db/errors'
import { ListBusy, type ListWork } from '../lists/listBusy'
import { type Counting, withListLock } from '../lists/listLock'
import type { Services } from '../services'
import type { StepOutcome } from './runner'
import { findJob, type JobRow, saveJob } from './store'

/** Thrown between two pages to give up what somebody wants to stop or to rest. */
class GivenUp extends Error {}

/**
 * Tells how far the work has come, in what phase it is, and how much of that is done, from 0 to 1; throws where it is to be
 * given up.
 * @param done of what the job counts; null where that is as it was
 */
export type OnPage = (done: number | null, phase?: string, phaseShare?: number) => Promise<void>

/** Work on a whole list, as one step of a job. */
export interface WholeList<Early> {
  readonly phase: string
  /** How much was done before, of what the job counts. */
  readonly before?: number
  /** Tells how its contacts are counted: `by-change` where it touches a few alone; else they are counted whole. */
  readonly counts?: (early: Early | null) => Counting
  /** What can be worked out before the list is held, while others go on changing it. */
  readonly early?: (onPage: OnPage) => Promise<Early>
  /** Changes the list, which is held. @returns what the job has to tell in the end, by name */
  readonly work: (
    tx: Db,
    client: PoolClient,
    onPage: OnPage,
    early: Early | null,
  ) => Promise<{ total: number; result: JobRow['result'] }>
}

/** The phase of a job whose work is committed. */
const DONE = 'done'

/** How long is waited for the list when something was worked out already, in milliseconds. */
const PATIENCE = 600_000
/** How often is looked, while the list is waited for, whether somebody wants to stop, in milliseconds. */
const LOOK = 1000

/**
 * Whether another connection is to be had at once. Whoever works on a list holds two, and to wait for a third to tell of it
 * could be to wait for others who wait for the list.
 */
const hasRoom = ({ idleCount, totalCount, options: { max = totalCount } }: Pool): boolean =>
  idleCount > 0 || totalCount < max

/** Nothing was told, which is not what the work hangs on. */
function unlessLost(error: unknown): 'running' {
  if (!isLostConnection(error)) throw error
  return 'running'
}

/**
 * Work on a whole list in one transaction that has the list for itself: told page by page as it goes, given up whole
 * when somebody stops it or lets it rest. Until it is committed, the list is what it was.
 */
export async function inOneGo<Early>(
  services: Services,
  job: JobRow,
  { phase, before = 0, early, work, counts = () => 'whole' }: WholeList<Early>,
): Promise<StepOutcome> {
  const tell: OnPage = async (done, now = phase, phaseShare) => {
    if (!hasRoom(services.pool)) return
    const counted = done === null ? {} : { done: Math.min(done, job.total ?? done) }
    const state = await saveJob(services.db, job.id, { phase: now, ...counted, phaseShare: phaseShare ?? null })
      .then(async () => (await findJob(services.db, job.id)).state)
      .catch(unlessLost)
    if (state !== 'running') throw new GivenUp()
  }
  const giveUp = new AbortController()
  const isWanted = () =>
    findJob(services.db, job.id)
      .then(({ state }) => state === 'running' || giveUp.abort())
      .catch(() => {})
  const clock = setInterval(() => void isWanted(), LOOK)
  try {
    const found = early ? await early(tell) : null
    const holding = {
      work: job.kind as ListWork,
      jobId: job.id,
      patience: early ? PATIENCE : 0,
      signal: giveUp.signal,
      counts: counts(found),
    }
    await withListLock(services, job.listId, holding, async (tx, client) => {
      // It was committed, and only the word of it was lost.
      if ((await findJob(tx, job.id)).phase === DONE) return
      const { total, result } = await work(tx, client, tell, found)
      // Until it is committed, it can be given up.
      await tell(total)
      await saveJob(tx, job.id, { phase: DONE, done: total, result })
    })
    return { next: 'done' }
  } catch (error) {
    const isGivenUp = error instanceof GivenUp || (error instanceof ListBusy && giveUp.signal.aborted)
    if (!isGivenUp) throw error
    await saveJob(services.db, job.id, { phase: 'waiting', done: before })
    return { next: 'step' }
  } finally {
    clearInterval(clock)
  }
}
