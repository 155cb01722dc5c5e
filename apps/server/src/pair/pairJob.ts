import type { Thresholds } from '@upper-field/contract'
import { DEFAULT_THRESHOLDS, type Survivorship } from '@upper-field/core/pair'
import { eq } from 'drizzle-orm'
import type { PoolClient } from 'pg'
import { type Db, transaction } from '../db/database'
import { readIds } from '../db/readRows'
import { lists } from '../db/schema'
import { inOneGo, type OnPage } from '../jobs/giveUp'
import type { JobHandler } from '../jobs/runner'
import { versionOf } from '../lists/listLock'
import { FEW_CHANGED } from '../projection/countedChanges'
import { countContacts } from '../projection/cube'
import { reproject } from '../projection/reproject'
import type { Services } from '../services'
import { type FoundPairs, findPairs } from './findPairs'
import { storeGroups, storePairs, storeState } from './storePaired'

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
        work: (tx, client, onPage) => surviveAnew(tx, client, job.listId, survivorship, onPage),
      })
    return inOneGo<Compared>(services, job, {
      phase: 'comparing',
      early: (onPage) => compareEarly(services, job.listId, thresholds, onPage),
      counts: (early) => (early && early.found.joins.length <= FEW_CHANGED ? 'by-change' : 'whole'),
      work: async (tx, client, onPage, early) => {
        const isAsItWas = early !== null && early.version === (await versionOf(tx, job.listId))
        const found = isAsItWas ? early.found : await findPairs(tx, job.listId, thresholds, onPage)
        const { contacts, joins, toDecide } = found
        await onPage(contacts, 'joining', 0)
        await storeGroups(tx, client, found, (share) => onPage(contacts, 'joining', share))
        await storePairs(tx, client, found)
        await storeState(tx, found, thresholds, new Date(services.now()))
        await onPage(contacts, 'counting')
        await countContacts(tx, job.listId, { repairs: 'as-they-were' })
        return { total: contacts, result: { joined: joins.length, toDecide: toDecide.length } }
      },
    })
  },
}

interface Compared {
  readonly found: FoundPairs
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

/** Puts every contact that is made of several rows together anew, by other rules. */
async function surviveAnew(tx: Db, client: PoolClient, listId: string, survivorship: Survivorship, onPage: OnPage) {
  await tx.update(lists).set({ survivorship }).where(eq(lists.id, listId))
  const survivors = await readIds(tx)`select id from contacts where list_id = ${listId} and joined > 0 order by id`
  await reproject(
    tx,
    client,
    { contacts: survivors, because: 'joined' },
    { onShare: (share) => onPage(null, 'joining', share) },
  )
  await countContacts(tx, listId, { repairs: 'as-they-were' })
  return { total: survivors.length, result: { contacts: survivors.length } }
}
