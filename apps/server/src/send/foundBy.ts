import { sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { groupBy } from '../db/groupBy'

/** What a provider found of a contact: an address, or a number. */
export interface FoundBy {
  readonly provider: string
  readonly isAddress: boolean
}

/** What providers found of contacts, by their ids; nothing of whom they found nothing. */
export async function foundByProviders(
  db: Db,
  ids: readonly number[],
): Promise<ReadonlyMap<number, readonly FoundBy[]>> {
  const { rows } = await db.execute<{ id: string; provider: string; is_address: boolean }>(sql`
    select contact_id as id, provider, address is not null as is_address from fills
    where contact_id = any(${sql.param([...ids])}::bigint[]) and undone_at is null`)
  const found = rows.map(({ id, provider, is_address: isAddress }) => ({ id: Number(id), provider, isAddress }))
  return groupBy(found, ({ id }) => id)
}
