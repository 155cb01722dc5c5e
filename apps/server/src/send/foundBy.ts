import { sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { groupBy } from '../db/groupBy'
import { withJoined } from '../pair/standsFor'

/** What a provider found of a contact: an address, or a number. */
export interface FoundBy {
  readonly provider: string
  readonly isAddress: boolean
}

/** What providers found of contacts and of whoever is joined to them, by their ids; nothing of whom they found nothing. */
export async function foundByProviders(
  db: Db,
  ids: readonly number[],
): Promise<ReadonlyMap<number, readonly FoundBy[]>> {
  const { rows } = await db.execute<{ id: string; provider: string; is_address: boolean }>(sql`
    select w.root as id, provider, address is not null as is_address
    from fills f join ${withJoined(ids)} w on w.id = f.contact_id where undone_at is null`)
  const found = rows.map(({ id, provider, is_address: isAddress }) => ({ id: Number(id), provider, isAddress }))
  return groupBy(found, ({ id }) => id)
}
