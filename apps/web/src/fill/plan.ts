import type { FillOptions, FillPlan, FillSample } from '@upper-field/contract'
import type { FillBranch } from '@upper-field/core/fill'
import { budgetOf, eurosOf } from '../words/budget'

/** A plan as it is put together on the screen: amounts as they are typed, in euros. */
export interface PlanDraft {
  /** For everybody whose country has no order of its own. */
  readonly order: readonly string[]
  readonly branches: readonly FillBranch[]
  readonly wants: FillOptions['wants']
  readonly checksLines: boolean
  readonly checksAddresses: boolean
  readonly alsoDoubtful: boolean
  readonly conditions: FillOptions['conditions']
  readonly perContact: string
  readonly perDay: string
  readonly notAgainDays: string
}

export const newPlan = (order: readonly string[]): PlanDraft => ({
  order,
  branches: [],
  wants: ['mobile'],
  checksLines: true,
  checksAddresses: true,
  alsoDoubtful: false,
  conditions: {},
  perContact: '',
  perDay: '',
  notAgainDays: '30',
})

/** The plan a list begins with: that of its latest run, where whoever it asks is still connected; otherwise everybody is asked. */
export function firstPlan(runs: readonly { readonly plan: FillPlan }[], everybody: readonly string[]): PlanDraft {
  const latest = runs.find(({ plan }) => plan.asking === 'until-found' && plan.contactId === null)
  const plan = latest && asDraft(latest.plan)
  return plan && namedInPlan(plan).every((id) => everybody.includes(id)) ? plan : newPlan(everybody)
}

const asDraft = ({ order, checksLines, notAgainDays, options }: FillPlan): PlanDraft => ({
  order,
  branches: options.branches,
  wants: options.wants,
  checksLines,
  checksAddresses: options.checksAddresses,
  alsoDoubtful: options.alsoDoubtful,
  conditions: options.conditions,
  perContact: eurosOf(options.perContact),
  perDay: eurosOf(options.perDay),
  notAgainDays: String(notAgainDays),
})

/** What of a plan cannot be understood, by its field; empty where all can. */
export function mistakesIn({ perContact, perDay, notAgainDays, wants }: PlanDraft): Readonly<Record<string, string>> {
  const amount = (text: string) => (text.trim() === '' || budgetOf(text) !== null ? null : 'A sum above 0, or nothing.')
  const days = /^\d{1,3}$/.test(notAgainDays.trim()) && Number(notAgainDays) <= 365
  const found: Record<string, string | null> = {
    perContact: amount(perContact),
    perDay: amount(perDay),
    notAgainDays: days ? null : 'Whole days, from 0 to 365.',
    wants: wants.length > 0 ? null : 'Choose what is wanted.',
  }
  return Object.fromEntries(Object.entries(found).filter((entry): entry is [string, string] => entry[1] !== null))
}

/** The options of a plan as the server takes them; amounts that cannot be read count as none. */
export const optionsOf = (plan: PlanDraft): FillOptions => ({
  wants: plan.wants,
  branches: plan.branches.map(({ countries, order }) => ({ countries: [...countries], order: [...order] })),
  conditions: plan.conditions,
  alsoDoubtful: plan.alsoDoubtful,
  checksAddresses: plan.checksAddresses,
  perContact: budgetOf(plan.perContact),
  perDay: budgetOf(plan.perDay),
})

/** The order of one group: of a branch, or of everybody else. */
export const orderOf = (plan: PlanDraft, branch: number | null): readonly string[] =>
  (branch === null ? undefined : plan.branches[branch]?.order) ?? plan.order

/** The plan with another order in one group. */
export function withOrder(plan: PlanDraft, branch: number | null, order: readonly string[]): PlanDraft {
  if (branch === null) return { ...plan, order }
  return { ...plan, branches: plan.branches.map((one, at) => (at === branch ? { ...one, order } : one)) }
}

/** The plan with a group for some countries, which no other group names any more. It begins with everybody's order. */
export function withBranch(plan: PlanDraft, countries: readonly string[]): PlanDraft {
  const others = plan.branches
    .map((one) => ({ ...one, countries: one.countries.filter((country) => !countries.includes(country)) }))
    .filter((one) => one.countries.length > 0)
  return countries.length === 0
    ? plan
    : { ...plan, branches: [...others, { countries: [...countries], order: plan.order }] }
}

export const withoutBranch = (plan: PlanDraft, branch: number): PlanDraft => ({
  ...plan,
  branches: plan.branches.filter((_, at) => at !== branch),
})

/**
 * Groups of countries as a sample taught them: who finds more there than elsewhere is asked first there. Countries with
 * the same order are one group.
 */
export function branchesTaught(sample: FillSample, order: readonly string[]): readonly FillBranch[] {
  const countries = [...new Set(sample.providers.flatMap(({ goodIn }) => goodIn))]
  const groups = new Map<string, { countries: string[]; order: string[] }>()
  for (const country of countries) {
    const good = order.filter((id) =>
      sample.providers.find(({ provider }) => provider === id)?.goodIn.includes(country),
    )
    const own = [...good, ...order.filter((id) => !good.includes(id))]
    if (own.join() === order.join()) continue
    const group = groups.get(own.join()) ?? { countries: [], order: own }
    group.countries.push(country)
    groups.set(own.join(), group)
  }
  return [...groups.values()]
}

/** Everybody a plan asks, each once, in its order. */
export const namedInPlan = ({ order, branches }: PlanDraft): readonly string[] => [
  ...new Set([...order, ...branches.flatMap((branch) => branch.order)]),
]

/**
 * What a fill of a part of those who lack something will probably bring, where it ends when its money is spent: then it
 * brings as much less as it has less money.
 */
export function expectedWithin(
  { usable, cost }: { readonly usable: number; readonly cost: number },
  share: number,
  most: number,
): { readonly usable: number; readonly cost: number } {
  const wanted = cost * share
  const paid = wanted > most ? most / wanted : 1
  return { usable: Math.round(usable * share * paid), cost: Math.round(wanted * paid) }
}

/** Countries as they are typed, by their two letters; null where one is none. */
export function countriesIn(text: string): readonly string[] | null {
  const codes = text
    .toUpperCase()
    .split(/[\s,;]+/)
    .filter(Boolean)
  return codes.every((code) => /^[A-Z]{2}$/.test(code)) ? [...new Set(codes)] : null
}
