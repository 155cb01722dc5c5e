import { describe, expect, it } from '@jest/globals'
import type { FillSample, SampledOrder } from '@upper-field/contract'
import { createElement, type ReactElement } from 'react'
import { renderToStaticMarkup } from 'react-dom/server'
import { Provider, type ProviderProps } from 'react-redux'
import { LeftOut } from '../src/fill/LeftOut'
import { SamplePanel } from '../src/fill/SamplePanel'
import { store } from '../src/store'

/** What stands on the page, without its marks. Names of services are their ids until the application has told them. */
const textOf = (element: ReactElement): string =>
  renderToStaticMarkup(createElement(Provider, { store } as ProviderProps, element))
    .replace(/<[^>]+>/g, ' ')
    .replace(/\s+/g, ' ')
    .trim()

const plan = (order: string[], usable: number, cost: number): SampledOrder => ({
  order,
  usable: { value: usable, low: usable - 10, high: usable + 10 },
  cost: { value: cost, low: cost - 1_000_000, high: cost + 1_000_000 },
})
const CHEAPEST = plan(['lantern', 'candle'], 600, 120_000_000)
const SAMPLE: FillSample = {
  jobId: 'a',
  contacts: 150,
  spent: 41_200_000,
  wanting: 1092,
  today: plan(['candle', 'lantern'], 600, 180_000_000),
  cheapest: CHEAPEST,
  withinBudget: null,
  curve: [CHEAPEST],
  choices: [],
  providers: [],
}
const panel = (sample: FillSample, chosen: SampledOrder) =>
  textOf(
    createElement(SamplePanel, {
      sample,
      chosen,
      onChoose: () => {},
      onTake: () => {},
      budgetText: '25',
      setBudgetText: () => {},
    }),
  )

describe('the plan that is chosen of a sample', () => {
  it('says what it brings and costs with their ranges, and what it saves', () => {
    const text = panel(SAMPLE, CHEAPEST)
    expect(text).toContain('Cheapest that finds as many lantern, candle')
    expect(text).toContain('Usable mobiles 600 590 to 610')
    expect(text).toContain('Cost €120.00 €119.00 to €121.00')
    expect(text).toContain('Each usable €0.20')
    expect(text).toContain('Today’s order €0.30')
    expect(text).toContain('Saved €60.00')
    expect(text).toContain('The sample cost €41.20')
  })

  it('says of today’s own order that nothing is saved, and of none that nothing is usable', () => {
    expect(panel(SAMPLE, SAMPLE.today ?? CHEAPEST)).not.toContain('Saved')
    const nothing = { ...plan(['candle'], 0, 9_000_000), usable: { value: 0, low: 0, high: 0 } }
    expect(panel({ ...SAMPLE, today: null }, nothing)).toContain('A plan on the curve')
    expect(panel({ ...SAMPLE, today: null }, nothing)).toContain('Each usable –')
  })
})

describe('services that a plan does not ask', () => {
  const leftOut = (order: string[]) =>
    textOf(createElement(LeftOut, { order, everybody: ['candle', 'lantern'], setOrder: () => {} }))

  it('are named, each to be asked too', () => {
    expect(leftOut(['lantern'])).toBe('Not asked: candle ask too')
    expect(leftOut(['candle', 'lantern'])).toBe('')
  })
})
