/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { expect, it } from '@jest/globals'
import { screen } from '@testing-library/react'
import type { Decided } from '@upper-field/contract'
import { Decisions } from '../../src/pair/Decisions'
import { type Answers, OPERATOR, Refusal, rendered } from './rendered'

const LAST: Decided = { id: 5, decision: 'join', pairs: 3, who: 'Maren Oldershaw', at: '2026-11-28T09:00:00Z' }
const FIRST: Decided = { ...LAST, id: 4, decision: 'apart', pairs: 1 }
const shown = (more: Answers = {}, at = '') =>
  rendered(<Decisions listId="l1" />, { readMe: OPERATOR, readDecided: [LAST, FIRST], ...more }, at)
const takenBack = (sent: readonly { name: string }[]) => sent.filter(({ name }) => name === 'takeDecisionBack').length

it('stand with a way back, the last first', async () => {
  const { user, sent } = shown({ takeDecisionBack: LAST })
  expect(await screen.findByText(/^3 pairs joined/)).toBeTruthy()
  expect(screen.getByText(/^1 pair kept apart/)).toBeTruthy()
  await user.click(screen.getAllByRole('button', { name: 'Take back' })[1] as HTMLElement)
  expect(takenBack(sent)).toBe(1)
})

it('are taken back by a key, unless the story of a contact is open: there the key means that contact', async () => {
  const alone = shown({ takeDecisionBack: LAST })
  await screen.findByText(/^3 pairs joined/)
  await alone.user.keyboard('z')
  expect(takenBack(alone.sent)).toBe(1)
  alone.unmount()
  const beside = shown({}, 'contact=71')
  await screen.findByText(/^3 pairs joined/)
  await beside.user.keyboard('z')
  expect(takenBack(beside.sent)).toBe(0)
})

it('say why one could not be taken back', async () => {
  const { user } = shown({ takeDecisionBack: () => new Refusal(409, 'list-busy', 'The list is being paired.') })
  await user.click((await screen.findAllByRole('button', { name: 'Take back' }))[0] as HTMLElement)
  expect((await screen.findByRole('alert')).textContent).toBe('The list is being paired.')
})

it('can all be reached, however many were made since', async () => {
  const made = Array.from({ length: 45 }, (_, i): Decided => ({ ...LAST, id: 100 - i, pairs: 45 - i }))
  const { user } = shown({ readDecided: ({ search }) => made.slice(0, Number(search.get('limit'))) })
  const shownNow = () => screen.getAllByRole('listitem').length
  await screen.findByText(/^45 pairs joined/)
  expect(shownNow()).toBe(20)
  await user.click(screen.getByRole('button', { name: 'Show more' }))
  await screen.findByText(/^25 pairs joined/)
  await user.click(await screen.findByRole('button', { name: 'Show more' }))
  await screen.findByText(/^1 pair joined/)
  expect(shownNow()).toBe(45)
  expect(screen.queryByRole('button', { name: 'Show more' })).toBeNull()
})
