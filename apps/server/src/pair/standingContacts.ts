import { type PairInput, pairInputOf } from '@upper-field/core/pair'
import type { LineType } from '@upper-field/core/phone'
import { takeLegalForm } from '@upper-field/core/tidy'
import { sql } from 'drizzle-orm'
import type { Db } from '../db/database'

const PAGE = 5000

export interface Standing {
  readonly id: number
  readonly input: PairInput
}

interface StandingRow extends Record<string, unknown> {
  readonly id: string
  readonly full_name: string
  readonly given_name: string
  readonly family_name: string
  readonly company: string
  readonly domain: string
  readonly profile: string
  readonly city: string
  readonly postal_code: string
  readonly street: string
  readonly birth_date: string
  readonly country: string
  readonly numbers: readonly { readonly e164: string; readonly valid: boolean; readonly lineType: LineType }[]
  readonly emails: readonly { readonly address: string; readonly kind: string }[]
}

/** Contacts of a list that stand for themselves, page by page, with the numbers and e-mails of all they were made from. */
export async function* standingContacts(tx: Db, listId: string): AsyncGenerator<readonly Standing[]> {
  for (let after = 0; ; ) {
    const { rows } = await tx.execute<StandingRow>(sql`
      select c.id, c.full_name, c.given_name, c.family_name, c.company, c.domain, c.profile, c.city, c.postal_code, c.country, c.street, c.birth_date,
        coalesce((select json_agg(json_build_object('e164', n.e164, 'valid', n.is_valid, 'lineType', n.line_type) order by n.position)
          from contact_numbers n where n.contact_id = c.id), '[]') as numbers,
        coalesce((select json_agg(json_build_object('address', e.address, 'kind', e.kind) order by e.position)
          from contact_emails e where e.contact_id = c.id), '[]') as emails
      from contacts c join batches b on b.id = c.batch_id and b.state = 'ready'
      where c.list_id = ${listId} and c.joined_into is null and c.id > ${after} order by c.id limit ${PAGE}`)
    if (rows.length === 0) return
    yield rows.map(standing)
    after = Number(rows.at(-1)?.id)
  }
}

const standing = (row: StandingRow): Standing => ({
  id: Number(row.id),
  input: pairInputOf({
    values: {
      fullName: row.full_name,
      givenName: row.given_name,
      familyName: row.family_name,
      company: takeLegalForm(row.company).name,
      domain: row.domain,
      profile: row.profile,
      city: row.city,
      postalCode: row.postal_code,
      country: row.country,
      street: row.street,
      birthDate: row.birth_date,
    },
    numbers: row.numbers,
    emails: row.emails,
  }),
})
