import { suppressibleKeys } from '@upper-field/core/pair'
import {
  type AudienceMember,
  type AudienceShape,
  type KindsKnown,
  type MemberColumns,
  type MemberValue,
  SEND_FIELDS,
  type SendField,
} from '@upper-field/core/send'
import { isClosed, type Scope, scopesOfKeys } from '@upper-field/core/split'
import { type SQL, sql } from 'drizzle-orm'
import { chosenContacts } from '../contacts/page'
import { readFilter } from '../contacts/readFilter'
import type { Db } from '../db/database'
import { readColumns } from '../db/readColumns'
import { usesOfLanes } from '../split/decideLanes'
import { suppressionScopes } from '../suppression/matches'
import { bestFirstAt, type KnownNumbers, type KnownValues, knownEmails, knownNumbers, valuesAt } from './knownValues'

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
  /** How many were left out because a suppression list holds them by now. */
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

/** A page of contacts of a list of whom some may be sent, column by column: an object for each takes several times as long. */
export interface SendablePage {
  readonly ids: readonly number[]
  readonly columns: MemberColumns
  /** Whether a suppression list keeps out the contact at this place by now. */
  isClosed(at: number): boolean
  /** Everything that is known of it. */
  contactAt(at: number): SendableContact
  /** Of what kind its addresses and numbers are. */
  kindsAt(at: number): KindsKnown
  /** What stands in a column that was asked for. */
  toldAt(column: string, at: number): string
}

/**
 * The next contacts of a list that may be sent: parked ones never, and of each only numbers that are valid and not
 * known to be out of service. Null where there is nobody left.
 */
export async function sendablePage(
  db: Db,
  { listId, filter, isForPeople, wanted, among = sql`true` }: WhatIsSent,
  after: number,
): Promise<SendablePage | null> {
  const sendable = await readSendable(
    db,
    wanted,
    sql`${chosenContacts(listId, readFilter(filter))} and ${among} and lane <> 'parked' and id > ${after} order by id limit ${SEND_PAGE}`,
  )
  const { laneAt, suppressedForAt, ...page } = sendable
  if (page.ids.length === 0) return null
  const uses = isForPeople ? await usesOfLanes(db, listId) : null
  const isOut = (at: number) => isClosed(suppressedForAt(at), uses ? (uses.get(laneAt(at)) ?? 'ads') : 'ads')
  return { ...page, isClosed: isOut }
}

/** The same, a contact after the other. */
export async function pageOfMembers(db: Db, what: WhatIsSent, after: number): Promise<MembersPage> {
  const page = await sendablePage(db, what, after)
  if (page === null) return { members: [], suppressed: 0, last: null }
  const members = page.ids.flatMap((_, at) => (page.isClosed(at) ? [] : page.contactAt(at)))
  return { members, suppressed: page.ids.length - members.length, last: page.ids.at(-1) ?? null }
}

/** The same of contacts that are known, whatever lane they are in: for files that leave nobody out. */
export async function sendableById(db: Db, ids: readonly number[]): Promise<Map<number, SendableContact>> {
  const { ids: found, contactAt } = await readSendable(
    db,
    FOR_PEOPLE,
    sql`id = any(${sql.param([...ids])}::bigint[]) order by id`,
  )
  return new Map(found.map((id, at) => [id, contactAt(at)]))
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

interface Sendable extends Omit<SendablePage, 'isClosed'> {
  laneAt(at: number): string
  suppressedForAt(at: number): readonly Scope[]
}

/**
 * What suppression lists say is asked again at every export: an entry may have come since the contact was placed.
 * @param which of `contacts`, as a condition that ends in an order by id
 */
async function readSendable(db: Db, { fields, columns: more }: Wanted, which: SQL): Promise<Sendable> {
  const single = fields.filter((field) => SINGLE[field] !== undefined)
  const read = await readColumns(
    db,
    ['contacts.id', 'country', 'lane', 'domain', ...single.map((field) => SINGLE[field] ?? ''), ...more],
    sql`from contacts ${single.some(isTold) ? TOLD_OF_COMPANIES : sql``} where ${which}`,
  )
  const [texts = [], countries = [], lanes = [], domains = []] = read
  const ids = texts.map(Number)
  const [numbers, emails] = await Promise.all([knownNumbers(db, ids), knownEmails(db, ids)])
  const keysAt = (at: number) =>
    suppressibleKeys({
      e164s: valuesAt(numbers, at),
      addresses: valuesAt(emails, at),
      domain: domains[at] ?? '',
    })
  const scopesOf = await suppressionScopes(db, () => ids.flatMap((_, at) => keysAt(at)))
  const scopes = scopesOf && ids.map((_, at) => scopesOfKeys(keysAt(at), scopesOf))
  const suppressedForAt = (at: number) => scopes?.[at] ?? NO_SCOPES
  const laneAt = (at: number) => lanes[at] ?? ''
  const values: Partial<Record<SendField, readonly MemberValue[]>> = {
    email: inColumn(emails),
    number: inColumn(numbers),
    ...Object.fromEntries(single.map((field, i) => [field, read[HEAD + i] ?? []])),
  }
  const columns: MemberColumns = {
    size: ids.length,
    countries,
    numberCountries: ids.map((_, at) => countryOfFirst(numbers, at)),
    values,
  }
  const told = new Map(more.map((column, i) => [column, read[HEAD + single.length + i] ?? []]))
  const toldAt = (column: string, at: number) => told.get(column)?.[at] ?? ''
  const contactAt = (at: number): SendableContact => {
    const [e164s, suppressedFor, lane] = [valuesAt(numbers, at), suppressedForAt(at), laneAt(at)]
    return {
      id: ids[at] ?? 0,
      country: countries[at] ?? '',
      lane,
      numberCountry: columns.numberCountries[at] ?? null,
      values: Object.fromEntries(Object.entries(values).map(([field, column]) => [field, severalOf(column[at])])),
      numbers: e164s,
      emails: valuesAt(emails, at),
      knownNumbers: mayBeRung(lane, suppressedFor) ? e164s : NOTHING,
      suppressedFor,
      told: Object.fromEntries(more.map((column) => [column, toldAt(column, at)])),
    }
  }
  const kindsAt = (at: number) => kindsOf(numbers, emails, at)
  return { ids, columns, contactAt, kindsAt, toldAt, laneAt, suppressedForAt }
}

/** Columns that are read of every contact. */
const HEAD = 4
const NO_SCOPES: readonly Scope[] = []
const NOTHING: readonly string[] = []

/** What networks match best comes first, since some take one alone. */
const inColumn = (known: KnownValues): readonly MemberValue[] =>
  Array.from(known.from, (from, at) => {
    const n = (known.to[at] ?? 0) - from
    return n === 0 ? NOTHING : n === 1 ? (known.values[from] ?? '') : bestFirstAt(known, at)
  })

const severalOf = (value: MemberValue = NOTHING): readonly string[] => (typeof value === 'string' ? [value] : value)

const kindsOf = (numbers: KnownNumbers, emails: KnownValues, at: number): KindsKnown => ({
  hasPersonalEmail: hasAny(emails, at, true),
  hasWorkEmail: hasAny(emails, at, false),
  hasMobile: hasAny(numbers, at, true),
})

function hasAny({ from, to, isBest }: KnownValues, at: number, best: boolean): boolean {
  for (let place = from[at] ?? 0; place < (to[at] ?? 0); place++) if (isBest(place) === best) return true
  return false
}

/** The country of the first number of which it is known. */
function countryOfFirst({ from, to, countries }: KnownNumbers, at: number): string | null {
  for (let place = from[at] ?? 0; place < (to[at] ?? 0); place++) if (countries[place]) return countries[place] ?? null
  return null
}

/** Whoever is there for ads alone, and suppressed for calls or texts, is not to be rung by mistake. */
const mayBeRung = (lane: string, suppressedFor: readonly Scope[]): boolean =>
  lane === 'text' || lane === 'call' || !(isClosed(suppressedFor, 'calls') || isClosed(suppressedFor, 'texts'))
