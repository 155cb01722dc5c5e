import type { KindsKnown } from '@upper-field/core/send'
import { sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { groupBy } from '../db/groupBy'

/** What a provider found of a contact: an address, or a number. */
export interface FoundBy {
  readonly provider: string
  readonly isAddress: boolean
}

/** Of what kind the addresses and numbers of contacts are, and which of them a provider found. */
export interface Kinds {
  of(contactId: number): KindsKnown
  foundBy(contactId: number): readonly FoundBy[]
}

const NONE: KindsKnown = { hasPersonalEmail: false, hasWorkEmail: false, hasMobile: false }

export async function kindsKnownOf(db: Db, ids: readonly number[]): Promise<Kinds> {
  const these = sql`any(${sql.param([...ids])}::bigint[])`
  const { rows } = await db.execute<{ id: string; personal: boolean; work: boolean; mobile: boolean }>(sql`
    select id, bool_or(personal) as personal, bool_or(work) as work, bool_or(mobile) as mobile from (
      select contact_id as id, kind = 'personal' as personal, kind <> 'personal' as work, false as mobile
      from contact_emails where contact_id = ${these}
      union all
      select n.contact_id, false, false, coalesce(f.line_type, n.line_type) in ('mobile', 'fixed-or-mobile')
      from contact_numbers n left join numbers f on f.e164 = n.e164
      where n.contact_id = ${these} and n.is_valid and coalesce(f.status, '') <> 'out-of-service') known
    group by id`)
  const known = new Map(
    rows.map(({ id, personal, work, mobile }) => [
      Number(id),
      { hasPersonalEmail: personal, hasWorkEmail: work, hasMobile: mobile },
    ]),
  )
  const { rows: fills } = await db.execute<{ id: string; provider: string; is_address: boolean }>(sql`
    select contact_id as id, provider, address is not null as is_address from fills
    where contact_id = ${these} and undone_at is null`)
  const found = groupBy(fills, ({ id }) => Number(id))
  return {
    of: (id) => known.get(id) ?? NONE,
    foundBy: (id) => (found.get(id) ?? []).map(({ provider, is_address: isAddress }) => ({ provider, isAddress })),
  }
}
