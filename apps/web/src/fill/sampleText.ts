import type { FillSample, SampledOrder } from '@upper-field/contract'

/** A plan that is shown beside the curve, by what it is. */
export interface NamedPlan {
  readonly title: string
  readonly plan: SampledOrder
}

/** Plans worth comparing: what is asked today, the cheapest that finds as many, the best that a budget pays for. */
export function plansWorth({ today, cheapest, withinBudget }: FillSample): readonly NamedPlan[] {
  const named: (NamedPlan | null)[] = [
    { title: 'Cheapest that finds as many', plan: cheapest },
    withinBudget && { title: 'Most within the budget', plan: withinBudget },
    today && { title: 'Today’s order', plan: today },
  ]
  return named.filter((one) => one !== null)
}

/** What one usable value costs, in millionths of a euro; null where nothing is found. */
export const eachOf = ({ usable, cost }: SampledOrder): number | null =>
  usable.value > 0 ? Math.round(cost.value / usable.value) : null

/** True where two plans ask the same services in the same order. */
export const isSameOrder = (a: readonly string[], b: readonly string[]): boolean => a.join() === b.join()

const PLACES = ['first', 'second', 'third', 'fourth', 'fifth', 'sixth', 'seventh', 'eighth'] as const

/** Where a service stands in a plan, in a word. */
export const placeIn = (order: readonly string[], provider: string): string => {
  const at = order.indexOf(provider)
  return at === -1 ? 'not at all' : (PLACES[at] ?? `as number ${at + 1}`)
}
