import type { FillOptions, FillPlan } from '@upper-field/contract'
import type { Askable, Want } from '@upper-field/core/fill'
import { type SQL, sql } from 'drizzle-orm'
import { chosenContacts } from '../contacts/page'
import { readFilter } from '../contacts/readFilter'
import type { Db } from '../db/database'
import { bool, listOf, num, readRow, readRows, text, word } from '../db/readRows'
import { withJoined } from '../pair/standsFor'
import { askedInputs } from './askedInputs'

/** What decides who is asked about a contact: where it is, what it lacks, what a provider can be told about it. */
export interface Wanting extends Askable {
  readonly country: string
  readonly lacks: readonly Want[]
}

/** A contact that lacks something. */
export interface WantingContact extends Wanting {
  readonly id: number
}

/** Contacts that are asked about alike: of what a provider can be told is said only whether it is known. */
export interface WantingGroup extends Wanting {
  readonly contacts: number
  /** Providers that have answered about them lately. */
  readonly answeredBy: readonly string[]
}

const HAS_LINE = sql.raw("sureness in ('mobile-in-service', 'mobile-not-checked', 'only-office')")

/** When a contact lacks something; where doubtful ones count, also when it is not sure. */
function lackOf(want: Want, alsoDoubtful: boolean): SQL {
  switch (want) {
    case 'mobile':
      return alsoDoubtful ? sql`sureness <> 'mobile-in-service'` : sql`wants_mobile`
    case 'any-number':
      return alsoDoubtful ? sql`(not ${HAS_LINE} or known_from <> 'register')` : sql`not ${HAS_LINE}`
    case 'work-email':
    case 'personal-email': {
      const kind = want === 'work-email' ? 'work' : 'personal'
      const good = alsoDoubtful ? sql`= 'deliverable'` : sql`is distinct from 'undeliverable'`
      return sql`not exists (
        select 1 from contact_emails e left join addresses f on f.address = e.address
        where e.contact_id = contacts.id and e.kind = ${kind} and f.deliverability ${good})`
    }
  }
}

type Lacking = Pick<FillOptions, 'wants' | 'alsoDoubtful'>

const lacksSome = ({ wants, alsoDoubtful }: Lacking): SQL =>
  sql`(${sql.join(
    wants.map((want) => lackOf(want, alsoDoubtful)),
    sql` or `,
  )})`

/** All of what is wanted that a contact lacks, as an array. */
export const lacksAll = ({ wants, alsoDoubtful }: Lacking): SQL =>
  sql`array_remove(array[${sql.join(
    wants.map((want) => sql`case when ${lackOf(want, alsoDoubtful)} then ${want}::text end`),
    sql`, `,
  )}]::text[], null)`

/** Whom a fill is for. */
export interface FillFor extends Lacking {
  readonly listId: string
  readonly filter: string
  /** One contact alone; null for all. */
  readonly contactId: number | null
  /** An answer of so many days counts as late enough not to be asked for again. */
  readonly notAgainDays: number
}

/** A plan, and the list it is for. */
export type FillOfList = FillPlan & { readonly listId: string }

export const fillForOf = ({
  options: { wants, alsoDoubtful },
  listId,
  filter,
  contactId,
  notAgainDays,
}: Pick<FillOfList, 'listId' | 'options' | 'filter' | 'contactId' | 'notAgainDays'>): FillFor => ({
  wants,
  alsoDoubtful,
  listId,
  filter,
  contactId,
  notAgainDays,
})

/** Contacts that stand for themselves and lack something, whether they may be asked about or not. */
const lackingOf = (meant: FillFor): SQL =>
  sql`joined_into is null and ${lacksSome(meant)} and ${chosenContacts(meant.listId, readFilter(meant.filter))}
    ${meant.contactId === null ? sql`` : sql`and id = ${meant.contactId}`}`

const IS_SUPPRESSED = sql.raw("suppressed_for = 'all'")

/** No lawful basis is recorded for where they come from, in a country that needs one. */
const HAS_NO_BASIS = sql.raw(
  `(country = any(coalesce((select countries from lawful_regions), '{}'))
    and exists (select 1 from batches b where b.id = contacts.batch_id and b.lawful_basis = 'not-stated'))`,
)

/** Of those the ones that may be asked about. */
export const wantingOf = (meant: FillFor): SQL =>
  sql`${lackingOf(meant)} and not ${IS_SUPPRESSED} and not ${HAS_NO_BASIS}`

/** How many lack something and are left out, by why. */
export async function countLeftOut(tx: Db, meant: FillFor): Promise<Record<'suppressed' | 'no-lawful-basis', number>> {
  const counted = await readRow(tx, { suppressed: num, basis: num })`
    select count(*) filter (where ${IS_SUPPRESSED}) as suppressed,
      count(*) filter (where ${HAS_NO_BASIS} and not ${IS_SUPPRESSED}) as basis
    from contacts where ${lackingOf(meant)}`
  return { suppressed: counted?.suppressed ?? 0, 'no-lawful-basis': counted?.basis ?? 0 }
}

/** What a provider may have to be told, each as a column. */
const INPUTS = ['full_name', 'company', 'domain', 'profile', 'email'] as const
/** What stands for a value of a contact where it matters only that there is one. */
const KNOWN = 'known'

const GROUP = {
  country: text,
  lacks: listOf(word<Want>),
  answeredBy: listOf(text),
  contacts: num,
  full_name: bool,
  company: bool,
  domain: bool,
  profile: bool,
  email: bool,
}

/** Those who want something, in groups that are asked about alike: there are few, however many contacts. */
export async function readWantingGroups(tx: Db, meant: FillFor): Promise<readonly WantingGroup[]> {
  const groups = await readRows(tx, GROUP)`
    with wanting as (
      select id, ${askedInputs('contacts')}, ${lacksAll(meant)} as lacks from contacts where ${wantingOf(meant)}),
    lately as (
      select coalesce(m.joined_into, m.id) as contact_id, array_agg(distinct a.provider) as answered_by
      from attempts a join contacts m on m.id = a.contact_id
      where a.list_id = ${meant.listId} and ${answeredWithin(meant.notAgainDays)} group by 1),
    alike as (
      select country, lacks, coalesce(l.answered_by, '{}') as answered_by,
        ${sql.raw(INPUTS.map((input) => `coalesce(${input}, '') <> '' as ${input}`).join(', '))}
      from wanting w left join lately l on l.contact_id = w.id)
    select *, count(*) as contacts from alike group by 1, 2, 3, 4, 5, 6, 7, 8`
  return groups.map(({ country, lacks, answeredBy, contacts, ...known }) => {
    const inputs = INPUTS.map((input) => [input, known[input] ? KNOWN : ''])
    return { ...asAskable({ country, ...Object.fromEntries(inputs) }), lacks, answeredBy, contacts }
  })
}

/** What a provider can be told about a contact, from a line of `contacts`. */
export const asAskable = (row: Readonly<Record<string, unknown>>): Omit<Wanting, 'lacks'> => ({
  fullName: String(row.full_name ?? ''),
  company: String(row.company ?? ''),
  domain: String(row.domain ?? ''),
  profile: String(row.profile ?? ''),
  email: String(row.email ?? ''),
  country: String(row.country ?? ''),
})

/** Who answered lately about each of these contacts, or about whoever is joined to it, in other runs than this. */
export async function answeredLately(
  db: Db,
  { jobId, notAgainDays }: { readonly jobId: string; readonly notAgainDays: number },
  ids: readonly number[],
): Promise<ReadonlyMap<number, ReadonlySet<string>>> {
  const lately = await readRows(db, { id: num, providers: listOf(text) })`
    select w.root as id, array_agg(distinct a.provider) as providers from attempts a join ${withJoined(ids)} w on w.id = a.contact_id
    where a.job_id <> ${jobId} and ${answeredWithin(notAgainDays)} group by 1`
  return new Map(lately.map(({ id, providers }) => [id, new Set(providers)]))
}

/** Attempts that were answered within so many days: asking again would be told the same. */
const answeredWithin = (days: number): SQL =>
  sql`state in ('nothing', 'set-aside') and answered_at > now() - make_interval(days => ${days})`
