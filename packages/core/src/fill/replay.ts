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
 * Replays every order of every choice of providers on joint answers, exactly.
 * @throws RangeError for no provider, more than `MOST_REPLAYED`, or two of one id
 */
export function replayFill({ providers, checkPrice, contacts, budget = null }: ReplayInput): Replay {
  const unit = 10 ** decimalsOf([checkPrice, budget ?? 0, ...providers.map(({ charge }) => charge.price)])
  const whole = (price: number) => Math.round(price * unit)
  const asked = contacts.map(({ answers }) =>
    providers.map(({ id, charge }) => {
      const candidates = Object.hasOwn(answers, id) ? answers[id] : undefined
      return candidates
        ? askedAbout(candidates, { per: charge.per, price: whole(charge.price) }, whole(checkPrice))
        : NOT_ASKED
    }),
  )
  const ids = providers.map(({ id }) => id)
  const { best, bestWithinBudget, curve } = replayAsked(ids, asked, budget === null ? null : whole(budget))
  const inPrice = (outcome: OrderOutcome): OrderOutcome => ({ ...outcome, cost: outcome.cost / unit })
  return {
    best: inPrice(best),
    bestWithinBudget: bestWithinBudget && inPrice(bestWithinBudget),
    curve: curve.map(inPrice),
  }
}

/**
 * The same for what asking each provider about each contact cost, and whether it found somebody. What asking one costs
 * hangs on who was asked before, not on their order: so each choice of providers is looked at once, and its cheapest
 * order is the cheapest of a smaller choice with one more behind it.
 * @param contacts for each contact one entry a provider, in the order of `ids`; costs are whole numbers
 */
export function replayAsked(
  ids: readonly string[],
  contacts: readonly (readonly Asked[])[],
  budget: number | null,
): Replay & { readonly choices: readonly OrderOutcome[] } {
  if (ids.length === 0 || ids.length > MOST_REPLAYED) throw new RangeError(`1 to ${MOST_REPLAYED} providers`)
  if (new Set(ids).size < ids.length) throw new RangeError('two providers of one id')
  const choices = cheapestOrders(subsetCosts(ids.length, contacts)).map(
    ({ order, usable, cost }): OrderOutcome => ({ order: order.map((at) => ids[at] as string), usable, cost }),
  )
  const ranked = choices.toSorted((a, b) => a.cost - b.cost || b.usable - a.usable || a.order.length - b.order.length)
  return {
    best: choices.at(-1) as OrderOutcome,
    bestWithinBudget: bestWithin(ranked, budget),
    curve: undominated(ranked),
    choices,
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

/** What each provider costs, summed over contacts that the same providers find. */
function subsetCosts(providers: number, contacts: readonly (readonly Asked[])[]): SubsetCosts {
  const groups = new Map<number, { contacts: number; costs: number[] }>()
  for (const asked of contacts) {
    const foundBy = asked.reduce((mask, { isFound }, at) => (isFound ? mask | (1 << at) : mask), 0)
    const group = groups.get(foundBy) ?? { contacts: 0, costs: Array.from({ length: providers }, () => 0) }
    group.contacts++
    for (const [at, { cost }] of asked.entries()) group.costs[at] = (group.costs[at] ?? 0) + cost
    groups.set(foundBy, group)
  }
  return { providers, groups }
}

/** What asking one provider about one contact cost, and whether something usable came of it. */
export interface Asked {
  readonly cost: number
  readonly isFound: boolean
}

/** A provider that cannot be asked about a contact. */
export const NOT_ASKED: Asked = { cost: 0, isFound: false }

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
