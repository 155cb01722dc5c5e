/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { expect, it } from '@jest/globals'
import { screen, within } from '@testing-library/react'
import type { FillEstimate } from '@upper-field/contract'
import { BeforeStart } from '../../src/fill/BeforeStart'
import { newPlan } from '../../src/fill/plan'
import type { Filling, StartHow } from '../../src/fill/useFilling'
import { rendered } from './rendered'
import { service } from './services'

const ESTIMATE: FillEstimate = {
  wanting: 200,
  known: { 'name-and-company': 180, 'name-and-domain': 40, profile: 60, email: 0 },
  lacking: { mobile: 200 },
  leftOut: { suppressed: 7, 'no-lawful-basis': 0 },
  providers: [
    { provider: 'alder', askable: 150, askedLately: 10, lacksInput: 40 },
    { provider: 'birch', askable: 60, askedLately: 0, lacksInput: 140 },
  ],
  most: 30_000_000,
  expected: { usable: 90, cost: 12_000_000 },
}

function opened(more: { sample?: number; budget?: number; estimate?: Partial<FillEstimate>; starts?: boolean } = {}) {
  const started: StartHow[] = []
  let isClosed = false
  const filling = {
    start: async (how: StartHow) => {
      started.push(how)
      return more.starts ?? true
    },
    isStarting: false,
    startError: more.starts === false ? { status: 409, code: 'list-busy', detail: 'The list is busy.' } : undefined,
  } as unknown as Filling
  const page = rendered(
    <BeforeStart
      plan={newPlan(['alder', 'birch'])}
      filling={filling}
      estimate={{ ...ESTIMATE, ...more.estimate }}
      budget={more.budget ?? 100_000_000}
      sample={more.sample ?? null}
      onClose={() => {
        isClosed = true
      }}
    />,
    { readConnections: [service('alder'), service('birch')] },
  )
  return { ...page, started, isClosed: () => isClosed }
}
const start = () => screen.getByRole('button', { name: /^Start/ })

it('says who is asked about whom, in which order, and who is left out and why', async () => {
  opened()
  const rows = within(await screen.findByRole('table'))
    .getAllByRole('row')
    .slice(1)
  await within(rows[0] as HTMLElement).findByText('Alder')
  const cells = rows.map((row) =>
    within(row)
      .getAllByRole('cell')
      .map(({ textContent }) => textContent),
  )
  expect(cells.map(([name, , ...counts]) => [name, ...counts])).toEqual([
    ['Alder', '150', '10', '40'],
    ['Birch', '60', '0', '140'],
  ])
  expect(screen.getAllByText(/left out:/).map(({ textContent }) => textContent)).toEqual([
    '7 left out: on a suppression list',
  ])
})

it('never agrees to more than what it can cost, nor to more than the budget', async () => {
  const whole = opened()
  await whole.user.click(start())
  expect(whole.started).toEqual([{ budget: 30_000_000, sample: null }])
  expect(whole.isClosed()).toBe(true)
  whole.unmount()
  const poor = opened({ budget: 5_000_000 })
  await poor.user.click(start())
  expect(poor.started).toEqual([{ budget: 5_000_000, sample: null }])
})

it('counts a try of some by their share', async () => {
  const { user, started } = opened({ sample: 50 })
  expect(screen.getByRole('dialog', { name: 'Before 50 are tried' })).toBeTruthy()
  expect(screen.getByText(/taken at random of 200/)).toBeTruthy()
  await user.click(start())
  expect(started).toEqual([{ budget: 7_500_000, sample: 50 }])
})

it('says where it does not know what to expect', () => {
  opened({ estimate: { expected: null, leftOut: {} } })
  expect(screen.getByText(/not known: nobody was asked of everyone yet/)).toBeTruthy()
  expect(screen.getByText('Nobody who lacks it is left out.')).toBeTruthy()
})

it('stays open where the fill could not be started, and says why', async () => {
  const { user, isClosed } = opened({ starts: false })
  await user.click(start())
  expect(screen.getByText('The list is busy.')).toBeTruthy()
  expect(isClosed()).toBe(false)
})
