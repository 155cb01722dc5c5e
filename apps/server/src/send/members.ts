import { suppressibleKeys } from '@upper-field/core/pair'
import { type AudienceMember, type AudienceShape, SEND_FIELDS, type SendField } from '@upper-field/core/send'
import { isClosed, type Scope, scopesOfKeys } from '@upper-field/core/split'
import { type SQL, sql } from 'drizzle-orm'
import { chosenContacts } from '../contacts/page'
import { readFilter } from '../contacts/readFilter'
import type { Db } from '../db/database'
import { readColumns } from '../db/readColumns'
import { usesOfLanes } from '../split/decideLanes'
import { suppressionScopes } from '../suppression/matches'
import { type KnownEmail, type KnownNumber, knownEmails, knownNumbers } from './knownValues'

/** A contact with what a file may hold of it. */
export interface SendableContact extends AudienceMember {
  readonly id: number
  readonly lane: string
  readonly emails: readonly string[]
  readonly numbers: readonly string[]
  /** Numbers as people are given them: none of those whom they may neither text nor call. */
  readonly knownNumbers: readonly string[]
  /** What suppression lists keep them out of. */
  readonly suppressedFor: readonly Scope[]
  /** Columns that were asked for, by their names. */
  readonly told: Readonly<Record<string, string>>
}

const SEND_PAGE = 10_000

export interface MembersPage {
  readonly members: readonly SendableContact[]
  /** Who was left out because a suppression list holds them by now, and how many they are. */
  readonly closed: readonly SendableContact[]
  readonly suppressed: number
  /** The last contact that was looked at; null where there is nobody left. */
  readonly last: number | null
}

/** What is read of contacts besides their numbers, addresses and country: reading everything takes several times as long. */
export interface Wanted {
  readonly fields: readonly SendField[]
  /** Columns of the table of contacts; names of ours. */
  readonly columns: readonly string[]
}

/** Everything a file that people open can hold. */
export const FOR_PEOPLE: Wanted = {
  fields: SEND_FIELDS,
  columns: ['raw_number', 'profile', 'line_type', 'line_status', 'verdict', 'email_state'],
}

/** What the columns of an audience hold, and what more is looked at. */
export const wantedBy = ({ columns }: AudienceShape, more: Partial<Wanted> = {}): Wanted => ({
  fields: [...new Set([...columns.map(({ field }) => field), ...(more.fields ?? [])])],
  columns: more.columns ?? [],
})

/** What a file is made of, and whether people work with it or a network does. */
export interface WhatIsSent {
  readonly listId: string
  readonly filter: string
  readonly isForPeople: boolean
  readonly wanted: Wanted
  /** Of whom they are, as a condition on `contacts`; everybody where nothing is said. */
  readonly among?: SQL
}

/**
 * The next contacts of a list that may be sent: parked ones never, and of each only numbers that are valid and not
 * known to be out of service.
 */
export async function pageOfMembers(
  db: Db,
  { listId, filter, isForPeople, wanted, among = sql`true` }: WhatIsSent,
  after: number,
): Promise<MembersPage> {
  const all = await readSendable(
    db,
    wanted,
    sql`${chosenContacts(listId, readFilter(filter))} and ${among} and lane <> 'parked' and id > ${after} order by id limit ${SEND_PAGE}`,
  )
  const uses = isForPeople ? await usesOfLanes(db, listId) : null
  const isOut = ({ lane, suppressedFor }: SendableContact) =>
    isClosed(suppressedFor, uses ? (uses.get(lane) ?? 'ads') : 'ads')
  const closed = all.filter(isOut)
  return {
    members: closed.length === 0 ? all : all.filter((one) => !isOut(one)),
    closed,
    suppressed: closed.length,
    last: all.at(-1)?.id ?? null,
  }
}

/** The same of contacts that are known, whatever lane they are in: for files that leave nobody out. */
export async function sendableById(db: Db, ids: readonly number[]): Promise<Map<number, SendableContact>> {
  const found = await readSendable(db, FOR_PEOPLE, sql`id = any(${sql.param([...ids])}::bigint[]) order by id`)
  return new Map(found.map((one) => [one.id, one]))
}

/** What stands in one field alone, as an expression on contacts and what providers told of their companies. */
const SINGLE: Readonly<Partial<Record<SendField, string>>> = {
  'given-name': 'given_name',
  'family-name': 'family_name',
  'full-name': 'full_name',
  title: 'title',
  company: 'company',
  site: "coalesce(nullif(domain, ''), of_domain, '')",
  'company-page': "coalesce(nullif(more->>'@page', ''), of_page, '')",
  industry: "coalesce(nullif(more->>'@industry', ''), of_industry, '')",
  street: 'street',
  'postal-code': 'postal_code',
  city: 'city',
  region: 'region',
  'birth-date': 'birth_date',
  gender: "coalesce(more->>'@gender', '')",
  'device-id': "coalesce(more->>'@device', '')",
  value: "coalesce(more->>'@value', '')",
}

const TOLD_OF_COMPANIES = sql`
  left join (
    select contact_id as told_of, domain as of_domain, page as of_page, industry as of_industry from company_facts
  ) told on told_of = contacts.id`

const isTold = (field: SendField): boolean => SINGLE[field]?.includes('of_') ?? false

/**
 * What suppression lists say is asked again at every export: an entry may have come since the contact was placed.
 * @param which of `contacts`, as a condition that ends in an order by id
 */
async function readSendable(db: Db, { fields, columns }: Wanted, which: SQL): Promise<readonly SendableContact[]> {
  const single = fields.filter((field) => SINGLE[field] !== undefined)
  const read = await readColumns(
    db,
    ['contacts.id', 'country', 'lane', 'domain', ...single.map((field) => SINGLE[field] ?? ''), ...columns],
    sql`from contacts ${single.some(isTold) ? TOLD_OF_COMPANIES : sql``} where ${which}`,
  )
  const [texts = [], countries = [], lanes = [], domains = []] = read
  const singles = single.map((field, at) => ({ field, texts: read[HEAD + at] ?? [] }))
  const told = columns.map((column, at) => ({ column, texts: read[HEAD + single.length + at] ?? [] }))
  const ids = texts.map(Number)
  const [numbersOf, emailsOf] = await Promise.all([knownNumbers(db, ids), knownEmails(db, ids)])
  const reach = ids.map((id) => ({ numbers: numbersOf(id), emails: emailsOf(id) }))
  const keysOf = (at: number) =>
    suppressibleKeys({
      e164s: e164sOf(reach[at]?.numbers ?? []),
      addresses: addressesOf(reach[at]?.emails ?? []),
      domain: domains[at] ?? '',
    })
  const scopesOf = await suppressionScopes(db, () => ids.flatMap((_, at) => keysOf(at)))
  return ids.map((id, at) => {
    const { numbers, emails } = reach[at] ?? NO_REACH
    const suppressedFor = scopesOf ? scopesOfKeys(keysOf(at), scopesOf) : NO_SCOPES
    const [lane, e164s, addresses] = [lanes[at] ?? '', e164sOf(numbers), addressesOf(emails)]
    // What networks match best comes first, since some take one alone.
    const values: Partial<Record<SendField, readonly string[]>> = {
      email: emails.length < 2 ? addresses : addressesOf(firstThose(emails, ({ isPersonal }) => isPersonal)),
      number: numbers.length < 2 ? e164s : e164sOf(firstThose(numbers, ({ isMobile }) => isMobile)),
    }
    for (const { field, texts } of singles) values[field] = [texts[at] ?? '']
    return {
      id,
      country: countries[at] ?? '',
      lane,
      numberCountry: numbers.find((one) => one.country !== null)?.country ?? null,
      values,
      numbers: e164s,
      emails: addresses,
      knownNumbers: mayBeRung(lane, suppressedFor) ? e164s : NOTHING,
      suppressedFor,
      told:
        told.length === 0
          ? NOTHING_TOLD
          : Object.fromEntries(told.map(({ column, texts }) => [column, texts[at] ?? ''])),
    }
  })
}

/** Columns that are read of every contact. */
const HEAD = 4
const NOTHING_TOLD = {}
const NO_SCOPES: readonly Scope[] = []
const NO_REACH = { numbers: [], emails: [] } as const
const NOTHING: readonly string[] = []
const e164sOf = (numbers: readonly KnownNumber[]): readonly string[] => numbers.map(({ e164 }) => e164)
const addressesOf = (emails: readonly KnownEmail[]): readonly string[] => emails.map(({ address }) => address)

/** Those of a kind before all others, each in the order they had. */
const firstThose = <T>(all: readonly T[], isFirst: (one: T) => boolean): readonly T[] => [
  ...all.filter(isFirst),
  ...all.filter((one) => !isFirst(one)),
]

/** Whoever is there for ads alone, and suppressed for calls or texts, is not to be rung by mistake. */
const mayBeRung = (lane: string, suppressedFor: readonly Scope[]): boolean =>
  lane === 'text' || lane === 'call' || !(isClosed(suppressedFor, 'calls') || isClosed(suppressedFor, 'texts'))
