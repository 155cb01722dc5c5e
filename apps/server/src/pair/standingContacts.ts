import { type PairInput, pairInputOf } from '@upper-field/core/pair'
import type { LineType } from '@upper-field/core/phone'
import { takeLegalForm } from '@upper-field/core/tidy'
import { sql } from 'drizzle-orm'
import { isOfContacts, type Stretches, stretchesOf } from '../contacts/ofContacts'
import { isShown } from '../contacts/shown'
import type { Db } from '../db/database'
import { readColumns } from '../db/readColumns'

const PAGE = 5000

export interface Standing {
  readonly id: number
  readonly input: PairInput
}

const COLUMNS = [
  'id',
  'full_name',
  'given_name',
  'family_name',
  'company',
  'domain',
  'profile',
  'city',
  'postal_code',
  'country',
  'street',
  'birth_date',
] as const

/** Contacts of a list that stand for themselves, page by page, with the numbers and e-mails of all they were made from. */
export async function* standingContacts(tx: Db, listId: string): AsyncGenerator<readonly Standing[]> {
  for (let after = 0; ; ) {
    const [ids = [], ...texts] = await readColumns(
      tx,
      COLUMNS.map((column) => `contacts.${column}`),
      sql`from contacts where contacts.list_id = ${listId} and joined_into is null
        and contacts.id > ${after} and ${isShown()} order by contacts.id limit ${PAGE}`,
    )
    if (ids.length === 0) return
    yield await standing(tx, ids.map(Number), texts)
    after = Number(ids.at(-1))
  }
}

/** @param texts what each column but the first holds of them */
async function standing(tx: Db, ids: readonly number[], texts: readonly (readonly string[])[]): Promise<Standing[]> {
  const [names = [], given = [], family = [], companies = [], domains = [], profiles = [], cities = [], ...others] =
    texts
  const [postalCodes = [], countries = [], streets = [], birthDates = []] = others
  const numbersAt = await numbersOfContacts(tx, ids)
  const emailsAt = await emailsOfContacts(tx, ids)
  return ids.map((id, at) => ({
    id,
    input: pairInputOf({
      values: {
        fullName: names[at] ?? '',
        givenName: given[at] ?? '',
        familyName: family[at] ?? '',
        company: takeLegalForm(companies[at] ?? '').name,
        domain: domains[at] ?? '',
        profile: profiles[at] ?? '',
        city: cities[at] ?? '',
        postalCode: postalCodes[at] ?? '',
        country: countries[at] ?? '',
        street: streets[at] ?? '',
        birthDate: birthDates[at] ?? '',
      },
      numbers: numbersAt(at),
      emails: emailsAt(at),
    }),
  }))
}

async function numbersOfContacts(tx: Db, ids: readonly number[]) {
  const [of = [], e164s = [], lineTypes = []] = await readColumns(
    tx,
    ['contact_id', 'e164', 'line_type'],
    sql`from contact_numbers where ${isOfContacts(ids)} and is_valid order by contact_id, position`,
  )
  return eachOf(stretchesOf(ids, of), (at) => ({
    e164: e164s[at] ?? '',
    valid: true,
    lineType: lineTypes[at] as LineType,
  }))
}

async function emailsOfContacts(tx: Db, ids: readonly number[]) {
  const [of = [], addresses = [], kinds = []] = await readColumns(
    tx,
    ['contact_id', 'address', 'kind'],
    sql`from contact_emails where ${isOfContacts(ids)} order by contact_id, position`,
  )
  return eachOf(stretchesOf(ids, of), (at) => ({ address: addresses[at] ?? '', kind: kinds[at] ?? '' }))
}

/** What the contact at a place has. @param read what stands at a place of what was read */
const eachOf =
  <T>({ from, to }: Stretches, read: (at: number) => T) =>
  (contact: number): readonly T[] => {
    const start = from[contact] ?? 0
    return Array.from({ length: (to[contact] ?? start) - start }, (_, i) => read(start + i))
  }
