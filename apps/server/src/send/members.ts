import { suppressibleKeys } from '@upper-field/core/pair'
import type { AudienceMember } from '@upper-field/core/send'
import { isClosed, type Scope, scopesOfKeys } from '@upper-field/core/split'
import { sql } from 'drizzle-orm'
import { chosenContacts } from '../contacts/page'
import { readFilter } from '../contacts/readFilter'
import type { Db } from '../db/database'
import { groupBy } from '../db/groupBy'
import { usesOfLanes } from '../split/decideLanes'
import { suppressionScopes } from '../suppression/matches'

/** What of a contact's line in the table is read for a file: see `HELD`. */
type SentRecord = Readonly<Record<string, unknown>> & {
  readonly id: string
  readonly country: string
  readonly raw_number: string
}

/** A contact with everything that a file may hold of it. */
export interface SendableContact extends AudienceMember {
  readonly id: number
  readonly record: SentRecord
  readonly emails: readonly string[]
  readonly numbers: readonly string[]
  /** Numbers as people are given them: none of those whom they may neither text nor call. */
  readonly knownNumbers: readonly string[]
  /** What suppression lists keep them out of. */
  readonly suppressedFor: readonly Scope[]
}

export const SEND_PAGE = 5000

export interface MembersPage {
  readonly members: readonly SendableContact[]
  /** Who was left out because a suppression list holds them by now, and how many they are. */
  readonly closed: readonly SendableContact[]
  readonly suppressed: number
  /** The last contact that was looked at; null where there is nobody left. */
  readonly last: number | null
}

/** What a file is made of, and whether people work with it or a network does. */
export interface WhatIsSent {
  readonly listId: string
  readonly filter: string
  readonly isForPeople: boolean
}

/**
 * The next contacts of a list that may be sent: parked ones never, and of each only numbers that are valid and not
 * known to be out of service.
 */
export async function pageOfMembers(
  db: Db,
  { listId, filter, isForPeople }: WhatIsSent,
  after: number,
): Promise<MembersPage> {
  const { rows } = await db.execute<SentRecord>(sql`
    ${CONTACTS_TOLD} where ${chosenContacts(listId, readFilter(filter))} and lane <> 'parked' and id > ${after}
    order by id limit ${SEND_PAGE}`)
  const uses = await usesOfLanes(db, listId)
  const all = await sendableOf(db, rows)
  const isOut = ({ record, suppressedFor }: SendableContact) =>
    isClosed(suppressedFor, isForPeople ? (uses.get(String(record.lane)) ?? 'ads') : 'ads')
  const closed = all.filter(isOut)
  const last = rows.at(-1)
  return {
    members: closed.length === 0 ? all : all.filter((one) => !isOut(one)),
    closed,
    suppressed: closed.length,
    last: last ? Number(last.id) : null,
  }
}

/** Columns of a contact that a file, or what is asked of one, can hold: the others take half the time of reading it. */
const HELD = sql.raw(
  'id, batch_id, full_name, given_name, family_name, company, title, city, region, postal_code, street, birth_date, country, profile, number, raw_number, email, email_kind, email_state, line_type, line_status, verdict, lane, more'
    .split(', ')
    .map((column) => `contacts.${column}`)
    .join(', '),
)

/** Contacts with what providers told of their companies. */
const CONTACTS_TOLD = sql`
  select ${HELD}, contacts.domain, coalesce(nullif(contacts.domain, ''), told.of_domain, '') as told_domain,
    coalesce(told.of_page, '') as told_page, coalesce(told.of_industry, '') as told_industry
  from contacts left join (
    select contact_id as told_of, domain as of_domain, page as of_page, industry as of_industry from company_facts
  ) told on told_of = contacts.id`

/** The same of contacts that are known, whatever lane they are in: for files that leave nobody out. */
export async function sendableById(db: Db, ids: readonly number[]): Promise<Map<number, SendableContact>> {
  const { rows } = await db.execute<SentRecord>(sql`${CONTACTS_TOLD} where id = any(${sql.param([...ids])}::bigint[])`)
  return new Map((await sendableOf(db, rows)).map((one) => [one.id, one]))
}

async function sendableOf(db: Db, rows: readonly SentRecord[]): Promise<readonly SendableContact[]> {
  const ids = rows.map(({ id }) => id)
  const [numbers, emails] = await Promise.all([readNumbers(db, ids), readEmails(db, ids)])
  // Asked again at every export: an entry may have come since the contact was placed.
  const keysOf = (record: SentRecord) =>
    suppressibleKeys({
      e164s: (numbers.get(record.id) ?? []).map(({ e164 }) => e164),
      addresses: (emails.get(record.id) ?? []).map(({ address }) => address),
      domain: String(record.domain ?? ''),
    })
  const scopesOf = await suppressionScopes(db, () => rows.flatMap(keysOf))
  return rows.map((record) => {
    const suppressedFor = scopesOf ? scopesOfKeys(keysOf(record), scopesOf) : []
    const mine = numbers.get(record.id) ?? []
    const addresses = emails.get(record.id) ?? []
    return {
      ...memberOf(record, mine, addresses),
      id: Number(record.id),
      record,
      emails: addresses.map(({ address }) => address),
      numbers: mine.map(({ e164 }) => e164),
      knownNumbers: mayBeRung(record, suppressedFor) ? mine.map(({ e164 }) => e164) : [],
      suppressedFor,
    }
  })
}

/** Whoever is there for ads alone, and suppressed for calls or texts, is not to be rung by mistake. */
const mayBeRung = ({ lane }: SentRecord, suppressedFor: readonly Scope[]): boolean =>
  lane === 'text' || lane === 'call' || !(isClosed(suppressedFor, 'calls') || isClosed(suppressedFor, 'texts'))

interface KnownNumber {
  readonly e164: string
  readonly country: string | null
  readonly isMobile: boolean
}
interface KnownEmail {
  readonly address: string
  readonly isPersonal: boolean
}

/**
 * A contact's values by the field they are sent as. What networks match best comes first, since some take one alone: a
 * mobile before other numbers, a personal address before one at work.
 */
function memberOf(record: SentRecord, numbers: readonly KnownNumber[], emails: readonly KnownEmail[]): AudienceMember {
  const text = (column: string): readonly string[] => [String(record[column] ?? '')]
  const more = record.more as Readonly<Record<string, string>>
  return {
    country: record.country,
    numberCountry: numbers.find(({ country }) => country)?.country ?? null,
    values: {
      email: emails.toSorted((a, b) => Number(b.isPersonal) - Number(a.isPersonal)).map(({ address }) => address),
      number: numbers.toSorted((a, b) => Number(b.isMobile) - Number(a.isMobile)).map(({ e164 }) => e164),
      'given-name': text('given_name'),
      'family-name': text('family_name'),
      'full-name': text('full_name'),
      title: text('title'),
      company: text('company'),
      site: text('told_domain'),
      'company-page': [more['@page'] || String(record.told_page ?? '')],
      industry: [more['@industry'] || String(record.told_industry ?? '')],
      gender: [more['@gender'] ?? ''],
      'device-id': [more['@device'] ?? ''],
      value: [more['@value'] ?? ''],
      street: text('street'),
      'postal-code': text('postal_code'),
      city: text('city'),
      region: text('region'),
      'birth-date': text('birth_date'),
    },
  }
}

async function readNumbers(db: Db, ids: readonly string[]): Promise<Map<string, KnownNumber[]>> {
  const { rows } = await db.execute<{
    contact_id: string
    e164: string
    country: string | null
    is_mobile: boolean
  }>(sql`
    select n.contact_id, n.e164, n.country, coalesce(f.line_type, n.line_type) in ('mobile', 'fixed-or-mobile') as is_mobile
    from contact_numbers n left join numbers f on f.e164 = n.e164
    where n.contact_id = any(${sql.param(ids)}::bigint[]) and n.is_valid and coalesce(f.status, '') <> 'out-of-service'
    order by n.contact_id, n.position`)
  return asKnown(rows, ({ e164, country, is_mobile: isMobile }) => ({ e164, country, isMobile }))
}

async function readEmails(db: Db, ids: readonly string[]): Promise<Map<string, KnownEmail[]>> {
  const { rows } = await db.execute<{ contact_id: string; address: string; kind: string }>(
    sql`select contact_id, address, kind from contact_emails where contact_id = any(${sql.param(ids)}::bigint[]) order by contact_id, position`,
  )
  return asKnown(rows, ({ address, kind }) => ({ address, isPersonal: kind === 'personal' }))
}

const asKnown = <R extends { readonly contact_id: string }, T>(
  rows: readonly R[],
  of: (row: R) => T,
): Map<string, T[]> => new Map([...groupBy(rows, (row) => row.contact_id)].map(([id, found]) => [id, found.map(of)]))
