import type { FillOptions, FillPlan } from '@upper-field/contract'
import {
  inputFor,
  isForCountry,
  mostCost,
  NO_CONDITION,
  orderFor,
  type ProviderTerms,
  type StepCondition,
  serves,
  type Want,
} from '@upper-field/core/fill'
import { type FactTerms, factTerms } from '../check/openFacts'
import { ADDRESSES, LINES } from '../check/subjects'
import { findConnector, findsPeople, termsOf } from '../connections/connectors'
import type { Db } from '../db/database'
import { Problem } from '../http/problem'
import type { Wanting } from './wanting'

/** Whom a plan asks, and who checks what they give. */
export interface PlanTerms {
  readonly order: readonly string[]
  readonly options: FillOptions
  /** All that stand in the plan, each once. */
  readonly providers: readonly ProviderTerms[]
  /** How many questions a second a provider takes, where it says so. */
  readonly perSecond: ReadonlyMap<string, number>
  /** Null where lines are not checked, or nobody is there to check them; the same for addresses. */
  readonly register: FactTerms | null
  readonly verifier: FactTerms | null
}

/** Everybody a plan names, each once, in its order. */
export const namedIn = (order: readonly string[], { branches }: Pick<FillOptions, 'branches'>): readonly string[] => [
  ...new Set([...order, ...branches.flatMap((branch) => branch.order)]),
]

/** The terms of a plan. Throws a problem where a provider is not known. */
export async function planOf(
  tx: Db,
  { order, checksLines, options }: Pick<FillPlan, 'order' | 'checksLines' | 'options'>,
): Promise<PlanTerms> {
  const providers: ProviderTerms[] = []
  const perSecond = new Map<string, number>()
  for (const id of namedIn(order, options)) {
    const connector = await findConnector(tx, id)
    if (!connector || !findsPeople(connector))
      throw new Problem(422, 'unknown-provider', `There is no provider "${id}".`)
    providers.push(termsOf(connector))
    if (connector.limit.perSecond !== null) perSecond.set(id, connector.limit.perSecond)
  }
  return {
    order,
    options,
    providers,
    perSecond,
    register: checksLines ? await factTerms(tx, LINES) : null,
    verifier: options.checksAddresses ? await factTerms(tx, ADDRESSES) : null,
  }
}

const NUMBERS: readonly Want[] = ['mobile', 'any-number']
const EMAILS: readonly Want[] = ['work-email', 'personal-email']

/** The most one asking can cost under a plan: at the provider itself, and at each service that checks what it gives, by id. */
export interface AskingCost {
  readonly own: number
  readonly checks: Readonly<Record<string, number>>
}

export function costOfAsking(provider: ProviderTerms, { options, register, verifier }: PlanTerms): AskingCost {
  const gives = (wants: readonly Want[]) =>
    wants.some((want) => options.wants.includes(want) && serves(provider.gives, want))
  const checks = new Map<string, number>()
  for (const [service, wants] of [[register, NUMBERS] as const, [verifier, EMAILS] as const])
    if (service && gives(wants))
      checks.set(service.id, (checks.get(service.id) ?? 0) + service.price * provider.mostCandidates)
  return { own: mostCost(provider, 0), checks: Object.fromEntries(checks) }
}

/** What an asking may cost altogether. */
export const sumOf = ({ own, checks }: AskingCost): number => Object.values(checks).reduce((sum, one) => sum + one, own)

/** The most one asking can cost under a plan, checks of what it gives included. */
export const mostOf = (provider: ProviderTerms, plan: PlanTerms): number => sumOf(costOfAsking(provider, plan))

export const conditionOf = ({ conditions }: FillOptions, provider: string): StepCondition =>
  // What was kept before a condition was there says nothing of it.
  ({ ...NO_CONDITION, ...conditions[provider] })

/** Who may give a contact what it lacks, in the order of its group. */
export function servingOf(plan: PlanTerms, contact: Wanting): readonly ProviderTerms[] {
  const { order, options, providers } = plan
  return orderFor(contact.country, { order, branches: options.branches }).flatMap((id) => {
    const provider = providers.find((one) => one.id === id)
    if (!provider || !isForCountry(conditionOf(options, id), contact.country)) return []
    return contact.lacks.some((want) => serves(provider.gives, want)) ? [provider] : []
  })
}

/** True where a provider can be told what it needs about a contact, under the plan's conditions. */
export const isAskable = ({ options }: PlanTerms, provider: ProviderTerms, contact: Wanting): boolean =>
  inputFor(provider, contact, conditionOf(options, provider.id).inputs) !== null
