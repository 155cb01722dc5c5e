/** What asking costs, by whom a contact would be found by: a bit for each provider. */
export interface SubsetCosts {
  readonly providers: number
  /** Contacts that the same providers find, and what each provider costs for all of them. */
  readonly groups: ReadonlyMap<number, { readonly contacts: number; readonly costs: readonly number[] }>
}

/** The cheapest order of one choice of providers, by their positions. */
export interface CheapestOrder {
  readonly order: readonly number[]
  readonly usable: number
  readonly cost: number
}

/**
 * The cheapest order of every choice of one or more providers; that of all is the last. Of orders that cost as much the
 * one that is earlier by positions is taken.
 */
export function cheapestOrders({ providers, groups }: SubsetCosts): readonly CheapestOrder[] {
  const all = (1 << providers) - 1
  const standing = withinSubsets(providers, (mask) => groups.get(mask)?.contacts ?? 0)
  const costs = Array.from({ length: providers }, (_, at) =>
    withinSubsets(providers, (mask) => groups.get(mask)?.costs[at] ?? 0),
  )
  const total = standing[all] as number
  const known: CheapestOrder[] = [{ order: [], usable: 0, cost: 0 }]
  for (let chosen = 1; chosen <= all; chosen++) {
    let best: CheapestOrder | null = null
    for (let last = 0; last < providers; last++) {
      if ((chosen & (1 << last)) === 0) continue
      const before = chosen & ~(1 << last)
      const { order, cost } = known[before] as CheapestOrder
      // Whom none of those before finds, the last one is asked about.
      const made = cost + (costs[last]?.[all & ~before] as number)
      if (best && (made > best.cost || (made === best.cost && !isEarlier(order, last, best.order)))) continue
      best = { order: [...order, last], usable: total - (standing[all & ~chosen] as number), cost: made }
    }
    known.push(best as CheapestOrder)
  }
  return known.slice(1)
}

function isEarlier(order: readonly number[], last: number, other: readonly number[]): boolean {
  for (const [at, one] of [...order, last].entries()) {
    const theirs = other[at] as number
    if (one !== theirs) return one < theirs
  }
  return false
}

/** For every mask the sum over all masks within it (the zeta transform of a subset lattice). */
function withinSubsets(bits: number, countOf: (mask: number) => number): Float64Array {
  const sums = Float64Array.from({ length: 1 << bits }, (_, mask) => countOf(mask))
  for (let bit = 0; bit < bits; bit++)
    for (let mask = 0; mask < sums.length; mask++)
      if (mask & (1 << bit)) sums[mask] = (sums[mask] as number) + (sums[mask & ~(1 << bit)] as number)
  return sums
}
