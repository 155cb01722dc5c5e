import { and, eq } from 'drizzle-orm'
import { connections } from '../db/schema'
import type { Services } from '../services'
import { seal, unsealWithAny } from './seal'

/**
 * Seals with the present secret what was sealed with an earlier one, so that the earlier one can be taken out of the
 * settings. @returns how many keys were sealed again
 */
export async function sealAgain({ db, config }: Pick<Services, 'db' | 'config'>): Promise<number> {
  const [present] = config.sealingSecrets
  let count = 0
  for (const { provider, sealedKey } of await db.select().from(connections)) {
    const opened = sealedKey === null ? null : unsealWithAny(sealedKey, config.sealingSecrets)
    if (opened === null || sealedKey === null || opened.secret === present) continue
    const changed = await db
      .update(connections)
      .set({ sealedKey: seal(opened.text, present) })
      .where(and(eq(connections.provider, provider), eq(connections.sealedKey, sealedKey)))
      .returning({ provider: connections.provider })
    count += changed.length
  }
  return count
}
