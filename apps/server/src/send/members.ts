import type { AudienceMember } from '@upper-field/core/send'
import { parseFilter } from '@upper-field/core/split'
import { sql } from 'drizzle-orm'
import { type ContactRecord, chosenContacts } from '../contacts/page'
import type { Db } from '../db/database'
import { groupBy } from '../db/groupBy'

/** A contact with everything that a file may hold of it. */
export interface SendableContact extends AudienceMember {
  readonly id: number
  readonly record: ContactRecord
  readonly knownNumbers: readonly string[]
}

export const SEND_PAGE = 5000

/**
 * The next contacts of a list that may be sent: parked ones never, and of each only numbers that are valid and not
 * known to be out of service.
 */
export async function pageOfMembers(db: Db, listId: string, filter: string, after: number): Promise<SendableContact[]> {
  const { rows } = await db.execute<ContactRecord>(sql`
    select * from contacts where ${chosenContacts(listId, parseFilter(filter).filter)} and lane <> 'parked' and id > ${after}
    order by id limit ${SEND_PAGE}`)
  const ids = rows.map(({ id }) => id)
  const numbers = await readNumbers(db, ids)
  const emails = await readEmails(db, ids)
  return rows.map((record) => {
    const mine = numbers.get(record.id) ?? []
    return {
      id: Number(record.id),
      record,
      givenName: String(record.given_name),
      familyName: String(record.family_name),
      postalCode: String(record.postal_code),
      country: record.country,
      emails: emails.get(record.id) ?? [],
      numbers: mine,
      knownNumbers: mine.map(({ e164 }) => e164),
    }
  })
}

async function readNumbers(db: Db, ids: readonly string[]) {
  const { rows } = await db.execute<{ contact_id: string; e164: string; country: string | null }>(sql`
    select n.contact_id, n.e164, n.country from contact_numbers n left join numbers f on f.e164 = n.e164
    where n.contact_id = any(${sql.param(ids)}::bigint[]) and n.is_valid and coalesce(f.status, '') <> 'out-of-service'
    order by n.contact_id, n.position`)
  return groupBy(rows, (row) => row.contact_id)
}

async function readEmails(db: Db, ids: readonly string[]): Promise<Map<string, string[]>> {
  const { rows } = await db.execute<{ contact_id: string; address: string }>(
    sql`select contact_id, address from contact_emails where contact_id = any(${sql.param(ids)}::bigint[]) order by contact_id, position`,
  )
  return new Map(
    [...groupBy(rows, (row) => row.contact_id)].map(([id, found]) => [id, found.map(({ address }) => address)]),
  )
}
