import { type Destination, whyNotFor } from '@upper-field/core/send'
import { eq, sql } from 'drizzle-orm'
import { chosenContacts } from '../contacts/page'
import { readFilter, readWholeFilter } from '../contacts/readFilter'
import type { Db } from '../db/database'
import { readCount } from '../db/readRows'
import { suppressionLists } from '../db/schema'
import { notFound, Problem } from '../http/problem'
import type { Services } from '../services'
import { asked, networkOf } from './askNetwork'
import { findAudience } from './audienceDetail'
import { toldRefusal } from './describeAudiences'
import type { AudienceRow } from './difference'

/** What an account lacks is found before anything is sent. */
export async function refuseUnfit(services: Services, audience: AudienceRow, destination: Destination): Promise<void> {
  const network = await networkOf(services, audience)
  const account = (await asked(() => network.accounts())).find(({ id }) => id === audience.accountId)
  const lack = account ? whyNotFor(network.calls, account, audience.purpose) : null
  const code = account ? lack?.code : 'no-such-account'
  if (code === undefined) return
  const { says, remedy, takes } = toldRefusal(destination, code)
  throw new Problem(
    409,
    'account-lacks',
    `${audience.accountName}: ${says} ${remedy}${takes ? ` That takes ${takes}.` : ''} Nothing was sent.`,
  )
}

export function refuseForm({ hashing, name }: Destination, form: 'hashed' | 'plain'): void {
  if (hashing === 'always' && form === 'plain')
    throw new Problem(422, 'form-off', `${name} takes hashed identifiers only.`)
  if (hashing === 'never' && form === 'hashed')
    throw new Problem(422, 'form-off', `${name} takes no hashed identifiers.`)
}

/** Where membership lapses, how long it is to last; null where it does not. */
export function keepsOf({ lapsesAfterDays, name }: Destination, asked: number | null): number | null {
  if (lapsesAfterDays === null) return null
  if (asked !== null && asked > lapsesAfterDays)
    throw new Problem(422, 'kept-too-long', `${name} keeps people for at most ${lapsesAfterDays} days.`)
  return asked ?? lapsesAfterDays
}

export async function refuseWithin(db: Db, within: string, destination: string, account: string): Promise<void> {
  const outer = await findAudience(db, within)
  if (outer.destination !== destination || outer.takes !== 'companies' || outer.accountId !== account)
    throw new Problem(422, 'within-off', 'People are kept inside an audience of companies of the same account.')
}

export async function refuseSuppressionList(db: Db, id: string, purpose: string): Promise<void> {
  const [list] = await db.select().from(suppressionLists).where(eq(suppressionLists.id, id))
  if (!list) throw notFound('suppression list')
  if (purpose !== 'exclude')
    throw new Problem(422, 'purpose-off', 'Entries of a suppression list can only be excluded, never aimed at.')
}

export async function countChosen(db: Db, { listId, filter, suppressionListId }: AudienceRow): Promise<number> {
  return readCount(db)`${
    suppressionListId === null
      ? sql`select count(*) as n from contacts where ${chosenContacts(listId, readFilter(filter))} and lane <> 'parked'`
      : sql`select count(*) as n from (
          select hash from suppression_entries where suppression_list_id = ${suppressionListId} and key is not null group by hash) once`
  }`
}

/** A filter that chooses everybody is meant, or it is a slip that costs money. */
export async function refuseEverybody(db: Db, listId: string, filter: string, isMeant: boolean): Promise<void> {
  const chosen = await readWholeFilter(db, listId, filter)
  if (isMeant) return
  const everybody = sql`from contacts where ${chosenContacts(listId, readFilter(''))}`
  // Whoever is left out is found soon, where there is anybody; nobody is counted for that.
  const { rows: leftOut } = await db.execute(
    sql`select 1 ${everybody} and (${chosenContacts(listId, chosen)}) is not true limit 1`,
  )
  if (leftOut.length > 0) return
  const all = await readCount(db)`select count(*) as n ${everybody}`
  if (all > 0)
    throw new Problem(
      409,
      'whole-list',
      `This chooses everybody of the list: ${all.toLocaleString('en')} contacts. Say that this is meant. Nothing was made.`,
    )
}
