/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { describe, expect, it } from '@jest/globals'
import { screen, waitFor, within } from '@testing-library/react'
import type { DirectorySearch } from '@upper-field/contract'
import { NewSearchForm } from '../../src/directory/NewSearchForm'
import { type Answers, Refusal, rendered } from './rendered'
import { service } from './services'

const DIRECTORY = service('hedgerow', { role: 'directory', gives: ['businesses'], pricePer: 'candidate' })
const TRADES = [
  { code: 'campsites', name: 'Campsites' },
  { code: 'cafes', name: 'Cafés and terraces' },
]
const PLACES = [{ code: 'GB', name: 'United Kingdom' }]
const SEARCH: DirectorySearch = {
  id: '4f1c2a9e-7d1b-4f0e-9a53-0b6a5f7a2c11',
  listId: '5f1c2a9e-7d1b-4f0e-9a53-0b6a5f7a2c11',
  name: 'Campsites',
  provider: 'hedgerow',
  trade: { code: 'cafes', name: 'Cafés and terraces' },
  place: { code: 'GB', name: 'United Kingdom' },
  jobId: null,
  batchId: null,
  madeBy: 'Maren Oldershaw',
  madeAt: '2026-11-28T09:00:00Z',
  budget: 1_000_000,
  spent: 0,
  total: 40,
  pages: 0,
  leftOut: 0,
  isWhole: false,
  became: { taken: 0, 'there-already': 0, suppressed: 0, closed: 0, 'told-before': 0 },
}
const PLAN = {
  total: 40,
  leftOut: 10,
  named: 12,
  isNamedInPart: false,
  pricePer: 'candidate' as const,
  price: 60_000,
  calls: 1,
  most: 1_800_000,
}
const ANSWERS: Answers = {
  lookUpInDirectory: ({ search }) => {
    const wanted = (search.get('search') ?? '').toLowerCase()
    return [...TRADES, ...PLACES].filter(({ name }) => name.toLowerCase().includes(wanted))
  },
  planDirectorySearch: PLAN,
  startDirectorySearch: SEARCH,
}
const shown = (more: Answers = {}) =>
  rendered(<NewSearchForm listId="l1" directories={[DIRECTORY]} />, { ...ANSWERS, ...more })

async function chooseByKeys(view: ReturnType<typeof shown>, field: string, text: string, name: string) {
  await view.user.type(screen.getByRole('combobox', { name: field }), text)
  await screen.findByRole('option', { name })
  await view.user.keyboard('{Enter}')
}

describe('a search of a directory', () => {
  it('is agreed to by keyboard: looked up, told its price, given an amount, begun', async () => {
    const view = shown()
    const trade = screen.getByRole('combobox', { name: 'Trade' })
    await view.user.type(trade, 'ca')
    await screen.findByRole('option', { name: 'Campsites' })
    await view.user.keyboard('{ArrowDown}{Enter}')
    expect((trade as HTMLInputElement).value).toBe('Cafés and terraces')
    await chooseByKeys(view, 'Place', 'king', 'United Kingdom')
    const before = within(await screen.findByRole('region', { name: 'Before it starts' }))
    expect(before.getByText('€1.80')).toBeTruthy()
    const most = before.getByLabelText('Not more than, €')
    await view.user.clear(most)
    await view.user.type(most, '1,50{Enter}')
    await waitFor(() => expect(view.address()).toContain('/bring/directory/'))
    expect(view.sent.at(-1)).toMatchObject({
      name: 'startDirectorySearch',
      body: { provider: 'hedgerow', trade: TRADES[1], place: PLACES[0], budget: 1_500_000 },
    })
  })

  it('is planned again where the trade changes, and not before one is chosen', async () => {
    const view = shown()
    await chooseByKeys(view, 'Trade', 'camp', 'Campsites')
    await chooseByKeys(view, 'Place', 'king', 'United Kingdom')
    await screen.findByRole('region', { name: 'Before it starts' })
    await view.user.type(screen.getByRole('combobox', { name: 'Trade' }), 'x')
    expect(screen.queryByRole('region', { name: 'Before it starts' })).toBeNull()
    await screen.findByText('The directory knows no “Campsitesx”.')
    expect(view.sent.filter(({ name }) => name === 'planDirectorySearch')).toHaveLength(1)
  })

  it('takes no amount that is none, or below one charge', async () => {
    const view = shown()
    await chooseByKeys(view, 'Trade', 'camp', 'Campsites')
    await chooseByKeys(view, 'Place', 'king', 'United Kingdom')
    const most = await screen.findByLabelText('Not more than, €')
    for (const [text, why] of [
      ['much', 'An amount such as 12.50.'],
      ['0.01', 'Less than one charge, €0.06.'],
    ] as const) {
      await view.user.clear(most)
      await view.user.type(most, text)
      expect(screen.getByText(why)).toBeTruthy()
      expect(screen.getByRole('button', { name: 'Fetch 30 businesses' })).toHaveProperty('disabled', true)
    }
  })

  it('says so where nobody new is there, and where the directory has no answer', async () => {
    const view = shown({ planDirectorySearch: { ...PLAN, leftOut: 40, most: 0 } })
    await chooseByKeys(view, 'Trade', 'camp', 'Campsites')
    await chooseByKeys(view, 'Place', 'king', 'United Kingdom')
    await screen.findByText(/40 of them are in this list already/)
    expect(screen.queryByRole('button', { name: /^Fetch/ })).toBeNull()
    view.unmount()
    const other = shown({ planDirectorySearch: () => new Refusal(502, 'odd-answer', 'It cannot be read.') })
    await chooseByKeys(other, 'Trade', 'camp', 'Campsites')
    await chooseByKeys(other, 'Place', 'king', 'United Kingdom')
    await screen.findByText('It cannot be read.')
  })
})
