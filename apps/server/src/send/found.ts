import type { Db } from '../db/database'
import { num, orNull, readRows, text } from '../db/readRows'
import { withJoined } from '../pair/standsFor'
import type { Besides } from './fileText'

/** What providers found of contacts and was kept: the latest number and address of each. */
export async function foundOf(
  db: Db,
  contacts: readonly { readonly id: number }[],
): Promise<ReadonlyMap<number, Besides>> {
  const found = await readRows(db, { id: num, number: orNull(text), address: orNull(text) })`
    select w.root as id, (array_agg(e164 order by made_at desc) filter (where e164 is not null))[1] as number,
      (array_agg(address order by made_at desc) filter (where address is not null))[1] as address
    from fills f join ${withJoined(contacts.map(({ id }) => id))} w on w.id = f.contact_id where undone_at is null
    group by w.root`
  return new Map(
    found.map(({ id, number, address }) => [
      id,
      { foundNumber: number ?? '', foundEmail: address ?? '', sameAsRow: '' },
    ]),
  )
}
