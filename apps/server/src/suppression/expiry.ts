import { transaction } from '../db/database'
import { readRows } from '../db/readRows'
import type { Services } from '../services'
import { ENTRY_KEY } from './entryHolders'
import { placeAnew } from './placeAnew'

const PAGE = 1000

/**
 * Lets go whom only entries held that have expired. Several servers may do so at once: each takes others.
 * @returns how many entries there were
 */
export async function letExpiredGo({ pool }: Services): Promise<number> {
  for (let done = 0; ; ) {
    const count = await transaction(pool, async (tx, client) => {
      const keys = await readRows(tx, ENTRY_KEY)`
        update suppression_entries set is_let_go = true where id in (
          select id from suppression_entries where expires_at <= now() and not is_let_go limit ${PAGE} for update skip locked)
        returning kind, hash, key`
      await placeAnew(tx, client, keys)
      return keys.length
    })
    done += count
    if (count < PAGE) return done
  }
}
