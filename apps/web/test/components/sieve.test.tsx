/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { expect, it } from '@jest/globals'
import { screen, within } from '@testing-library/react'
import { Sieve } from '../../src/shell/Sieve'
import { counted } from './piles'
import { type Answers, rendered, type Sent } from './rendered'

const answers = (more: Answers = {}): Answers => ({
  readPiles: counted({ country: { GB: 120, DE: 30, FR: 0 }, line: { mobile: 90, 'fixed-line': 60 } }),
  readBatches: [],
  readLaneRules: { isOwn: false, rules: [] },
  ...more,
})
const sieve = (at = '', more: Answers = {}) => rendered(<Sieve piles={['country', 'line']} />, answers(more), at)
const buttonOf = (name: RegExp) => screen.findByRole('button', { name })

it('narrows by a value, by one more, and lets it go again', async () => {
  const { user, address } = sieve()
  await user.click(await buttonOf(/^United Kingdom/))
  expect(address()).toBe('/lists/l1?q=country:GB')
  await user.click(await buttonOf(/^Germany/))
  expect(address()).toBe('/lists/l1?q=country:GB,DE')
  await user.click(await buttonOf(/^United Kingdom/))
  expect(address()).toBe('/lists/l1?q=country:DE')
})

it('leaves out what nobody has, but never what was chosen', async () => {
  sieve()
  await buttonOf(/^Germany/)
  expect(screen.queryByRole('button', { name: /^France/ })).toBeNull()
})

it('shows a chosen value that nobody has any more, so that it can be let go', async () => {
  const { user, address } = sieve('q=country:FR kelso')
  await user.click(await buttonOf(/^France/))
  expect(address()).toBe('/lists/l1?q=kelso')
})

it('shows everyone again', async () => {
  const { user, address } = sieve('q=country:GB kelso')
  await user.click(await buttonOf(/^Show everyone/))
  expect(address()).toBe('/lists/l1')
})

it('shows the first of many values, and the others when asked to', async () => {
  const many = Object.fromEntries(['GB', 'DE', 'FR', 'SE', 'NO', 'DK', 'FI', 'PL', 'ES', 'IT'].map((one) => [one, 1]))
  const { user } = sieve('', { readPiles: counted({ country: many }) })
  const shown = () => within(screen.getByRole('complementary')).getAllByRole('listitem')
  await user.click(await buttonOf(/^2 more/))
  expect(shown()).toHaveLength(10)
  await user.click(await buttonOf(/^Fewer/))
  expect(shown()).toHaveLength(8)
})

it('shows an estimate of a large list as one, until everybody was counted', async () => {
  let countEverybody = () => {}
  const counting = new Promise<void>((resolve) => {
    countEverybody = resolve
  })
  const exact = counted({ country: { GB: 123_456 } })
  const readPiles = ({ search }: Sent) =>
    search.get('estimate') === 'yes'
      ? { ...counted({ country: { GB: 120_000 } }), isEstimate: true }
      : counting.then(() => exact)
  sieve('q=company:lodge', { readPiles })
  expect((await buttonOf(/^United Kingdom/)).textContent).toMatch(/≈\s?120,000/)
  countEverybody()
  expect((await screen.findByText('123,456')).textContent).toBe('123,456')
})
