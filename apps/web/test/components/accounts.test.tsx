/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { expect, it } from '@jest/globals'
import { screen, within } from '@testing-library/react'
import type { PersonLine } from '@upper-field/contract'
import { Accounts } from '../../src/people/Accounts'
import { OPERATOR, Refusal, rendered } from './rendered'

const ME: PersonLine = {
  ...OPERATOR,
  role: 'owner',
  addedAt: '2026-11-01T08:00:00.000Z',
  lastSeenAt: null,
  sessions: 1,
}
const TOM: PersonLine = {
  ...ME,
  id: 'p2',
  name: 'Tom Kestle',
  email: 'tom@wrenfold.example',
  role: 'viewer',
  sessions: 2,
}

const roleOf = (name: string) =>
  screen.findByRole('combobox', { name: `Role of ${name}` }) as Promise<HTMLSelectElement>

it('gives another person another role at once', async () => {
  let role: PersonLine['role'] = 'viewer'
  const { user, sent } = rendered(<Accounts me={ME} />, {
    readPeople: () => [ME, { ...TOM, role }],
    changePerson: () => {
      role = 'operator'
      return { ...TOM, role }
    },
  })
  await user.selectOptions(await roleOf('Tom Kestle'), 'operator')
  expect(sent.find(({ name }) => name === 'changePerson')?.body).toEqual({ role: 'operator' })
  expect(screen.queryByRole('dialog')).toBeNull()
})

it('takes the own role away only from who has said so twice', async () => {
  const { user, sent } = rendered(<Accounts me={ME} />, {
    readPeople: [ME, { ...TOM, role: 'owner' }],
    changePerson: { ...ME, role: 'viewer' },
  })
  const mine = await roleOf(ME.name)
  await user.selectOptions(mine, 'viewer')
  const asked = within(screen.getByRole('dialog', { name: 'Give up being an owner?' }))
  expect(asked.getByText(/^You are viewer from then on/)).toBeTruthy()
  await user.click(asked.getByRole('button', { name: 'Cancel' }))
  expect([mine.value, sent.some(({ name }) => name === 'changePerson')]).toEqual(['owner', false])
  await user.selectOptions(mine, 'operator')
  await user.click(screen.getByRole('button', { name: 'Give it up' }))
  expect(sent.find(({ name }) => name === 'changePerson')?.body).toEqual({ role: 'operator' })
})

it('says what removing somebody ends, and why it was refused', async () => {
  const { user } = rendered(<Accounts me={ME} />, {
    readPeople: [ME, TOM],
    removePerson: () => new Refusal(409, 'last-owner', 'This is the only owner.'),
  })
  expect(screen.queryByRole('button', { name: `Remove ${ME.name}` })).toBeNull()
  await user.click(await screen.findByRole('button', { name: 'Remove Tom Kestle' }))
  const dialog = within(screen.getByRole('dialog'))
  expect(dialog.getByText(/2 open sessions of theirs end at once/)).toBeTruthy()
  await user.click(dialog.getByRole('button', { name: 'Remove Tom Kestle' }))
  expect((await screen.findByRole('alert')).textContent).toBe('This is the only owner.')
})
