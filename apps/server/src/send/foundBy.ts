import type { Db } from '../db/database'
import { groupBy } from '../db/groupBy'
import { bool, num, readRows, text } from '../db/readRows'
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
  const found = await readRows(db, { id: num, provider: text, isAddress: bool })`
    select w.root as id, provider, address is not null as is_address
    from fills f join ${withJoined(ids)} w on w.id = f.contact_id where undone_at is null`
  return groupBy(found, ({ id }) => id)
}
