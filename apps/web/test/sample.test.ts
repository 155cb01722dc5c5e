import { describe, expect, it } from '@jest/globals'
import type { FillSample, SampledOrder } from '@upper-field/contract'
import fc from 'fast-check'
import { eachOf, isSameOrder, placeIn, plansWorth } from '../src/fill/sampleText'
import { budgetOf, eurosOf } from '../src/words/budget'

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
    [',5', 500_000],
    ['€ 1 000', 1_000_000_000],
    ['1,234.50 €', 1_234_500_000],
    ['1.234,50', 1_234_500_000],
  ])('%j is %d', (text, micros) => expect(budgetOf(text)).toBe(micros))

  it.each([
    '',
    ' ',
    '0',
    '-3',
    'ten',
    '1e9',
    '1e3',
    '0x10',
    '1,000',
    '25.000',
    '12.50.1',
    '0.0000001',
    'Infinity',
    '100001',
  ])('%j is none', (text) => expect(budgetOf(text)).toBeNull())

  it('is understood as what an amount is written as', () =>
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 100_000_000_000 }), fc.nat({ max: 6 }), (micros, digits) => {
        const amount = Math.max(1, Math.round(micros / 10 ** digits) * 10 ** digits)
        expect(budgetOf(eurosOf(amount))).toBe(amount)
      }),
    ))

  it('was none, and is written as nothing', () => expect(eurosOf(null)).toBe(''))
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
