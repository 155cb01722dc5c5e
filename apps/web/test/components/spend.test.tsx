/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { expect, it } from '@jest/globals'
import { act, screen, waitFor, within } from '@testing-library/react'
import type { ServiceStatement, SpendMonth } from '@upper-field/contract'
import { ProviderLimits } from '../../src/spend/ProviderLimits'
import { Statements } from '../../src/spend/Statements'
import { OPERATOR, rendered } from './rendered'

const OWNER = { ...OPERATOR, role: 'owner' } as const
const booked = (charges: number, amount: number) => ({ charges, amount })
const statement = (name: string, days: ServiceStatement['days'], problem: string | null = null): ServiceStatement => ({
  provider: name.toLowerCase(),
  name,
  problem,
  days,
})
const rowOf = async (name: string) => within(await screen.findByRole('row', { name: new RegExp(`^${name}`) }))

it('shows what services have booked beside ours, with the day and the sum of each difference', async () => {
  rendered(<Statements />, {
    readMe: OPERATOR,
    readStatements: [
      statement('Alder', [{ day: '2026-11-03', ours: booked(2, 100_000), theirs: booked(2, 100_000) }]),
      statement('Birch', [
        { day: '2026-11-03', ours: booked(2, 100_000), theirs: booked(3, 150_000) },
        { day: '2026-11-04', ours: booked(1, 90_000), theirs: booked(1, 50_000) },
        { day: '2026-11-05', ours: booked(2, 50_000), theirs: booked(1, 50_000) },
      ]),
      statement('Cedar', [], 'wrong-key'),
    ],
  })
  expect((await rowOf('Alder')).getByText('none')).toBeTruthy()
  const birch = await rowOf('Birch')
  expect(birch.getAllByText(/more by|another number/).map(({ textContent }) => textContent)).toEqual([
    expect.stringMatching(/3 Nov.*€0\.05 more by theirs/),
    expect.stringMatching(/4 Nov.*€0\.04 more by ours/),
    expect.stringMatching(/5 Nov.*another number of charges/),
  ])
  expect((await rowOf('Cedar')).queryByText('none')).toBeNull()
})

it('does not ask the services for whoever may only look', async () => {
  const { sent, container } = rendered(<Statements />, { readMe: { ...OPERATOR, role: 'viewer' } })
  await waitFor(() => expect(sent).toHaveLength(1))
  await act(async () => {})
  expect(container.textContent).toBe('')
  expect(sent.map(({ name }) => name)).toEqual(['readMe'])
})

const month = (limit: number | null): SpendMonth => ({
  limit: null,
  spent: 9_000_000,
  promised: 0,
  providers: [{ provider: 'alder', name: 'Alder', limit, spent: 9_000_000, waiting: 500_000 }],
})

it.each<[string, number | null, RegExp]>([
  ['no limit', null, /no limit/],
  ['much left', 100_000_000, /enough is left/],
  ['little left', 10_000_000, /less than a fifth is left/],
  ['nothing left', 9_500_000, /reached/],
])('says how a service stands: %s', async (_, limit, said) => {
  rendered(<ProviderLimits />, { readMe: OPERATOR, readSpendMonth: month(limit) })
  expect((await rowOf('Alder')).getByText(said)).toBeTruthy()
  expect(screen.queryByRole('button')).toBeNull()
})

it('takes a limit from an owner in euros, refuses what is none, and takes it away', async () => {
  let limit: number | null = null
  const { user, sent } = rendered(<ProviderLimits />, {
    readMe: OWNER,
    readSpendMonth: () => month(limit),
    changeProviderLimit: ({ body }) => {
      limit = (body as { limit: number | null }).limit
      return month(limit)
    },
  })
  await user.click(await screen.findByRole('button', { name: 'Set a limit for Alder' }))
  const euros = screen.getByLabelText('In euros')
  await user.type(euros, 'much')
  expect(screen.getByText('A sum above 0, such as 50.')).toBeTruthy()
  expect((screen.getByRole('button', { name: 'Keep' }) as HTMLButtonElement).disabled).toBe(true)
  await user.clear(euros)
  await user.type(euros, '12.50{Enter}')
  await user.click(await screen.findByRole('button', { name: 'Change the limit for Alder' }))
  expect((screen.getByLabelText('In euros') as HTMLInputElement).value).toBe('12.5')
  await user.click(screen.getByRole('button', { name: 'No limit' }))
  await screen.findByRole('button', { name: 'Set a limit for Alder' })
  const bodies = sent.flatMap(({ name, body }) => (name === 'changeProviderLimit' ? [body] : []))
  expect(bodies).toEqual([{ limit: 12_500_000 }, { limit: null }])
})
