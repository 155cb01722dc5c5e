import type { Thresholds } from '@upper-field/contract'
import { createPairing, DEFAULT_THRESHOLDS, type Paired, type Survivorship } from '@upper-field/core/pair'
import { eq } from 'drizzle-orm'
import type { PoolClient } from 'pg'
import { type Db, transaction } from '../db/database'
import { readIds } from '../db/readRows'
import { lists, pairStates } from '../db/schema'
import { inOneGo, type OnPage } from '../jobs/giveUp'
import type { JobHandler } from '../jobs/runner'
import { versionOf } from '../lists/listLock'
import { countContacts } from '../projection/cube'
import { reproject } from '../projection/reproject'
import type { Services } from '../services'
import { keptApart } from './keptApart'
import { standingContacts } from './standingContacts'
import { type Found, storeGroups, storePairs } from './storePaired'

/** Looks for contacts that are one person: what is sure is joined, what is not is left to a person. */
export const pairJob: JobHandler = {
  step: (services, job) => {
    const { thresholds = DEFAULT_THRESHOLDS, survivorship } = job.payload as {
      thresholds?: Thresholds
      survivorship?: Survivorship
    }
    if (survivorship)
      return inOneGo(services, job, {
        phase: 'joining',
        work: (tx, client) => surviveAnew(tx, client, job.listId, survivorship),
      })
    return inOneGo<Compared>(services, job, {
      phase: 'comparing',
      early: (onPage) => compareEarly(services, job.listId, thresholds, onPage),
      work: async (tx, client, onPage, early) => {
        const isAsItWas = early !== null && early.version === (await versionOf(tx, job.listId))
        const found = isAsItWas ? early.found : await findPairs(tx, job.listId, thresholds, onPage)
        await onPage(found.ids.length, 'joining')
        const joined = await storeGroups(tx, client, found)
        const toDecide = await storePairs(tx, client, found)
        await storeState(tx, found, thresholds, new Date(services.now()))
        await countContacts(tx, job.listId)
        return { total: found.ids.length, result: { joined, toDecide } }
      },
    })
  },
}

interface Compared {
  readonly found: Found
  /** What the list was when it was read. */
  readonly version: number
}

/**
 * Reads and compares, which takes longest, in a picture of the list as it was, and lets others change the list
 * meanwhile. Where they did, it is done once more while the list is held.
 */
const compareEarly = ({ pool }: Services, listId: string, thresholds: Thresholds, onPage: OnPage): Promise<Compared> =>
  transaction(pool, async (tx, client) => {
    await client.query('set transaction isolation level repeatable read, read only')
    return { version: await versionOf(tx, listId), found: await findPairs(tx, listId, thresholds, onPage) }
  })

async function findPairs(tx: Db, listId: string, thresholds: Thresholds, onPage: OnPage): Promise<Found> {
  const pairing = createPairing()
  const ids: number[] = []
  for await (const page of standingContacts(tx, listId)) {
    for (const { id, input } of page) {
      ids.push(id)
      pairing.add(input)
    }
    await onPage(ids.length, 'gathering')
  }
  const apart = await keptApart(tx, listId)
  const isKeptApart = (a: number, b: number) => apart.isPair(ids[a] ?? 0, ids[b] ?? 0)
  const steps = pairing.steps({ thresholds, isKeptApart })
  for (;;) {
    const { done, value } = steps.next()
    if (done) return { listId, paired: value, ids }
    await onPage(value)
  }
}

async function storeState(tx: Db, { listId, paired, ids }: Found, thresholds: Thresholds, ranAt: Date): Promise<void> {
  const bins = paired.bins.map(({ from, pairs, examples }) => ({
    from,
    pairs,
    examples: examples.map(({ a, b, score }) => ({ a: ids[a] ?? 0, b: ids[b] ?? 0, score })),
  }))
  const state = { listId, contacts: ids.length, thresholds, bins, groups: groupsByLine(paired, thresholds) }
  await tx
    .insert(pairStates)
    .values({ ...state, ranAt })
    .onConflictDoUpdate({ target: pairStates.listId, set: { ...state, ranAt } })
}

/** Lines on either side of the upper one at which groups are counted, in bits. */
const BESIDE = 12
/** Groups are counted for as many lines as so many pairs allow, one after another. */
const MOST_COUNTED = 400_000

/** How many groups there would be with other upper lines, as far as there is time to count. */
function groupsByLine(paired: Paired, { join, decide }: Thresholds): { from: number; groups: number }[] {
  const pairs = paired.bins.filter(({ from }) => from >= decide).reduce((sum, bin) => sum + bin.pairs, 0)
  const lines = Math.max(1, Math.min(2 * BESIDE + 1, Math.floor(MOST_COUNTED / Math.max(1, pairs))))
  const reach = Math.floor(lines / 2)
  return Array.from({ length: 2 * reach + 1 }, (_, i) => Math.round(join) - reach + i)
    .filter((from) => from >= decide)
    .map((from) => ({ from, groups: paired.groupsFrom(from) }))
}

/** Puts every contact that is made of several rows together anew, by other rules. */
async function surviveAnew(tx: Db, client: PoolClient, listId: string, survivorship: Survivorship) {
  await tx.update(lists).set({ survivorship }).where(eq(lists.id, listId))
  const survivors = await readIds(tx)`select id from contacts where list_id = ${listId} and joined > 0 order by id`
  await reproject(tx, client, { contacts: survivors, because: 'joined' })
  await countContacts(tx, listId)
  return { total: survivors.length, result: { contacts: survivors.length } }
}
