import { and, eq } from 'drizzle-orm'
import { connections, destinationKeys, webhooks } from '../db/schema'
import type { Services } from '../services'
import { seal, unsealWithAny } from './seal'

/**
 * Seals with the present secret what was sealed with an earlier one, so that the earlier one can be taken out of the
 * settings. @returns how many keys were sealed again
 */
export async function sealAgain({ db, config }: Pick<Services, 'db' | 'config'>): Promise<number> {
  let count = 0
  for (const { provider, sealedKey } of await db.select().from(connections)) {
    const sealed = sealedKey === null ? null : sealedAnew(sealedKey, config.sealingSecrets)
    if (sealed === null || sealedKey === null) continue
    const isThisOne = and(eq(connections.provider, provider), eq(connections.sealedKey, sealedKey))
    count += (await db.update(connections).set({ sealedKey: sealed }).where(isThisOne).returning()).length
  }
  for (const { destination, sealedKey } of await db.select().from(destinationKeys)) {
    const sealed = sealedAnew(sealedKey, config.sealingSecrets)
    if (sealed === null) continue
    const isThisOne = and(eq(destinationKeys.destination, destination), eq(destinationKeys.sealedKey, sealedKey))
    count += (await db.update(destinationKeys).set({ sealedKey: sealed }).where(isThisOne).returning()).length
  }
  for (const { id, secret } of await db.select().from(webhooks)) {
    const sealed = sealedAnew(secret, config.sealingSecrets)
    if (sealed === null) continue
    const isThisOne = and(eq(webhooks.id, id), eq(webhooks.secret, secret))
    count += (await db.update(webhooks).set({ secret: sealed }).where(isThisOne).returning()).length
  }
  return count
}

/** A key sealed with the present secret; null where it is already, or none of the secrets opens it. */
function sealedAnew(sealedKey: string, secrets: Services['config']['sealingSecrets']): string | null {
  const opened = unsealWithAny(sealedKey, secrets)
  return opened === null || opened.secret === secrets[0] ? null : seal(opened.text, secrets[0])
}
