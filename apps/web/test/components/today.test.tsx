/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { expect, it } from '@jest/globals'
import { screen, within } from '@testing-library/react'
import type { Todo } from '@upper-field/contract'
import { FoundInLists } from '../../src/lists/SearchAllLists'
import { Today } from '../../src/lists/Today'
import { Refusal, rendered } from './rendered'

const LIST = '6f1c1b8e-6f0b-4c55-9d7e-0a4c7c9a1d02'
const todo = (n: number): Todo => ({
  kind: 'not-sent',
  pressure: 'quiet',
  listId: LIST,
  listName: `List ${n}`,
  audienceId: null,
  name: '',
  destination: '',
  n,
  more: 0,
  at: null,
  says: '',
})

it('shows what wants doing with the way there, and the rest when asked', async () => {
  const { user } = rendered(<Today />, {
    readToday: Array.from({ length: 14 }, (_, n) => ({ ...todo(n + 1), name: String(n) })),
  })
  expect(await screen.findAllByRole('listitem')).toHaveLength(12)
  expect(screen.getAllByRole('link', { name: 'Open Send' })[0]?.getAttribute('href')).toBe(`/lists/${LIST}/send`)
  await user.click(screen.getByRole('button', { name: 'Show 2 more' }))
  expect(screen.getAllByRole('listitem')).toHaveLength(14)
})

it('says that it is reading until it knows', async () => {
  let answer: (todos: Todo[]) => void = () => {}
  rendered(<Today />, { readToday: () => new Promise<Todo[]>((resolve) => (answer = resolve)) })
  expect((await screen.findByRole('status')).textContent).toBe('Reading what wants doing …')
  answer([todo(1)])
  expect(await screen.findAllByRole('listitem')).toHaveLength(1)
  expect(screen.queryByRole('status')).toBeNull()
})

it('does not read for ever where it is refused, and can be asked again', async () => {
  let isUp = false
  const { user } = rendered(<Today />, {
    readToday: () => (isUp ? [] : new Refusal(503, 'busy', 'The database is being started.')),
  })
  expect((await screen.findByRole('alert')).textContent).toMatch(/^The database is being started\./)
  expect(screen.queryByRole('status')).toBeNull()
  isUp = true
  await user.click(screen.getByRole('button', { name: 'Read it again' }))
  expect(await screen.findByText('nothing wants doing')).toBeTruthy()
  expect(screen.queryByRole('alert')).toBeNull()
})

it('says that nothing wants doing', async () => {
  rendered(<Today />, { readToday: [] })
  expect(await screen.findByText('nothing wants doing')).toBeTruthy()
})

it('gives the address of a calendar once asked, and ends it', async () => {
  const { user, sent } = rendered(<Today />, {
    readToday: [],
    makeCalendar: { address: 'https://upper.example/api/v1/calendar/secret' },
    removeCalendar: {},
  })
  await user.click(screen.getByRole('button', { name: 'Dates of audiences in my calendar' }))
  expect(((await screen.findByLabelText('Address of the calendar')) as HTMLInputElement).value).toContain(
    '/calendar/secret',
  )
  await user.click(screen.getByRole('button', { name: 'End this address' }))
  expect(await screen.findByRole('button', { name: 'Dates of audiences in my calendar' })).toBeTruthy()
  expect(sent.map(({ name }) => name)).toContain('removeCalendar')
})

it('says why the address of a calendar could not be ended, and keeps it', async () => {
  const { user } = rendered(<Today />, {
    readToday: [],
    makeCalendar: { address: 'https://upper.example/api/v1/calendar/secret' },
    removeCalendar: () => new Refusal(503, 'busy', 'The database is being started.'),
  })
  await user.click(screen.getByRole('button', { name: 'Dates of audiences in my calendar' }))
  await user.click(await screen.findByRole('button', { name: 'End this address' }))
  expect((await screen.findByRole('alert')).textContent).toMatch(/^The database is being started\./)
  expect(screen.getByLabelText('Address of the calendar')).toBeTruthy()
})

it('says whom it has found, by list, and where it has found nobody', async () => {
  rendered(<FoundInLists text="maren" />, {
    searchLists: [{ listId: LIST, listName: 'Terraces', contacts: [], total: 1000, isCapped: true }],
  })
  const list = await screen.findByRole('region', { name: 'Terraces' })
  expect(within(list).getByRole('link').getAttribute('href')).toBe(`/lists/${LIST}/tidy?q=maren`)
  expect(within(list).getByRole('link').textContent).toBe('more than 1,000')
})
