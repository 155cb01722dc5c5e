import { sql } from 'drizzle-orm'
import { isOfContacts, type Stretches, stretchesOf } from '../contacts/ofContacts'
import type { Db } from '../db/database'
import { readColumns } from '../db/readColumns'

/** Numbers or addresses of contacts, one after the other, and whose they are by the places of the contacts. */
export interface KnownValues extends Stretches {
  readonly values: readonly string[]
  /** Networks match these best: mobiles, and addresses of a person. */
  isBest(at: number): boolean
}

export interface KnownNumbers extends KnownValues {
  /** Empty where it is not known. */
  readonly countries: readonly string[]
}

/** The numbers of contacts that are valid and not known to be out of service. @param ids in their order */
export async function knownNumbers(db: Db, ids: readonly number[]): Promise<KnownNumbers> {
  const [of = [], values = [], countries = [], mobile = []] = await readColumns(
    db,
    ['n.contact_id', 'n.e164', 'n.country', "coalesce(f.line_type, n.line_type) in ('mobile', 'fixed-or-mobile')"],
    sql`from contact_numbers n left join numbers f on f.e164 = n.e164
      where ${isOfContacts(ids)} and n.is_valid and coalesce(f.status, '') <> 'out-of-service' order by n.contact_id, n.position`,
  )
  return { ...stretchesOf(ids, of), values, countries, isBest: (at) => mobile[at] === 'true' }
}

/** @param ids in their order */
export async function knownEmails(db: Db, ids: readonly number[]): Promise<KnownValues> {
  const [of = [], values = [], personal = []] = await readColumns(
    db,
    ['contact_id', 'address', "kind = 'personal'"],
    sql`from contact_emails where ${isOfContacts(ids)} order by contact_id, position`,
  )
  return { ...stretchesOf(ids, of), values, isBest: (at) => personal[at] === 'true' }
}

/** What the contact at a place has, in its order. */
export const valuesAt = ({ values, from, to }: KnownValues, at: number): readonly string[] =>
  values.slice(from[at], to[at])

/** The same with the best first, since some networks take one alone. */
export function bestFirstAt(known: KnownValues, at: number): readonly string[] {
  const places = Array.from(
    { length: (known.to[at] ?? 0) - (known.from[at] ?? 0) },
    (_, i) => (known.from[at] ?? 0) + i,
  )
  const [best, others] = [places.filter(known.isBest), places.filter((place) => !known.isBest(place))]
  return [...best, ...others].map((place) => known.values[place] ?? '')
}
