/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { expect, it } from '@jest/globals'
import { screen, waitFor, within } from '@testing-library/react'
import type { CallItem, CallSheet as Sheet } from '@upper-field/contract'
import { CallSheet } from '../../src/split/CallSheet'
import { OPERATOR, Refusal, rendered } from './rendered'

const CALL = '8b1f0f0e-3c1e-4d55-9f0e-5b0a3f1f2a10'
const item = (contactId: number, more: Partial<CallItem> = {}): CallItem => ({
  contactId,
  fullName: `Person ${contactId}`,
  company: 'Heron Lodge',
  title: '',
  city: 'Kelso',
  country: 'GB',
  e164: `+44791120448${contactId}`,
  lineType: 'mobile',
  lineStatus: 'in-service',
  isShared: false,
  call: 'now',
  clock: '10:40',
  until: '18:00',
  last: null,
  ...more,
})
const sheet = (...next: CallItem[]): Sheet => ({
  now: next.length,
  later: 0,
  resting: 0,
  isCapped: false,
  next,
  today: { reached: 0, 'no-answer': 0, 'wrong-number': 0, 'asked-not-to': 0, later: 0 },
  lastCall: null,
})
const now = () => within(screen.getByRole('region', { name: 'To be called now' }))

it('notes an outcome of whoever is first by its key', async () => {
  let left = [item(1), item(2)]
  const { user, sent } = rendered(<CallSheet />, {
    readMe: OPERATOR,
    readCallSheet: () => sheet(...left),
    noteCall: () => {
      left = left.slice(1)
      return { id: CALL }
    },
  })
  await screen.findByRole('heading', { name: 'Person 1' })
  await user.keyboard('3')
  await screen.findByRole('heading', { name: 'Person 2' })
  const [noted] = sent.filter(({ name }) => name === 'noteCall')
  expect(noted?.body).toEqual({ contactId: 1, e164: '+447911204481', outcome: 'wrong-number', againAt: null })
  expect(sent.filter(({ name }) => name === 'noteCall')).toHaveLength(1)
})

it('notes one outcome for a call, however often the key is pressed before the next is there', async () => {
  let next: (sheet: Sheet) => void = () => {}
  let asked = 0
  const { user, sent } = rendered(<CallSheet />, {
    readMe: OPERATOR,
    readCallSheet: () =>
      asked++ === 0
        ? sheet(item(1), item(2))
        : new Promise<Sheet>((resolve) => {
            next = resolve
          }),
    noteCall: { id: CALL },
  })
  await screen.findByRole('heading', { name: 'Person 1' })
  await user.keyboard('1')
  await waitFor(() => expect(asked).toBe(2))
  await user.keyboard('12')
  expect(sent.filter(({ name }) => name === 'noteCall')).toHaveLength(1)
  next(sheet(item(2)))
  await screen.findByRole('heading', { name: 'Person 2' })
  await user.keyboard('1')
  await waitFor(() => expect(sent.filter(({ name }) => name === 'noteCall')).toHaveLength(2))
})

it('can note another outcome where one was refused', async () => {
  const { user, sent } = rendered(<CallSheet />, {
    readMe: OPERATOR,
    readCallSheet: sheet(item(1)),
    noteCall: () => new Refusal(409, 'list-busy', 'The list is being tidied.'),
  })
  await screen.findByRole('heading', { name: 'Person 1' })
  await user.keyboard('1')
  expect((await screen.findByRole('alert')).textContent).toBe('The list is being tidied.')
  await user.keyboard('2')
  expect(sent.filter(({ name }) => name === 'noteCall')).toHaveLength(2)
})

it('asks when somebody is called again, and notes nothing before', async () => {
  const { user, sent } = rendered(<CallSheet />, {
    readMe: OPERATOR,
    readCallSheet: sheet(item(1)),
    noteCall: { id: CALL },
  })
  await user.click(await screen.findByRole('button', { name: /^Later/ }))
  expect(sent.some(({ name }) => name === 'noteCall')).toBe(false)
  await user.click(
    within(screen.getByRole('group', { name: 'Called again' })).getByRole('button', { name: 'tomorrow' }),
  )
  const [noted] = sent.filter(({ name }) => name === 'noteCall')
  expect(noted?.body).toMatchObject({ outcome: 'later', againAt: expect.stringMatching(/^\d{4}-/) })
})

it('shows a viewer whom to call, and no outcomes', async () => {
  const { user, sent } = rendered(<CallSheet />, {
    readMe: { ...OPERATOR, role: 'viewer' },
    readCallSheet: sheet(item(1)),
  })
  await screen.findByRole('heading', { name: 'Person 1' })
  expect(now().queryAllByRole('button')).toEqual([])
  await user.keyboard('1')
  expect(sent.some(({ name }) => name === 'noteCall')).toBe(false)
})

it('says what went wrong, and keeps whoever it was', async () => {
  const { user } = rendered(<CallSheet />, {
    readMe: OPERATOR,
    readCallSheet: sheet(item(1)),
    noteCall: () => new Refusal(409, 'list-busy', 'Somebody else is changing this list.'),
  })
  await screen.findByRole('heading', { name: 'Person 1' })
  await user.keyboard('1')
  expect(await screen.findByText('Somebody else is changing this list.')).toBeTruthy()
  expect(now().getByRole('heading', { name: 'Person 1' })).toBeTruthy()
})

it('says who rests where nobody is left', async () => {
  rendered(<CallSheet />, { readMe: OPERATOR, readCallSheet: { ...sheet(), resting: 3 } })
  expect(await screen.findByText(/^Nobody is left to be called; 3 are called again another time/)).toBeTruthy()
})

it.each([
  [false, '7 more after these.'],
  [true, 'At least 7 more after these.'],
])('tells how many follow, and whether there may be more of them: %s', async (isCapped, text) => {
  rendered(<CallSheet />, {
    readMe: OPERATOR,
    readCallSheet: { ...sheet(item(1), item(2)), now: 4, later: 5, isCapped },
  })
  expect(await screen.findByText(text)).toBeTruthy()
})
