import { describe, expect, it } from '@jest/globals'
import type { FillSample, SampledOrder } from '@upper-field/contract'
import { eachOf, isSameOrder, placeIn, plansWorth } from '../src/fill/sampleText'
import { budgetOf } from '../src/words/budget'

const plan = (order: string[], usable: number, cost: number): SampledOrder => {
  const told = (value: number) => ({ value, low: value, high: value })
  return { order, usable: told(usable), cost: told(cost) }
}
const sample = (changes: Partial<FillSample>): FillSample => ({
  jobId: 'a',
  contacts: 10,
  spent: 0,
  wanting: 100,
  today: null,
  cheapest: plan(['a', 'b'], 60, 6_000_000),
  withinBudget: null,
  curve: [],
  choices: [],
  providers: [],
  ...changes,
})

describe('a budget as it is typed', () => {
  it.each([
    ['25', 25_000_000],
    [' 12,50 ', 12_500_000],
    ['0.005', 5000],
  ])('%j is %d', (text, micros) => expect(budgetOf(text)).toBe(micros))

  it.each(['', ' ', '0', '-3', 'ten', '1e9', 'Infinity', '100001'])('%j is none', (text) =>
    expect(budgetOf(text)).toBeNull(),
  )
})

describe('plans worth comparing', () => {
  it('are the cheapest, and what there is of the others', () => {
    expect(plansWorth(sample({})).map(({ title }) => title)).toEqual(['Cheapest that finds as many'])
    const today = plan(['b', 'a'], 60, 9_000_000)
    const withinBudget = plan(['a'], 40, 2_000_000)
    expect(plansWorth(sample({ today, withinBudget })).map(({ plan }) => plan.order)).toEqual([
      ['a', 'b'],
      ['a'],
      ['b', 'a'],
    ])
  })

  it('say what one usable costs, and nothing where none is found', () => {
    expect(eachOf(plan(['a'], 40, 2_000_000))).toBe(50_000)
    expect(eachOf(plan(['a'], 0, 2_000_000))).toBeNull()
  })

  it('name the place of each service', () => {
    expect(['a', 'b', 'c'].map((id) => placeIn(['b', 'a'], id))).toEqual(['second', 'first', 'not at all'])
    expect(isSameOrder(['a', 'b'], ['b', 'a'])).toBe(false)
  })
})
