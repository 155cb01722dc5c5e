import { describe, expect, it } from '@jest/globals'
import fc from 'fast-check'
import { type OrderOutcome, type ReplayInput, replayFill } from '../../src/fill'

/** One order, walked through contact by contact as the rules say. */
function walk(order: readonly string[], { providers, checkPrice, contacts }: ReplayInput): OrderOutcome {
  let usable = 0
  let cost = 0
  for (const { answers } of contacts) {
    for (const id of order) {
      const candidates = answers[id]
      const { per, price } = providers.find((provider) => provider.id === id)?.charge ?? { per: 'call', price: 0 }
      if (!candidates) continue
      let isFound = false
      if (per === 'call') cost += price
      if (per === 'candidate') cost += price * candidates.length
      for (const candidate of candidates) {
        cost += checkPrice
        isFound = candidate.usable
        if (isFound) break
      }
      if (!isFound) continue
      if (per === 'accepted') cost += price
      usable++
      break
    }
  }
  return { order, usable, cost }
}

/** Every order of every choice of one or more. */
function ordersOf(ids: readonly string[]): string[][] {
  return ids.flatMap((id) => [[id], ...ordersOf(ids.filter((one) => one !== id)).map((rest) => [id, ...rest])])
}

const IDS = ['a', 'b', 'c', 'd']
const inputs: fc.Arbitrary<ReplayInput> = fc.record({
  providers: fc.uniqueArray(fc.constantFrom(...IDS), { minLength: 1 }).chain((ids) =>
    fc.tuple(
      ...ids.map((id) =>
        fc.record({
          id: fc.constant(id),
          charge: fc.record({
            per: fc.constantFrom('call' as const, 'candidate' as const, 'accepted' as const),
            price: fc.nat(40),
          }),
        }),
      ),
    ),
  ),
  checkPrice: fc.nat(3),
  contacts: fc.array(
    fc.record({
      id: fc.string(),
      answers: fc.dictionary(fc.constantFrom(...IDS), fc.array(fc.record({ usable: fc.boolean() }), { maxLength: 3 })),
    }),
    { maxLength: 12 },
  ),
  budget: fc.option(fc.nat(300)),
})

describe('a fill replayed on joint answers', () => {
  it('comes to what walking through every order comes to', () => {
    fc.assert(
      fc.property(inputs, (input) => {
        const walked = ordersOf(input.providers.map(({ id }) => id)).map((order) => walk(order, input))
        const whole = walked.filter(({ order }) => order.length === input.providers.length)
        const { best, bestWithinBudget, curve } = replayFill(input)
        expect(best).toEqual(walk(best.order, input))
        expect(best.cost).toBe(Math.min(...whole.map(({ cost }) => cost)))
        const affordable = walked.filter(({ cost }) => input.budget !== null && cost <= (input.budget ?? 0))
        const most = Math.max(...affordable.map(({ usable }) => usable))
        const cheapest = Math.min(...affordable.filter(({ usable }) => usable === most).map(({ cost }) => cost))
        expect(bestWithinBudget === null).toBe(affordable.length === 0)
        if (bestWithinBudget) {
          expect(bestWithinBudget).toEqual(walk(bestWithinBudget.order, input))
          expect([bestWithinBudget.usable, bestWithinBudget.cost]).toEqual([most, cheapest])
        }
        for (const point of curve) {
          expect(point).toEqual(walk(point.order, input))
          const isBeaten = walked.some(
            ({ usable, cost }) =>
              (usable >= point.usable && cost < point.cost) || (usable > point.usable && cost <= point.cost),
          )
          expect(isBeaten).toBe(false)
        }
        expect(curve.at(-1)?.usable ?? 0).toBe(Math.max(...walked.map(({ usable }) => usable)))
      }),
    )
  })

  const provider = (id: string, per: 'call' | 'candidate' | 'accepted', price: number) => ({
    id,
    charge: { per, price },
  })
  const answers = (...each: string[]) => each.map((letter) => ({ usable: letter === 'y' }))

  it('adds prices of cents exactly', () => {
    const contacts = Array.from({ length: 1000 }, (_, i) => ({ id: String(i), answers: { a: answers('n', 'y') } }))
    const input = { providers: [provider('a', 'candidate', 0.07)], checkPrice: 0.005, contacts }
    expect(replayFill(input).best).toEqual({ order: ['a'], usable: 1000, cost: 150 })
    const [one] = contacts
    const just = { providers: [provider('a', 'call', 0.29)], checkPrice: 0, contacts: one ? [one] : [], budget: 0.29 }
    expect(replayFill(just).bestWithinBudget).toEqual({ order: ['a'], usable: 1, cost: 0.29 })
  })

  it('asks nobody who cannot be asked, and pays for nothing found', () => {
    const input: ReplayInput = {
      providers: [provider('a', 'call', 10), provider('b', 'accepted', 50)],
      checkPrice: 1,
      contacts: [
        { id: '1', answers: { a: [] } },
        { id: '2', answers: { b: answers('n', 'n') } },
        { id: '3', answers: { a: answers('y'), b: answers('y') } },
      ],
      budget: 1,
    }
    // b first: 2 looks for nothing, then 50 + 1; a is asked about the first only.
    expect(replayFill(input).curve).toEqual([{ order: ['a'], usable: 1, cost: 21 }])
    expect(replayFill(input).best).toEqual({ order: ['a', 'b'], usable: 1, cost: 23 })
    expect(replayFill(input).bestWithinBudget).toBeNull()
  })

  it('takes no property of every object for an answer', () => {
    const input = {
      providers: [provider('constructor', 'call', 1)],
      checkPrice: 0,
      contacts: [{ id: '1', answers: {} }],
    }
    expect(replayFill(input).best.cost).toBe(0)
  })

  it.each([[[]], [[provider('a', 'call', 1), provider('a', 'call', 2)]]])('refuses %j', (providers) =>
    expect(() => replayFill({ providers, checkPrice: 0, contacts: [] })).toThrow(RangeError),
  )
})
