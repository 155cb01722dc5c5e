import type { FillEstimate } from '@upper-field/contract'
import { type Askable, inputFor, mostCost, type ProviderTerms } from '@upper-field/core/fill'
import { type SQL, sql } from 'drizzle-orm'
import { type FactTerms, registerTerms } from '../check/openFacts'
import { findConnector, findsPeople, termsOf } from '../connections/connectors'
import { chosenContacts } from '../contacts/page'
import { readFilter } from '../contacts/readFilter'
import type { Db } from '../db/database'
import { Problem } from '../http/problem'

/** Contacts without a mobile that stand for themselves and may be written to. */
const WANTING: SQL = sql.raw("joined_into is null and wants_mobile and lane_reason <> 'suppressed'")

/** Whom of those a filter means. */
export const wantingOf = (listId: string, filter: string): SQL =>
  sql`${WANTING} and ${chosenContacts(listId, readFilter(filter))}`

export interface WantingContact extends Askable {
  readonly id: number
  readonly country: string
}

/** Whom a plan asks, in its order, and who checks what they give. */
export interface PlanTerms {
  readonly providers: readonly ProviderTerms[]
  /** Null where lines are not checked, or nobody is there to check them. */
  readonly register: FactTerms | null
}

/** The terms of a plan. Throws a problem where a provider is not known. */
export async function planOf(tx: Db, order: readonly string[], checksLines: boolean): Promise<PlanTerms> {
  const providers: ProviderTerms[] = []
  for (const id of new Set(order)) {
    const connector = await findConnector(tx, id)
    if (!connector || !findsPeople(connector))
      throw new Problem(422, 'unknown-provider', `There is no provider "${id}".`)
    providers.push(termsOf(connector))
  }
  return { providers, register: checksLines ? await registerTerms(tx) : null }
}

/** The most one asking can cost under a plan, line checks included. */
export const mostOf = (provider: ProviderTerms, { register }: PlanTerms): number =>
  mostCost(provider, register?.price ?? 0)

export const askableBy = (providers: readonly ProviderTerms[], contact: Askable): string[] =>
  providers.filter((provider) => inputFor(provider, contact) !== null).map(({ id }) => id)

/** Contacts of a list by id, with what a provider can be told about them. */
export async function readWanting(tx: Db, condition: SQL): Promise<WantingContact[]> {
  const { rows } = await tx.execute<Record<string, string | null>>(
    sql`select id, full_name, company, domain, profile, email, country from contacts where ${condition} order by id`,
  )
  return rows.map((row) => ({
    id: Number(row.id),
    fullName: row.full_name ?? '',
    company: row.company ?? '',
    domain: row.domain ?? '',
    profile: row.profile ?? '',
    email: row.email ?? '',
    country: row.country ?? '',
  }))
}

/** Who wants a mobile, whom each provider can be asked about, and the most that can cost. */
export async function estimateFill(
  tx: Db,
  listId: string,
  plan: PlanTerms,
  { notAgainDays, filter }: { readonly notAgainDays: number; readonly filter: string },
): Promise<FillEstimate> {
  const { providers } = plan
  const wanting = await readWanting(tx, wantingOf(listId, filter))
  const lately = await askedLately(tx, listId, notAgainDays)
  const falls = providers.map((provider) => {
    const served = wanting.filter((contact) => inputFor(provider, contact))
    const again = served.filter(({ id }) => lately.has(askingOf(id, provider.id)))
    return {
      provider: provider.id,
      askable: served.length - again.length,
      askedLately: again.length,
      most: (served.length - again.length) * mostOf(provider, plan),
    }
  })
  const most = falls.reduce((sum, fall) => sum + fall.most, 0)
  return { wanting: wanting.length, providers: falls.map(({ most: _, ...fall }) => fall), most }
}

const askingOf = (contactId: number, provider: string): string => `${contactId} ${provider}`

/** Which provider has answered about which contact of a list within so many days. */
async function askedLately(tx: Db, listId: string, days: number): Promise<ReadonlySet<string>> {
  const { rows } = await tx.execute<{ contact_id: string; provider: string }>(
    sql`select contact_id, provider from attempts where list_id = ${listId} and ${answeredWithin(days)}`,
  )
  return new Set(rows.map(({ contact_id, provider }) => askingOf(Number(contact_id), provider)))
}

/** Attempts that were answered within so many days: asking again would be told the same. */
export const answeredWithin = (days: number): SQL =>
  sql`state in ('nothing', 'set-aside') and answered_at > now() - make_interval(days => ${days})`
