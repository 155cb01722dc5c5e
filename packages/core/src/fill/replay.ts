import { cheapestOrders, type SubsetCosts } from './orders'

/** How a provider charges, in whatever unit its price and the price of a check are. */
export interface ReplayProvider {
  readonly id: string
  readonly charge: { readonly per: 'call' | 'candidate' | 'accepted'; readonly price: number }
}

/** A contact everybody was asked about: the candidates of each provider in the order in which they are looked at. */
export interface ReplayContact {
  readonly id: string
  /** A provider that is missing cannot be asked about this contact. */
  readonly answers: Readonly<Record<string, readonly { readonly usable: boolean }[]>>
}

export interface ReplayInput {
  readonly providers: readonly ReplayProvider[]
  /** What looking at one candidate costs. */
  readonly checkPrice: number
  readonly contacts: readonly ReplayContact[]
  readonly budget?: number | null | undefined
}

/** What asking in an order would have brought, and cost. */
export interface OrderOutcome {
  readonly order: readonly string[]
  readonly usable: number
  readonly cost: number
}

export interface Replay {
  /** The cheapest order of all providers. */
  readonly best: OrderOutcome
  /** Of any providers in any order: most usable, then cheapest; null without a budget, or where it pays for none. */
  readonly bestWithinBudget: OrderOutcome | null
  /** Orders that find somebody and than which none finds more for as much, from the cheapest on. */
  readonly curve: readonly OrderOutcome[]
}

/** Every further provider doubles the work. */
export const MOST_REPLAYED = 16

/**
 * Replays every order of every choice of providers on joint answers, exactly. What asking one provider costs hangs on
 * who was asked before, not on their order: so each choice of providers is looked at once, and its cheapest order is
 * the cheapest of a smaller choice with one more behind it.
 * @throws RangeError for no provider, more than `MOST_REPLAYED`, or two of one id
 */
export function replayFill(input: ReplayInput): Replay {
  const ids = input.providers.map(({ id }) => id)
  if (ids.length === 0 || ids.length > MOST_REPLAYED) throw new RangeError(`1 to ${MOST_REPLAYED} providers`)
  if (new Set(ids).size < ids.length) throw new RangeError('two providers of one id')
  const unit = 10 ** decimalsOf([input.checkPrice, ...input.providers.map(({ charge }) => charge.price)])
  const outcomes = cheapestOrders(subsetCosts(input, unit)).map(
    ({ order, usable, cost }): OrderOutcome => ({
      order: order.map((at) => ids[at] as string),
      usable,
      cost: cost / unit,
    }),
  )
  const ranked = outcomes.toSorted((a, b) => a.cost - b.cost || b.usable - a.usable || a.order.length - b.order.length)
  return {
    best: outcomes.at(-1) as OrderOutcome,
    bestWithinBudget: bestWithin(ranked, input.budget ?? null),
    curve: undominated(ranked),
  }
}

/** Cheaper orders come first: of those that find as many the first is taken. */
function bestWithin(ranked: readonly OrderOutcome[], budget: number | null): OrderOutcome | null {
  if (budget === null) return null
  return ranked
    .filter(({ cost }) => cost <= budget)
    .reduce<OrderOutcome | null>((best, one) => (best === null || one.usable > best.usable ? one : best), null)
}

function undominated(ranked: readonly OrderOutcome[]): readonly OrderOutcome[] {
  let most = 0
  return ranked.filter(({ usable }) => {
    if (usable <= most) return false
    most = usable
    return true
  })
}

/** What each provider costs, summed over contacts that the same providers find. Prices become whole numbers: sums are exact. */
function subsetCosts({ providers, checkPrice, contacts }: ReplayInput, unit: number): SubsetCosts {
  const groups = new Map<number, { contacts: number; costs: number[] }>()
  const whole = (price: number) => Math.round(price * unit)
  for (const { answers } of contacts) {
    const asked = providers.map(({ id, charge }) => {
      const candidates = Object.hasOwn(answers, id) ? answers[id] : undefined
      return candidates
        ? askedAbout(candidates, { per: charge.per, price: whole(charge.price) }, whole(checkPrice))
        : NOT_ASKED
    })
    const foundBy = asked.reduce((mask, { isFound }, at) => (isFound ? mask | (1 << at) : mask), 0)
    const group = groups.get(foundBy) ?? { contacts: 0, costs: providers.map(() => 0) }
    group.contacts++
    for (const [at, { cost }] of asked.entries()) group.costs[at] = (group.costs[at] ?? 0) + cost
    groups.set(foundBy, group)
  }
  return { providers: providers.length, groups }
}

interface Asked {
  readonly cost: number
  readonly isFound: boolean
}

const NOT_ASKED: Asked = { cost: 0, isFound: false }

/** Candidates are looked at in turn until one is usable, which ends the search. */
function askedAbout(
  candidates: readonly { readonly usable: boolean }[],
  { per, price }: ReplayProvider['charge'],
  checkPrice: number,
): Asked {
  const first = candidates.findIndex(({ usable }) => usable)
  const isFound = first !== -1
  const looks = isFound ? first + 1 : candidates.length
  const times = per === 'call' ? 1 : per === 'candidate' ? candidates.length : isFound ? 1 : 0
  return { cost: price * times + checkPrice * looks, isFound }
}

/** Most digits behind the point of some prices. */
function decimalsOf(prices: readonly number[]): number {
  return Math.max(...prices.map((price) => /\.(\d+)$/.exec(plain(price))?.[1]?.length ?? 0))
}

/** A price without an exponent. */
const plain = (price: number): string => {
  const text = String(price)
  return text.includes('e') ? price.toFixed(12).replace(/0+$/, '') : text
}
