import { sql } from 'drizzle-orm'
import { isOfContacts, ofContacts } from '../contacts/ofContacts'
import type { Db } from '../db/database'
import { readColumns } from '../db/readColumns'

export interface KnownNumber {
  readonly e164: string
  readonly country: string | null
  readonly isMobile: boolean
}

export interface KnownEmail {
  readonly address: string
  readonly isPersonal: boolean
}

/** The numbers of contacts that are valid and not known to be out of service. @param ids in their order */
export async function knownNumbers(db: Db, ids: readonly number[]): Promise<(id: number) => readonly KnownNumber[]> {
  const [of = [], e164s = [], countries = [], mobile = []] = await readColumns(
    db,
    ['n.contact_id', 'n.e164', 'n.country', "coalesce(f.line_type, n.line_type) in ('mobile', 'fixed-or-mobile')"],
    sql`from contact_numbers n left join numbers f on f.e164 = n.e164
      where ${isOfContacts(ids)} and n.is_valid and coalesce(f.status, '') <> 'out-of-service' order by n.contact_id, n.position`,
  )
  return ofContacts(of, (at) => ({
    e164: e164s[at] ?? '',
    country: countries[at] || null,
    isMobile: mobile[at] === 'true',
  }))
}

/** @param ids in their order */
export async function knownEmails(db: Db, ids: readonly number[]): Promise<(id: number) => readonly KnownEmail[]> {
  const [of = [], addresses = [], personal = []] = await readColumns(
    db,
    ['contact_id', 'address', "kind = 'personal'"],
    sql`from contact_emails where ${isOfContacts(ids)} order by contact_id, position`,
  )
  return ofContacts(of, (at) => ({ address: addresses[at] ?? '', isPersonal: personal[at] === 'true' }))
}
