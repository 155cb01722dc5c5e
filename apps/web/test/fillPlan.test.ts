import { describe, expect, it } from '@jest/globals'
import { FillOptions, FillPlan, type FillSample } from '@upper-field/contract'
import { orderFor } from '@upper-field/core/fill'
import fc from 'fast-check'
import { countriesOf } from '../src/fill/LawfulRegions'
import {
  branchesTaught,
  countriesIn,
  expectedWithin,
  firstPlan,
  mistakesIn,
  namedInPlan,
  newPlan,
  optionsOf,
  orderOf,
  withBranch,
  withOrder,
  withoutBranch,
} from '../src/fill/plan'
import { waitText } from '../src/fill/waitText'

const plan = newPlan(['candle', 'lantern', 'torch'])

describe('the plan a list begins with', () => {
  const everybody = ['candle', 'lantern', 'torch']
  const run = (more: object) => ({ plan: FillPlan.parse({ budget: 1_000_000, checksLines: true, ...more }) })

  it('is that of its latest run, as it was put together', () => {
    const before = {
      ...newPlan(['torch', 'candle']),
      branches: [{ countries: ['DE'], order: ['lantern'] }],
      wants: ['mobile' as const, 'work-email' as const],
      perContact: '0.5',
      notAgainDays: '0',
    }
    const { order, checksLines } = before
    const latest = run({ order, checksLines, notAgainDays: 0, options: optionsOf(before) })
    expect(firstPlan([latest, run({ order: everybody })], everybody)).toEqual(before)
  })
  it('is not that of a sample, nor of a search for one contact', () => {
    const runs = [run({ order: ['torch'], asking: 'everybody' }), run({ order: ['candle'], contactId: 7 })]
    expect(firstPlan(runs, everybody)).toEqual(newPlan(everybody))
  })
  it('asks everybody where somebody it asks is connected no more', () => {
    expect(firstPlan([run({ order: ['gone', 'torch'] })], everybody)).toEqual(newPlan(everybody))
  })
})

describe('a plan on the screen', () => {
  it('becomes options the server takes, amounts in millionths of a euro', () => {
    expect(FillOptions.parse(optionsOf(plan))).toEqual(optionsOf(plan))
    const limited = { ...plan, perContact: '0,50', perDay: '20' }
    expect(optionsOf(limited)).toMatchObject({ perContact: 500_000, perDay: 20_000_000, branches: [] })
    expect(optionsOf(plan)).toMatchObject({ perContact: null, perDay: null })
  })

  it('says what cannot be understood, by its field', () => {
    expect(mistakesIn(plan)).toEqual({})
    expect(
      Object.keys(mistakesIn({ ...plan, perContact: 'much', perDay: '-1', notAgainDays: '999', wants: [] })),
    ).toEqual(['perContact', 'perDay', 'notAgainDays', 'wants'])
  })

  it('has an order of its own for a group, and leaves that of everybody else alone', () => {
    const grouped = withOrder(withBranch(plan, ['DE', 'AT']), 0, ['torch'])
    expect(orderOf(grouped, 0)).toEqual(['torch'])
    expect(orderOf(grouped, null)).toEqual(plan.order)
    expect(orderFor('AT', grouped)).toEqual(['torch'])
    expect(orderFor('FR', grouped)).toEqual(plan.order)
    expect(withoutBranch(grouped, 0).branches).toEqual([])
    expect(namedInPlan(withOrder(withBranch(plan, ['US']), 0, ['flare', 'candle']))).toEqual([
      'candle',
      'lantern',
      'torch',
      'flare',
    ])
  })

  it('names each country in one group at most, whatever is grouped after another', () => {
    const some = fc.subarray(['DE', 'AT', 'CH', 'US', 'CA'])
    fc.assert(
      fc.property(fc.array(some, { maxLength: 5 }), (groups) => {
        const { branches } = groups.reduce(withBranch, plan)
        const named = branches.flatMap(({ countries }) => countries)
        expect(new Set(named).size).toBe(named.length)
        expect(branches.every(({ countries }) => countries.length > 0)).toBe(true)
        expect(new Set(named)).toEqual(new Set(groups.flat()))
      }),
    )
  })
})

describe('groups that a sample taught', () => {
  const sample = (goodIn: Record<string, string[]>): FillSample =>
    ({ providers: Object.entries(goodIn).map(([provider, countries]) => ({ provider, goodIn: countries })) }) as never

  it('ask first who finds more there, countries with the same order together', () => {
    const taught = branchesTaught(sample({ candle: [], lantern: ['US', 'CA'], torch: ['US', 'CA', 'DE'] }), plan.order)
    expect(taught).toEqual([
      { countries: ['US', 'CA'], order: ['lantern', 'torch', 'candle'] },
      { countries: ['DE'], order: ['torch', 'candle', 'lantern'] },
    ])
  })

  it('are none where the order of everybody is right there already', () => {
    expect(branchesTaught(sample({ candle: ['GB'], lantern: [], torch: [] }), plan.order)).toEqual([])
  })

  it('ask the same services as everybody else', () => {
    const countries = fc.subarray(['DE', 'US', 'FR'])
    fc.assert(
      fc.property(countries, countries, countries, (candle, lantern, torch) => {
        for (const { order } of branchesTaught(sample({ candle, lantern, torch }), plan.order))
          expect([...order].sort()).toEqual([...plan.order].sort())
      }),
    )
  })
})

describe('countries as they are typed', () => {
  it.each([
    ['de, FR', ['DE', 'FR']],
    ['  at;ch de at ', ['AT', 'CH', 'DE']],
    ['', []],
    ['Germany', null],
    ['D', null],
  ])('%j: %j', (text, codes) => expect(countriesOf(text)).toEqual(codes))
})

describe('waitText', () => {
  it.each([
    [null, '–'],
    [240, '0.2 s'],
    [9_940, '9.9 s'],
    [41_200, '41 s'],
    [130_000, '2 min'],
  ])('%j is %s', (time, text) => expect(waitText(time)).toBe(text))
})

describe('what a fill will probably bring', () => {
  const money = fc.integer({ min: 1, max: 1_000_000_000 })
  it('costs no more than it may, and brings all of its part where the money lasts', () =>
    fc.assert(
      fc.property(
        fc.nat(100_000),
        money,
        fc.double({ min: 0, max: 1, noNaN: true }),
        money,
        (usable, cost, share, most) => {
          const expected = expectedWithin({ usable, cost }, share, most)
          expect(expected.cost).toBeLessThanOrEqual(most)
          expect(expected.usable).toBeLessThanOrEqual(Math.ceil(usable * share))
          if (cost * share <= most) expect(expected.usable).toBe(Math.round(usable * share))
        },
      ),
    ))
  it('is half of it for half of the money', () =>
    expect(expectedWithin({ usable: 400, cost: 80 }, 1, 40)).toEqual({ usable: 200, cost: 40 }))
})

describe('countries that are typed', () => {
  it.each<[string, readonly string[] | null]>([
    ['', []],
    ['gb, ie', ['GB', 'IE']],
    ['DE;AT DE', ['DE', 'AT']],
    ['Germany', null],
    ['GB, 1', null],
  ])('%j are %j', (text, countries) => expect(countriesIn(text)).toEqual(countries))
})
