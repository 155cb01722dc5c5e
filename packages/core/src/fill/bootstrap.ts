import type { Asked } from './replay'

/** What an order brings and costs, with the range in which nine of ten samples like this one lie. */
export interface Expected {
  readonly usable: Range
  readonly cost: Range
}

export interface Range {
  readonly value: number
  readonly low: number
  readonly high: number
}

const ROUNDS = 400
const LOW = 0.05
const HIGH = 0.95

/**
 * What an order would bring for so many contacts, told from a sample: the sample is drawn again and again from itself
 * (the bootstrap, Efron 1979), and the orders are walked through on each.
 * @param order positions of the providers
 * @param sample for each contact one entry a provider
 * @param contacts how many it is told for
 * @param random from 0 to less than 1
 */
export function expectOrder(
  order: readonly number[],
  sample: readonly (readonly Asked[])[],
  contacts: number,
  random: () => number,
): Expected {
  const walked = sample.map((asked) => walk(order, asked))
  const scale = sample.length === 0 ? 0 : contacts / sample.length
  const usables: number[] = []
  const costs: number[] = []
  for (let round = 0; round < ROUNDS; round++) {
    let usable = 0
    let cost = 0
    for (let draw = 0; draw < walked.length; draw++) {
      const one = walked[Math.floor(random() * walked.length)] as Asked
      if (one.isFound) usable++
      cost += one.cost
    }
    usables.push(usable * scale)
    costs.push(cost * scale)
  }
  const found = walked.filter(({ isFound }) => isFound).length
  const spent = walked.reduce((sum, { cost }) => sum + cost, 0)
  return { usable: rangeOf(found * scale, usables), cost: rangeOf(spent * scale, costs) }
}

/** One contact: providers are asked in turn until one finds somebody. */
function walk(order: readonly number[], asked: readonly Asked[]): Asked {
  let cost = 0
  for (const at of order) {
    const one = asked[at]
    if (!one) continue
    cost += one.cost
    if (one.isFound) return { cost, isFound: true }
  }
  return { cost, isFound: false }
}

function rangeOf(value: number, drawn: number[]): Range {
  const sorted = drawn.sort((a, b) => a - b)
  const at = (share: number) => sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? value
  return { value: Math.round(value), low: Math.round(at(LOW)), high: Math.round(at(HIGH)) }
}
